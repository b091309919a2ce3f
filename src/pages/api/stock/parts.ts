import { PartBody } from '@/contracts/registers';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { keepPart } from '@/server/services/registers';

export const POST = recordingSite({ body: PartBody, run: keepPart, reply: plainReply });
export const ALL = notThatWay;
