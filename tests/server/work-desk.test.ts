import { beforeAll, describe, expect, it } from 'vitest';
import { readWork, WorkQuery } from '@/contracts/work';
import type { Db } from '@/server/db/connect';
import { openMigrated } from '@/server/db/connect';
import { judgeMachine } from '@/core/for-work/judge-machine';
import { keepTool, loadToolList, recordBonding } from '@/server/services/yard/tools';
import { answerWork } from '@/server/services/jobs/work-desk';
import type { Context } from '@/server/services/yard/user-action';
import { problemsOf } from '@/messages/failures';
import { sayAnswer } from '@/messages/work';
import { demoContext, newId, NOW } from '../support/database';

let context: Context & { readonly db: Db };
beforeAll(async () => {
  context = await demoContext();
});

const ask = async (params: Record<string, string>, of: Context = context) => {
  const query = WorkQuery.parse(params);
  const { problems, ...asked } = readWork(query, await loadToolList(of));
  const answer = await answerWork(of, { ...asked, tag: query.m });
  const may = answer.verdicts.filter((v) => v.whyNot.length === 0).map((v) => v.candidate.machine.tag);
  const why = Object.fromEntries(answer.verdicts.map((v) => [v.candidate.machine.tag, v.whyNot]));
  return { ...answer, problems, may, why };
};

describe('six works at the boatyard', () => {
  it('filler over old primer in the cabin: contained until it is known, and only the H machine', async () => {
    const { demand, may, why } = await ask({ q: 'filler over old primer', tool: 'sander', place: 'cabin', hours: '3' });
    expect(demand.standing.level).toBe('contained');
    expect(may).toEqual(['CR-05']);
    expect(why['CR-07']).toEqual(['classTooLow']);
    expect(why['CR-04']).toContain('classTooLow');
  });

  it('a 125 mm wheel on concrete wants 58 L/s a wheel; each branch of the Y is judged by itself', async () => {
    const one = await ask({ q: 'concrete', tool: 'grinder', size: '125 mm', place: 'outdoors' });
    const two = await ask({ q: 'concrete', tool: 'grinder', size: '125 mm', place: 'outdoors', tools: '2' });
    // The grinder extractor has the air for one such wheel by its Y with the other branch plugged, not for two.
    expect(one.may).toContain('CR-18');
    expect(two.why['CR-18']).toEqual(['tooLittleAir']);
    expect(two.why['CR-04']).toEqual(['classTooLow']);
    expect(two.why['CR-01']).toEqual(['collector', 'handTool']);
  });

  it('oak all day: the collector in the joinery may, a machine without a class may not', async () => {
    const { may, why } = await ask({ q: 'oak', tool: 'tableSaw', hours: '8', place: 'indoors' });
    expect(may).toContain('CR-01');
    expect(why['CR-02']).toEqual(['classNone']);
    expect(why['CR-12']).toContain('floorOnly');
  });

  it('a wet hull scrub: only what is fitted out for wet', async () => {
    const { why } = await ask({ q: 'slurry', wet: '1', tool: 'cleaningWand' });
    for (const v of Object.entries(why)) if (!v[1].includes('notWet')) expect(v[0]).toBe('CR-16');
  });

  it('aluminium goes to none of them, whatever their class', async () => {
    const { may, demand } = await ask({ q: 'aluminium', tool: 'grinder' });
    expect([may, demand.standing.refusal?.instead]).toEqual([[], 'machineBuiltForIt']);
    expect(sayAnswer(null, { demand, machines: 12, owners: [], units: 'metric' })).toMatch(/not with any machine here/);
  });

  it('two sanders through a Y on a weak supply: less air at each, less still at the lower voltage', async () => {
    const air = async (over: Record<string, string>) => {
      const { verdicts } = await ask({ q: 'filler', tool: 'sander', ...over });
      return verdicts.find((v) => v.candidate.machine.tag === 'CR-05')?.candidate.hoses[0]?.predicted.flowM3s ?? 0;
    };
    const [one, two, weak] = [
      await air({}),
      await air({ tools: '2' }),
      await air({ tools: '2', supply: '190 V', lead: '40', section: '1.5', machineA: '5' }),
    ];
    expect(two).toBeLessThan(one);
    expect(2 * two).toBeGreaterThan(one);
    expect(weak).toBeLessThan(two);
  });
});

describe('what stands in a machine itself', () => {
  it('keeps a collector from wood without its filter, and any machine that gives more air than its baseline', async () => {
    const { verdicts, demand, question } = await ask({ q: 'oak' });
    const heron = verdicts.find((v) => v.candidate.machine.tag === 'CR-01')?.candidate;
    if (!heron) throw new Error('no CR-01');
    expect(judgeMachine(heron, { question, demand }).whyNot).toEqual([]);
    const stages = heron.machine.stages.map((s) => (s.kind === 'canister' ? { ...s, missing: true } : s));
    const without = { ...heron, machine: { ...heron.machine, stages } };
    expect(judgeMachine(without, { question, demand }).whyNot).toEqual(['classWithdrawn']);
    expect(judgeMachine({ ...heron, moreThanBaseline: true }, { question, demand }).whyNot).toEqual(['moreFlow']);
    expect(judgeMachine({ ...heron, changedSince: true }, { question, demand }).first).toContain('measure');
  });
});

