import { PlainAnswer } from '@/contracts/action-answer';
import type { StartStagesBody } from '@/contracts/plan';
import { dayAt } from '@/core/calendar/calendar-date';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { loadMachines } from '../../repositories/machines';
import { loadSite } from '../../repositories/site';
import { insertStageStart } from '../../repositories/wear';
import { type Context, runOnce } from '../yard/user-action';

/** Counts the time of stages from one day on, where nobody recorded their last change. All of them, or none. */
export const startStages = async (
  { db, now }: Context,
  body: StartStagesBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: 'start stages', body, at, answers: PlainAnswer }, async (tx) => {
    const { stageIds, day, by } = body;
    if (day > dayAt(at, (await loadSite(tx)).timeZone)) return fail(failure('date.future', 'day', { day }));
    const machines = await loadMachines(tx);
    let id = 0;
    for (const stageId of stageIds) {
      const machine = machines.find((m) => m.stages.some((s) => s.id === stageId));
      if (!machine) return fail(failure('stage.unknown', 'stageIds', { tag: 'the yard' }));
      if (day < machine.inServiceOn)
        return fail(failure('date.before-service', 'day', { day, inServiceOn: machine.inServiceOn }));
      id = await insertStageStart(tx, { stageId, day, at, by });
    }
    return ok({ id });
  });
};
