import { RuleSetBody } from '@/contracts/dust';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { chooseRuleSet } from '@/server/services/state-dust';

export const POST = recordingSite({ body: RuleSetBody, run: chooseRuleSet, reply: plainReply });
export const ALL = notThatWay;
