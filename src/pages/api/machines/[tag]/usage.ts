import { LogUsageBody } from '@/contracts/plan';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { logUsage } from '@/server/services/log-wear';

export const POST = recording({ body: LogUsageBody, run: logUsage, reply: plainReply });
export const ALL = notThatWay;
