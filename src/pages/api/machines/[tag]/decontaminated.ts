import { DecontaminatedBody } from '@/contracts/dust';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { recordDecontaminated } from '@/server/services/state-dust';

export const POST = recording({ body: DecontaminatedBody, run: recordDecontaminated, reply: plainReply });
export const ALL = notThatWay;
