import { z } from 'zod';
import { RuleJson } from './json-columns';
import { ClientId, Initials } from './requests';

/** The rules of one stage as they shall be from now on; the whole list, so that nothing is left behind. */
export const EditRulesBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  stageId: z.int().positive(),
  rules: z.array(z.strictObject({ rule: RuleJson, school: z.string().trim().max(120) })).max(12),
});
export type EditRulesBody = z.infer<typeof EditRulesBody>;
