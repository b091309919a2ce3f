import { KeyBody, SecretReply } from '@/contracts/people';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { makeKey } from '@/server/services/people';

export const POST = recordingSite({ body: KeyBody, run: makeKey, reply: (made) => SecretReply.parse(made) });
export const ALL = notThatWay;
