import { beforeEach, describe, expect, it } from 'vitest';
import { addDays } from '@/core/calendar/calendar-date';
import { loadPromises } from '@/server/repositories/plans';
import { lockPlan } from '@/server/services/plan/lock-plan';
import { loadPlanPage } from '@/server/services/plan/plan-page';
import { planYard } from '@/server/services/plan/plan-yard';
import { logAway } from '@/server/services/yard/log-wear';
import { loadYard } from '@/server/services/yard/yard';
import type { Context } from '@/server/services/yard/user-action';
import type { Db } from '@/server/db/connect';
import { demoContext, newId, NOW } from '../support/database';

let context: Context & { readonly db: Db };
let day = 0;
beforeEach(async () => {
  day = 0;
  const made = await demoContext();
  context = { ...made, now: () => new Date(Date.parse(NOW) + day * 86_400_000).toISOString() };
});

/** The promised days as a person reads them: of which stage, on which day. */
const promised = async (): Promise<ReadonlyMap<number, string>> => {
  await planYard(context);
  return new Map((await loadPromises(context.db)).map((p) => [p.stageId, p.day]));
};
const today = async () => (await loadYard(context)).today;

describe('promised days', () => {
  it('nothing recorded, no future day moves from one morning to the next; what was not done says so', async () => {
    let before = await promised();
    expect(before.size).toBeGreaterThan(8);
    for (day = 1; day <= 5; day += 1) {
      const now = await promised();
      const on = await today();
      for (const [stage, was] of before) if (was >= on) expect([day, stage, now.get(stage)]).toEqual([day, stage, was]);
      const page = await loadPlanPage(context, await loadYard(context));
      expect(page.moves.every((m) => m.because === 'passed')).toBe(true);
      before = now;
    }
    const page = await loadPlanPage(context, await loadYard(context));
    expect(page.moves.length).toBeGreaterThan(0);
  });

  it('a machine that is away on its day moves with that reason, and nothing near of another machine moves', async () => {
    const before = await promised();
    const yard = await loadYard(context);
    const stageOf = new Map(
      yard.machines.flatMap(({ machine }) => machine.stages.map((s) => [s.id, machine.tag] as const)),
    );
    const far = [...before].find(([, on]) => on > addDays(yard.today, 3));
    const [stage = 0, on = ''] = far ?? [];
    const tag = stageOf.get(stage) ?? '';
    const logged = await logAway(context, tag, {
      clientId: newId(),
      by: 'MK',
      from: addDays(on, -1),
      to: addDays(on, 3),
      why: 'on loan',
    });
    expect(logged.ok).toBe(true);
    const after = await promised();
    for (const [id, was] of before)
      if (stageOf.get(id) !== tag && was <= addDays(yard.today, 14)) expect([id, after.get(id)]).toEqual([id, was]);
    expect(after.get(stage)).not.toBe(on);
    const { moves } = await loadPlanPage(context, await loadYard(context));
    expect(moves.find((m) => m.tag === tag && m.from === on)?.because).toBe('away');
  });

  it('a day fixed by hand is a move by hand; a trial with other figures moves nothing', async () => {
    const before = await promised();
    const plan = await planYard(context);
    await planYard(context, { options: { ...plan.options, minutesADay: 20, lateFactor: 1 } });
    expect(new Map((await loadPromises(context.db)).map((p) => [p.stageId, p.day]))).toEqual(before);
    const [stageId, on] = [...before].find(([, d]) => d > addDays(plan.outlook.yard.today, 3)) ?? [0, ''];
    const weekday = (d: string) => new Date(`${d}T12:00:00Z`).getUTCDay();
    const other = [3, 4, 5, 6]
      .map((n) => addDays(plan.outlook.yard.today, n))
      .find((d) => d !== on && weekday(d) % 6 > 0);
    await lockPlan(context, { clientId: newId(), by: 'MK', locks: [{ stageId, day: other ?? '' }] });
    expect((await promised()).get(stageId)).toBe(other);
    const { moves } = await loadPlanPage(context, await loadYard(context));
    expect(moves.find((m) => m.from === on && m.to === other)?.because).toBe('hand');
  });
});
