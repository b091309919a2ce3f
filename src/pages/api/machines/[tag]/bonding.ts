import { BondingBody } from '@/contracts/tools';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { recordBonding } from '@/server/services/tools';

export const POST = recording({ body: BondingBody, run: recordBonding, reply: plainReply });
export const ALL = notThatWay;
