import { describe, expect, it } from 'vitest';
import { runCli } from '../../cli/run';

const run = async (name: string, input: unknown) => {
  const [out, err]: [string[], string[]] = [[], []];
  const code = await runCli({
    args: ['calc', name],
    readInput: () => Promise.resolve(JSON.stringify(input)),
    write: (t) => out.push(t),
    complain: (t) => err.push(t),
    env: {},
    now: () => '2026-11-24T10:00:00.000Z',
  });
  return { code, json: JSON.parse((code === 0 ? out : err).join('')) as Record<string, unknown> };
};
const problems = (json: Record<string, unknown>) =>
  (json['problems'] as readonly { code: string; path: string }[]).map((p) => `${p.code} ${p.path}`);

describe('calc due', () => {
  it('says which rule binds and what the others say, over a month end and a change of the clock', async () => {
    const input = {
      today: '2026-10-20',
      changedOn: '2026-10-18',
      rules: [
        { rule: { kind: 'calendarDays', days: 14 } },
        { rule: { kind: 'fill', share: 0.5 } },
        { rule: { kind: 'flowLost', share: 0.25 } },
      ],
    };
    const { json } = await run('due', input);
    expect(json).toMatchObject({ dueOn: '2026-11-01', daysLeft: 12, binding: { rule: 'every 14 days' } });
    expect((json['others'] as readonly { because: string }[]).map((o) => o.because)).toEqual(['noLook', 'byTest']);
    const looked = await run('due', { ...input, today: '2026-10-24', looks: [{ day: '2026-10-24', share: 0.4 }] });
    expect(looked.json).toMatchObject({ dueOn: '2026-10-26', binding: { rule: 'at 50 % full' } });
  });

  it('refuses an interval of nought, one of a century and more, and a ring', async () => {
    const of = async (days: number) =>
      problems(
        (
          await run('due', {
            today: '2026-10-20',
            changedOn: '2026-10-18',
            rules: [{ rule: { kind: 'calendarDays', days } }],
          })
        ).json,
      );
    expect(await of(0)).toEqual(['field.invalid rules.0.rule.days']);
    expect((await of(50_000))[0]).toContain('rules.0.rule.days');
    const ring = {
      today: '2026-10-20',
      changedOn: '2026-10-18',
      rules: [{ rule: { kind: 'together', stageId: 1, stageName: 'itself', how: 'rightAfter' } }],
    };
    expect(problems((await run('due', ring)).json)).toEqual(['rule.circular rules']);
  });
});

describe('calc forecast', () => {
  it('gives quantiles, says what they rest on, and is the same for the same seed', async () => {
    const input = {
      history: {
        template: { load: 40 },
        counts: 'hours',
        past: [
          { load: 52, days: 40, end: 'limit', found: 1 },
          { load: 30, days: 22, end: 'early' },
        ],
        load: 20,
        inspections: [{ kind: 'share', load: 18, share: 0.4 }],
      },
      recent: Array.from({ length: 56 }, (_, i) => (i % 7 < 5 ? 2 : 0)),
      calendarDays: 40,
    };
    const { json } = await run('forecast', input);
    const q = json['reachedInDays'] as readonly number[];
    expect(q).toEqual([...q].sort((a, b) => a - b));
    expect(q[4]).toBeLessThanOrEqual(40);
    expect(json['restsOn']).toEqual({ intervals: 2, inspections: 1 });
    expect((await run('forecast', input)).json).toEqual(json);
  });
});

describe('calc plan', () => {
  const input = {
    minutes: [60, 60, 60, 60, 60, 0, 0, 60, 60, 60],
    machines: [
      { id: 'A', openingCost: 20, openingMinutes: 10 },
      { id: 'B', openingCost: 20, openingMinutes: 10, blockedDays: [0, 1, 2, 3, 4, 7, 8, 9] },
    ],
    parts: [{ id: 'bag', onHand: 1 }],
    tasks: [
      {
        id: 'bag',
        machine: 'A',
        minutes: 10,
        reached: [2, 3, 5, 7, 8],
        lifeValuePerDay: 1,
        overrunCostPerDay: 6,
        part: { id: 'bag' },
      },
      {
        id: 'wrap',
        machine: 'A',
        minutes: 5,
        reached: [4, 5, 8, 9, 12],
        lifeValuePerDay: 0.5,
        overrunCostPerDay: 3,
        onlyWith: 'bag',
      },
    ],
  };

  it('keeps partners together, costs what it says, and stands against its bound', async () => {
    const { json } = await run('plan', input);
    expect(json).toMatchObject({ feasible: true, openings: 1, violations: [], doesNotFit: [] });
    const tasks = json['tasks'] as readonly { day: number }[];
    expect(tasks[0]?.day).toBe(tasks[1]?.day);
    expect(json['total']).toBeCloseTo(
      Number(json['openingCost']) + Number(json['wasteCost']) + Number(json['overrunCost']),
      3,
    );
    expect(Number(json['total'])).toBeGreaterThanOrEqual(Number(json['lowerBound']) - 1e-3);
  });

  it('says what does not fit and why, and refuses what names nothing', async () => {
    const more = {
      ...input,
      tasks: [
        ...input.tasks,
        { ...input.tasks[0], id: 'second', machine: 'A' },
        { ...input.tasks[0], id: 'shut', machine: 'B', part: null },
      ],
    };
    const { json } = await run('plan', more);
    expect(json['feasible']).toBe(false);
    expect((json['doesNotFit'] as readonly { kind: string }[]).map((w) => w.kind).sort()).toEqual([
      'moreMinutes',
      'part',
    ]);
    expect(problems((await run('plan', { ...input, tasks: [{ ...input.tasks[0], machine: 'Z' }] })).json)).toEqual([
      'field.invalid tasks.0',
    ]);
    expect(
      problems((await run('plan', { ...input, tasks: [{ ...input.tasks[0], reached: [5, 3, 4, 6, 7] }] })).json),
    ).toEqual(['field.invalid tasks.0.reached']);
  });
});

describe('calc reorder', () => {
  it('gives a textbook reorder point (Heizer and Render, mean 350 in the lead time, deviation 10, 95 %; from memory) and the packs to order', async () => {
    const { json } = await run('reorder', {
      perDay: 350,
      perDayDeviation: 10,
      leadDays: 1,
      onHand: 300,
      packSize: 100,
      coverDays: 1,
    });
    expect(json['reorderPoint']).toBeCloseTo(366.45, 1);
    expect(json).toMatchObject({ packsToOrder: 5, pieces: 500, by: 'normal' });
  });
});
