import { RestoreBody } from '@/contracts/backup';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { restoreHere } from '@/server/http/restore';

export const POST = recordingSite({ body: RestoreBody, run: restoreHere, reply: plainReply });
export const ALL = notThatWay;
