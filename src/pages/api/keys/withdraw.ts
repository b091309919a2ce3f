import { RevokeKeyBody } from '@/contracts/people';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { withdrawKey } from '@/server/services/people';

export const POST = recordingSite({ body: RevokeKeyBody, run: withdrawKey, reply: plainReply });
export const ALL = notThatWay;
