import { z } from 'zod';
import { RuleJson } from './json-columns';
import { ClientId, Initials } from './requests';

/** Limits below these are slips of the pen: a bag that is due at a thousandth full would be due for ever. */
const LEAST_HOURS = 0.5;
const LEAST_FILL = 0.05;
const LEAST_LOSS = 0.01;
const isPlausible = (rule: z.infer<typeof RuleJson>): boolean =>
  (rule.kind !== 'runHours' || rule.hours >= LEAST_HOURS) &&
  (rule.kind !== 'fill' || rule.share >= LEAST_FILL) &&
  (rule.kind !== 'flowLost' || rule.share >= LEAST_LOSS);

/** A rule as it may be set. */
export const PlausibleRule = RuleJson.refine(isPlausible, { params: { code: 'rule.range' } });

/** The rules of one stage as they shall be from now on; the whole list, so that nothing is left behind. */
export const EditRulesBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  stageId: z.int().positive(),
  rules: z
    .array(
      z.strictObject({
        rule: PlausibleRule,
        school: z.string().trim().max(120),
      }),
    )
    .max(12),
});
export type EditRulesBody = z.infer<typeof EditRulesBody>;
