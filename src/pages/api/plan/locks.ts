import { LockPlanBody } from '@/contracts/plan';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { lockPlan } from '@/server/services/lock-plan';

export const POST = recordingSite({ body: LockPlanBody, run: lockPlan, reply: plainReply });
export const ALL = notThatWay;
