import { beforeEach, describe, expect, it } from 'vitest';
import type { CrewBody } from '@/contracts/crew';
import type { Db } from '@/server/db/connect';
import { keepPerson } from '@/server/services/house/people';
import { loadCrewPage, logCrew } from '@/server/services/plan/crew';
import { planYard } from '@/server/services/plan/plan-yard';
import { loadRound } from '@/server/services/plan/round';
import type { Context } from '@/server/services/yard/user-action';
import { demoContext, newId } from '../support/database';

let context: Context & { readonly db: Db };
let ids: { readonly ab: number; readonly cd: number };

const addPerson = async (initials: string, papers: boolean): Promise<number> => {
  const saved = await keepPerson(context, {
    clientId: newId(),
    by: 'MK',
    initials,
    name: `Person ${initials}`,
    role: 'technician',
    mayContain: papers,
    maskFitOn: papers ? '2026-06-01' : null,
    trainedOn: papers ? '2025-01-10' : null,
    active: true,
  });
  return saved.ok ? saved.value.id : 0;
};

beforeEach(async () => {
  context = await demoContext();
  ids = { ab: await addPerson('AB', true), cd: await addPerson('CD', false) };
});

const say = async (personId: number, entry: CrewBody['entry'], clientId = newId()): Promise<string> => {
  const saved = await logCrew(context, { clientId, by: 'MK', personId, entry });
  return saved.ok ? 'accepted' : saved.failures.map((f) => `${f.code} ${f.path ?? ''}`).join();
};
const everyDay = (minutes: number): CrewBody['entry'] => ({
  kind: 'times',
  minutes: [0, minutes, minutes, minutes, minutes, minutes, 0],
});
const today = '2026-11-24';

describe('the people of the plan', () => {
  it('without minutes the yard’s one figure counts; with them the people’s own do', async () => {
    expect((await planYard(context)).input.crew).toBeNull();
    await say(ids.cd, everyDay(45));
    const { input, made } = await planYard(context);
    expect(input.crew?.minutes[0]).toBe(45);
    expect(input.crew?.containedMinutes[0]).toBe(0);
    // CD has no papers: no contained machine is opened.
    const plan = await planYard(context);
    const contained = made.problem.tasks.flatMap((t, i) =>
      made.problem.machines[t.machine]?.contained ? [plan.days[i]] : [],
    );
    expect(contained.length).toBeGreaterThan(0);
    expect(contained.every((day) => day === null)).toBe(true);
  });

  it('the walk is shared out, contained work to the one with papers', async () => {
    await say(ids.ab, everyDay(90));
    await say(ids.cd, everyDay(90));
    const { walk } = await loadRound(context);
    expect(new Set(walk.map((w) => w.by))).toEqual(new Set(['AB', 'CD']));
    expect(walk.filter((w) => w.machine.hazard === 'contained').every((w) => w.by === 'AB')).toBe(true);
    expect(walk.some((w) => w.machine.hazard === 'contained')).toBe(true);
    // A day's work is handed over.
    await say(ids.cd, { kind: 'handsOver', day: today, to: ids.ab });
    expect(new Set((await loadRound(context)).walk.map((w) => w.by))).toEqual(new Set(['AB']));
  });

  it('a person who falls ill frees the promised days, and the reason is named', async () => {
    await say(ids.ab, everyDay(120));
    const before = await planYard(context);
    expect(before.promises.some((p) => p.day === today)).toBe(true);
    await say(ids.ab, { kind: 'absent', from: today, to: today, why: 'ill' });
    const after = await planYard(context);
    expect(after.days.filter((d) => d === 0)).toEqual([]);
    const moved = after.promises.filter((p) => p.moved?.from === today && p.moved.on === today);
    expect(moved.length).toBeGreaterThan(0);
    expect(new Set(moved.map((p) => p.moved?.because))).toEqual(new Set(['absent']));
  });

  it('says why a person may not do contained work, and refuses what cannot be', async () => {
    const page = await loadCrewPage(context.db, today);
    expect(page.people.find((p) => p.initials === 'AB')?.notContained).toBeNull();
    expect(page.people.find((p) => p.initials === 'CD')?.notContained).toBe('notSaid');
    expect((await loadCrewPage(context.db, '2027-06-02')).people.find((p) => p.initials === 'AB')?.notContained).toBe(
      'fitOld',
    );
    expect(await say(9999, everyDay(60))).toBe('crew.unknown personId');
    expect(await say(ids.ab, { kind: 'handsOver', day: today, to: ids.ab })).toBe('crew.unknown to');
    expect(await say(ids.ab, { kind: 'handsOver', day: '2026-11-23', to: ids.cd })).toBe('plan.past day');
    expect(await say(ids.ab, { kind: 'absent', from: '2026-12-04', to: '2026-12-01', why: 'x' })).toBe(
      'away.backwards to',
    );
    const twice = newId();
    await say(ids.ab, everyDay(60), twice);
    await say(ids.ab, everyDay(60), twice);
    expect(await context.db.selectFrom('crew_entry').select('id').execute()).toHaveLength(1);
  });
});
