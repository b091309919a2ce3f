import { OpenHereBody } from '@/contracts/people';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { chooseOpenHere } from '@/server/services/people';

export const POST = recordingSite({ body: OpenHereBody, run: chooseOpenHere, reply: plainReply });
export const ALL = notThatWay;
