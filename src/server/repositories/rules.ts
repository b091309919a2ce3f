import type { Rule } from '@/core/interval/rules';
import type { Db } from '../db/connect';

/** Replaces the rules of a stage: rules are settings, not records of work. */
export const replaceRules = async (
  db: Db,
  stageId: number,
  rules: readonly { readonly rule: Rule; readonly school: string }[],
): Promise<void> => {
  await db.deleteFrom('rule').where('stage_id', '=', stageId).execute();
  for (const { rule, school } of rules)
    await db
      .insertInto('rule')
      .values({ stage_id: stageId, rule_json: JSON.stringify(rule), school })
      .execute();
};
