import { PlainAnswer } from '@/contracts/action-answer';
import type { EditRulesBody } from '@/contracts/rules';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { circularAfter, namedStage, type RuleRecord } from '@/core/interval/rules';
import { findMachine } from '../../repositories/machines';
import { replaceRules } from '../../repositories/rules';
import { type Context, runOnce } from './user-action';

/** Replaces the rules of one stage. Named stages must be on the same machine, and "only after" must not form a ring. */
export const editRules = async (
  { db, now }: Context,
  tag: string,
  body: EditRulesBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: `rules ${tag}`, body, at, answers: PlainAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const stage = machine.stages.find((s) => s.id === body.stageId);
    if (!stage) return fail(failure('stage.unknown', 'stageId', { tag }));
    const known = (id: number): boolean => id !== stage.id && machine.stages.some((s) => s.id === id);
    const strange = body.rules.findIndex(({ rule }) => {
      const named = namedStage(rule);
      return named !== null && !known(named);
    });
    if (strange >= 0) return fail(failure('stage.unknown', `rules.${strange}`, { tag }));
    const others = machine.stages.filter((s) => s.id !== stage.id).flatMap((s) => s.rules);
    const mine = body.rules.map((r, i): RuleRecord => ({ id: -i, stageId: stage.id, ...r }));
    if (circularAfter([...others, ...mine])) return fail(failure('rule.circular', 'rules'));
    await replaceRules(tx, stage.id, body.rules);
    return ok({ id: stage.id });
  });
};
