import { OfPersonBody, SecretReply } from '@/contracts/people';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { makeCode } from '@/server/services/people';

export const POST = recordingSite({ body: OfPersonBody, run: makeCode, reply: (made) => SecretReply.parse(made) });
export const ALL = notThatWay;
