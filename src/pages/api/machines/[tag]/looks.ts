import { LogLookBody } from '@/contracts/plan';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { logLook } from '@/server/services/log-wear';

export const POST = recording({ body: LogLookBody, run: logLook, reply: plainReply });
export const ALL = notThatWay;
