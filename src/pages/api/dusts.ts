import { EditDustBody } from '@/contracts/dust';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { editDust } from '@/server/services/state-dust';

export const POST = recordingSite({ body: EditDustBody, run: editDust, reply: plainReply });
export const ALL = notThatWay;
