import { PlainAnswer } from '@/contracts/action-answer';
import type { LockPlanBody } from '@/contracts/plan';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { dayAt } from '@/core/calendar/calendar-date';
import { stageIdsInUse } from '../../repositories/machines';
import { insertLock } from '../../repositories/plans';
import { loadSite } from '../../repositories/site';
import { type Context, runOnce } from '../yard/user-action';

/** Fixes the days of stages in the plan, or sets them free, all in one. */
export const lockPlan = async ({ db, now }: Context, body: LockPlanBody): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: 'lock plan', body, at, answers: PlainAnswer }, async (tx) => {
    const known = await stageIdsInUse(tx);
    const { timeZone } = await loadSite(tx);
    const today = dayAt(at, timeZone);
    if (body.locks.some((l) => !known.has(l.stageId)))
      return fail(failure('stage.unknown', 'locks', { tag: 'the yard' }));
    if (body.locks.some((l) => l.day !== null && l.day < today)) return fail(failure('plan.past', 'locks'));
    let id = 0;
    for (const { stageId, day } of body.locks) id = await insertLock(tx, { stageId, day, at, by: body.by });
    return ok({ id });
  });
};
