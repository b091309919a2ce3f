import { CaseActionBody } from '@/contracts/find';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { doInCase } from '@/server/services/find-case';

export const POST = recording({ body: CaseActionBody, run: doInCase, reply: plainReply });
export const ALL = notThatWay;
