import { EditRulesBody } from '@/contracts/rules';
import { notThatWay, recording } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { editRules } from '@/server/services/edit-rules';

export const POST = recording({ body: EditRulesBody, run: editRules, reply: plainReply });
export const ALL = notThatWay;
