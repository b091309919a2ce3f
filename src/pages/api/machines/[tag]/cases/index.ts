import { OpenCaseBody } from '@/contracts/find';
import { notThatWay, reading, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { openFaultCase } from '@/server/services/find-case';
import { openCaseOf } from '@/server/services/find-page';

export const POST = recording({ body: OpenCaseBody, run: openFaultCase, reply: plainReply });
export const GET = reading(openCaseOf);
export const ALL = notThatWay;