describe('a tool of the yard itself', () => {
  const tool = {
    key: null,
    name: 'Yard grinder',
    like: 'grinder',
    sizeM: 0.18,
    airM3s: null,
    amps: 8,
    retired: false,
  };
  const keep = (over: object = {}) =>
    keepTool(context, { clientId: newId(), by: 'MK', ...tool, ...over } as Parameters<typeof keepTool>[1]);
  const yardOnes = async () => (await loadToolList(context)).filter((t) => t.name.toLowerCase() === 'yard grinder');

  it('brings its size and plate along; what is typed comes first; retired, its name is free again', async () => {
    expect((await keep()).ok).toBe(true);
    const key = (await yardOnes())[0]?.key ?? '';
    // 25 cfm an inch of 180 mm is 83.6 L/s (29 CFR 1926.1153 Table 1).
    const big = await ask({ q: 'concrete', tool: key, breaker: '16' });
    expect(1000 * (big.demand.mustM3s ?? 0)).toBeCloseTo((25 * 0.471947 * 180) / 25.4, 3);
    expect(big.circuit?.toolA).toBe(8);
    const small = await ask({ q: 'concrete', tool: key, size: '125 mm', breaker: '16', toolA: '5' });
    expect(1000 * (small.demand.mustM3s ?? 0)).toBeCloseTo((25 * 0.471947 * 125) / 25.4, 3);
    expect(small.circuit?.toolA).toBe(5);
    const twice = await keep({ name: ' yard GRINDER ' });
    expect(twice.ok ? [] : twice.failures.map((f) => f.code)).toEqual(['tool.name-taken']);
    expect((await keep({ key, retired: true })).ok).toBe(true);
    expect((await keep({ sizeM: 0.115 })).ok).toBe(true);
    expect((await yardOnes()).map((t) => [t.sizeM, t.retired])).toEqual([
      [0.115, false],
      [0.18, true],
    ]);
    const unknown = await keep({ key: 'own00000000' });
    expect(unknown.ok ? [] : unknown.failures.map((f) => f.code)).toEqual(['tool.unknown']);
  });

  it('beside another one on a Y is judged by what it asks for itself, on its own hose', async () => {
    const on = async (over: Record<string, string>) => {
      const { verdicts } = await ask({ q: 'oak', tool: 'sander', tools: '2', ...over });
      return verdicts.find((v) => v.candidate.machine.tag === 'CR-05')?.candidate.hoses ?? [];
    };
    const alike = await on({});
    expect(alike.every((h) => h.beside === null)).toBe(true);
    const [best] = await on({ hose2: '0.027x8' });
    expect(best?.beside?.predicted.hose).toEqual({ boreM: 0.027, lengthM: 8 });
    expect(best?.beside?.predicted.flowM3s).toBeLessThan(best?.predicted.flowM3s ?? 0);
  });
});

describe('a continuity reading', () => {
  it('that reads open is mended before dust moves; another path that reads well does not hide it', async () => {
    const read = (on: string, ohm: number | null, between: string) =>
      recordBonding(context, 'CR-05', { clientId: newId(), by: 'MK', on, ohm, between });
    const first = async () => {
      const { verdicts } = await ask({ q: 'oak' });
      return verdicts.find((v) => v.candidate.machine.tag === 'CR-05')?.first ?? [];
    };
    expect(await first()).not.toContain('bonding');
    expect((await read('2026-11-20', null, 'Hose end to earth pin')).ok).toBe(true);
    expect((await read('2026-11-21', 0.3, 'Frame to earth pin')).ok).toBe(true);
    expect(await first()).toContain('bonding');
    expect((await read('2026-11-22', 0.6, 'hose end to earth pin')).ok).toBe(true);
    expect(await first()).not.toContain('bonding');
    const later = await read('2031-01-01', 1, 'Frame to earth pin');
    expect(later.ok ? [] : later.failures.map((f) => f.code)).toEqual(['bonding.future']);
  });
});

describe('what is asked badly', () => {
  it('is answered as far as it can be, and said', async () => {
    const { problems, demand } = await ask({
      q: 'xyzzy',
      tool: 'lathe',
      size: '2 m',
      hours: '10000',
      lead: '3000',
      section: 'thick',
      socket: '0 W',
    });
    expect(problems.map((p) => p.path).sort()).toEqual(['hours', 'lead', 'section', 'size', 'socket']);
    expect(problemsOf(problems).map((p) => p.sentence)[0]).toBe('The size of the tool lies between 5 mm and 1000 mm.');
    expect(demand.standing.level).toBe('contained');
    expect(demand.classes).toEqual({ eu_uk: 'H', us: 'HEPA' });
  });

  it('answers given to other words say nothing', async () => {
    const said = { q: 'old paint', answers: 'oldPaint:no' };
    const standing = async (of: string) => (await ask({ ...said, of })).demand.standing;
    expect((await standing('old paint')).questions).not.toContain('oldPaint');
    expect((await standing('softwood')).questions).toEqual((await ask({ q: 'old paint' })).demand.standing.questions);
  });

  it('in an empty yard nothing may, and nothing breaks', async () => {
    const empty = { db: await openMigrated(':memory:'), now: () => NOW };
    const { verdicts, chosen, curves } = await ask({ q: 'concrete', tool: 'grinder' }, empty);
    expect([verdicts, chosen, curves]).toEqual([[], null, []]);
    await empty.db.destroy();
  });
});
