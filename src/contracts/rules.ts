import { z } from 'zod';
import { figureOf } from '@/core/interval/rules';
import { RuleJson } from './json-columns';
import { ClientId, Initials } from './requests';

const isPlausible = (rule: z.infer<typeof RuleJson>): boolean => {
  const figure = figureOf(rule);
  return figure === null || figure.value >= figure.least;
};

/** A rule as it may be set. */
export const PlausibleRule = RuleJson.refine(isPlausible, {
  params: { code: 'rule.range' },
  // Says one thing of one figure: the range of the form comes first.
  when: ({ issues }) => issues.length === 0,
});

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
