import { IntegrityBody } from '@/contracts/dust';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { recordIntegrity } from '@/server/services/integrity-check';

export const POST = recording({ body: IntegrityBody, run: recordIntegrity, reply: plainReply });
export const ALL = notThatWay;
