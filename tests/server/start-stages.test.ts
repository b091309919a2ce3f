import { describe, expect, it } from 'vitest';
import { startStages } from '@/server/services/plan/start-stages';
import { planYard } from '@/server/services/plan/plan-yard';
import { loadRound } from '@/server/services/plan/round';
import { demoContext, newId } from '../support/database';

describe('a part whose last change nobody recorded', () => {
  it('is asked about once, counts from the day that is said, and is in the plan from then on', async () => {
    const context = await demoContext();
    const { db } = context;
    const { id: machine } = await db
      .selectFrom('machine')
      .select('id')
      .where('tag', '=', 'CR-16')
      .executeTakeFirstOrThrow();
    // Bought years ago and entered with its purchase date, without a record.
    await db.updateTable('machine').set({ in_service_on: '2020-03-01' }).where('id', '=', machine).execute();
    await db.updateTable('stage').set({ first_used_on: '2020-03-01' }).where('machine_id', '=', machine).execute();
    const round = async () => {
      const all = await loadRound(context);
      const own = (lines: typeof all.changeUnknown) =>
        lines.filter((l) => l.status.machine.tag === 'CR-16').map((l) => l.stage.id);
      return { unknown: own(all.changeUnknown), overdue: own(all.overdue), later: own(all.today) };
    };
    const planned = async () => (await planYard(context)).made.stages.filter((s) => s.tag === 'CR-16').length;
    const before = await round();
    expect(before.unknown.length).toBeGreaterThan(0);
    expect(before.overdue).toEqual([]);
    const inPlan = await planned();

    const say = (stageIds: readonly number[], day: string, clientId = newId()) =>
      startStages(context, { clientId, by: 'MK', stageIds: [...stageIds], day });
    const codes = async (answer: ReturnType<typeof say>) => {
      const made = await answer;
      return made.ok ? 'ok' : made.failures.map((f) => f.code).join();
    };
    expect(await codes(say(before.unknown, '2026-11-25'))).toBe('date.future');
    expect(await codes(say(before.unknown, '2020-02-28'))).toBe('date.before-service');
    // One unknown stage refuses all: nothing is half said.
    expect(await codes(say([...before.unknown, 99_999], '2026-10-25'))).toBe('stage.unknown');
    expect((await round()).unknown).toEqual(before.unknown);

    const twice = newId();
    expect(await codes(say(before.unknown, '2026-10-25', twice))).toBe('ok');
    expect(await codes(say(before.unknown, '2026-10-25', twice))).toBe('ok');
    expect((await db.selectFrom('stage_start').select('id').execute()).length).toBe(before.unknown.length);
    expect(await round()).toEqual({ unknown: [], overdue: [], later: [] });
    expect(await planned()).toBeGreaterThan(inPlan);
  });
});
