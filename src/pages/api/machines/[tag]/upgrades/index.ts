import { PlanUpgradeBody } from '@/contracts/upgrade';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { planUpgrade } from '@/server/services/upgrades';

export const POST = recording({ body: PlanUpgradeBody, run: planUpgrade, reply: plainReply });
export const ALL = notThatWay;
