import { PersonBody } from '@/contracts/people';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { keepPerson } from '@/server/services/people';

export const POST = recordingSite({ body: PersonBody, run: keepPerson, reply: plainReply });
export const ALL = notThatWay;
