import { describe, expect, it } from 'vitest';
import { violationsOf } from '@/core/plan/cost';
import { type CrewEntry, type CrewPerson, crewDays, sharedOut } from '@/core/plan/crew';
import { waysOut } from '@/core/plan/explain';
import { bestPlan } from '@/core/plan/planner';
import { seeded } from '../../../demo/random';
import { planProblem, planTask } from '../../support/plans';

// 2026-11-30 is a Monday (ISO 8601 calendar).
const MONDAY = '2026-11-30';
const WEEK = ['2026-11-30', '2026-12-01', '2026-12-02', '2026-12-03', '2026-12-04', '2026-12-05', '2026-12-06'];
const HOUR: CrewEntry = { kind: 'times', minutes: [0, 60, 60, 60, 60, 60, 0] };
const HALF: CrewEntry = { kind: 'times', minutes: [0, 30, 30, 30, 30, 30, 0] };
const person = (id: number, entries: readonly CrewEntry[], papersUntil = '2099-01-01'): CrewPerson => ({
  id,
  initials: `P${id}`,
  entries,
  mayContainOn: (day) => day <= papersUntil,
});
const minutes = (people: readonly CrewPerson[]) => crewDays(people, WEEK)?.map((d) => d.minutes);

describe('the people of a day', () => {
  it('adds up the minutes by weekday; without anybody’s minutes there are no people to plan by', () => {
    expect(crewDays([person(1, [])], WEEK)).toBeNull();
    expect(minutes([person(1, [HOUR]), person(2, [HALF]), person(3, [])])).toEqual([90, 90, 90, 90, 90, 0, 0]);
  });

  it('the newest word about a day stands', () => {
    const away: CrewEntry = { kind: 'absent', from: '2026-12-01', to: '2026-12-03', why: 'course' };
    const back: CrewEntry = { kind: 'present', from: '2026-12-03', to: '2026-12-03' };
    expect(minutes([person(1, [HOUR, away])])).toEqual([60, 0, 0, 0, 60, 0, 0]);
    expect(minutes([person(1, [HOUR, away, back])])).toEqual([60, 0, 0, 60, 60, 0, 0]);
    expect(minutes([person(1, [HOUR, away, HALF])])).toEqual([30, 0, 0, 0, 30, 0, 0]);
  });

  it('work handed over takes the minutes with it, and the papers of the person who gets it count', () => {
    const gives: CrewEntry = { kind: 'handsOver', day: MONDAY, to: 2 };
    const monday = (people: readonly CrewPerson[]) => crewDays(people, [MONDAY])?.[0];
    const without = person(2, [HALF], '2026-01-01');
    expect(monday([person(1, [HOUR]), without])).toMatchObject({ minutes: 90, containedMinutes: 60 });
    expect(monday([person(1, [HOUR, gives]), without])).toMatchObject({ minutes: 90, containedMinutes: 0 });
    // A stand-in who is away takes nothing: the work stays where it was.
    const away = person(2, [HALF, { kind: 'absent', from: MONDAY, to: MONDAY, why: 'ill' }]);
    expect(monday([person(1, [HOUR, gives]), away])).toMatchObject({ minutes: 60, containedMinutes: 60 });
    const back: CrewEntry = { kind: 'handsOver', day: MONDAY, to: null };
    expect(monday([person(1, [HOUR, gives, back]), without])).toMatchObject({ containedMinutes: 60 });
  });

  it('a fit test that ends within the week ends the contained minutes on its day (29 CFR 1910.134(f)(2))', () => {
    expect(crewDays([person(1, [HOUR], '2026-12-02')], WEEK)?.map((d) => d.containedMinutes)).toEqual([
      60, 60, 60, 0, 0, 0, 0,
    ]);
  });
});

describe('a day shared out', () => {
  const people = (a: number, b: number) =>
    crewDays(
      [
        person(1, [{ kind: 'times', minutes: Array.from({ length: 7 }, () => a) }]),
        person(2, [{ kind: 'times', minutes: Array.from({ length: 7 }, () => b) }], '2026-01-01'),
      ],
      [MONDAY],
    )?.[0]?.people ?? [];
  const who = (openings: Parameters<typeof sharedOut>[0], a = 60, b = 60) =>
    Object.fromEntries([...sharedOut(openings, people(a, b))].map(([key, p]) => [key, p?.initials ?? null]));

  it('contained work goes to a person with papers, before anything else, and to nobody without', () => {
    const contained = { key: 'h', minutes: 40, contained: true };
    const plain = { key: 'p', minutes: 50, contained: false };
    expect(who([plain, contained])).toEqual({ h: 'P1', p: 'P2' });
    expect(who([contained], 0, 240)).toEqual({ h: null });
  });
});

describe('a plan by people', () => {
  const task = (id: string, machine: number) => planTask(id, { machine, minutes: 20, reached: [0, 1, 2, 3, 4] });
  const contained = [
    { id: 'a', openingCost: 20, openingMinutes: 10, blockedDays: new Set<number>(), contained: true },
    { id: 'b', openingCost: 20, openingMinutes: 10, blockedDays: new Set<number>(), contained: false },
  ];
  const plan = (containedMinutes: readonly number[] | null) => {
    const problem = planProblem([task('h', 0), task('p', 1)], { machines: contained, containedMinutes });
    const { days } = bestPlan(problem, { random: seeded(1).uniform, rounds: 100 });
    return { problem, days };
  };

  it('puts contained work only on days of a person with papers; plain work does not care', () => {
    const free = plan(null);
    expect(free.days).toEqual(plan(Array.from({ length: 10 }, () => 60)).days);
    const late = plan([0, 0, 0, 0, 0, 0, 60, 60, 60, 60]);
    expect(late.days[0]).toBe(6);
    expect(late.days[1]).toBe(free.days[1]);
    expect(violationsOf(late.problem, late.days)).toEqual([]);
    expect(violationsOf(late.problem, [2, 2])).toContainEqual({ kind: 'papers', day: 2, needed: 30, there: 0 });
  });

  it('without anybody it has no day, and the way out names the papers', () => {
    const none = plan(Array.from({ length: 10 }, () => 0));
    expect(none.days[0]).toBeNull();
    expect(waysOut(none.problem, none.days)).toMatchObject([{ kind: 'papers', task: 'h', minutes: 30 }]);
  });
});
