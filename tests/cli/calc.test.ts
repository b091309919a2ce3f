import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { COMMAND_NAMES, HELP } from '../../cli/help';
import { AirflowTestOutput } from '@/contracts/calc/airflow-test';
import { runCli } from '../../cli/run';

const run = async (args: readonly string[], input: unknown = {}) => {
  const out: string[] = [];
  const err: string[] = [];
  const code = await runCli({
    args,
    readInput: () => Promise.resolve(typeof input === 'string' ? input : JSON.stringify(input)),
    write: (text) => out.push(text),
    complain: (text) => err.push(text),
    env: {},
    now: () => '2026-11-24T10:00:00.000Z',
  });
  return { code, out: out.join('\n'), err: err.join('\n') };
};

const test = async (input: object) => {
  const { code, out, err } = await run(['calc', 'airflow-test'], input);
  if (code !== 0) throw new Error(err);
  return AirflowTestOutput.parse(JSON.parse(out));
};

const cfm = (value: number) => ({ value, unit: 'cfm' });

describe('--help', () => {
  it('is there for every command that is understood, and for no other', async () => {
    const understood = [...readFileSync('cli/run.ts', 'utf8').matchAll(/case '([a-z][a-z-]*)':/g)].map(
      ([, name]) => name,
    );
    expect([...understood].filter((n) => n !== 'help').sort()).toEqual([...COMMAND_NAMES].sort());
    for (const name of COMMAND_NAMES) {
      const { code, out } = await run([name, '--help']);
      expect([name, code, out.startsWith(`moorwind ${name}`)]).toEqual([name, 0, true]);
      expect(HELP).toContain(`  ${name}`);
    }
    expect((await run(['frobnicate', '--help'])).code).toBe(2);
  });
});

describe('calc', () => {
  it('lists its calculations and prints their schema', async () => {
    expect((await run(['calc', '--list'])).out).toContain('airflow-test');
    const schema = JSON.parse((await run(['calc', 'airflow-test', '--schema'])).out) as { properties: object };
    expect(Object.keys(schema.properties)).toContain('readings');
  });

  it('takes quantities with units and answers with units', async () => {
    const result = await test({
      method: 'flowMeter',
      place: 'hoseEnd',
      readings: [cfm(21.3), cfm(21.1), { value: 9.95, unit: 'L/s' }],
      hoseBore: { value: 27, unit: 'mm' },
      machineKind: 'mExtractor',
      baseline: { readings: [cfm(30.5), cfm(30.4), cfm(30.6)] },
    });
    expect(result.mean).toEqual({
      value: expect.closeTo((21.3 + 21.1 + 0.00995 / 4.719474432e-4) * (4.719474432e-4 / 3), 9),
      unit: 'm3/s',
    });
    expect(result.verdicts.map((v) => v.outcome)).toEqual(['act', 'fail']);
    expect(result.lossFraction).toBeCloseTo(1 - result.mean.value / (30.5 * 4.719474432e-4), 12);
  });

  it('a suction of 92 inH2O is 22.9 kPa', async () => {
    const reading = { value: 92, unit: 'inH2O' };
    const result = await test({ method: 'sealedSuction', place: 'inlet', readings: [reading, reading, reading] });
    expect(result.mean.value).toBeCloseTo(92 * 249.08891, 6);
    expect(result.standardFlow).toBeNull();
  });

  const calc = async (name: string, input: unknown) => {
    const { code, out, err } = await run(['calc', name], input);
    return code === 0 ? (JSON.parse(out) as Record<string, unknown>) : { refused: err };
  };

  it('compare: 486.5 to 570.8 cfm is +17.3 %, and one reading a side claims nothing', async () => {
    const one = await calc('compare', { before: [cfm(486.5)], after: [cfm(570.8)] });
    expect(one).toMatchObject({ outcome: 'tooFew', relative: expect.closeTo(0.1733, 3), p: null });
    const three = await calc('compare', { before: [486, 487, 486.5].map(cfm), after: [570, 571, 571.4].map(cfm) });
    expect(three).toMatchObject({ outcome: 'more' });
  });

  it('traverse: gives the points, and the flow of a flat profile', async () => {
    const plan = { shape: 'round', diameter: { value: 125, unit: 'mm' } };
    const points = await calc('traverse', { plan });
    expect((points['points'] as unknown[]).length).toBe(12);
    const flat = await calc('traverse', {
      plan,
      readings: Array.from({ length: 36 }, () => ({ value: 20, unit: 'm/s' })),
    });
    expect(flat).toMatchObject({ traverses: 3, meanVelocity: { value: expect.closeTo(20, 9), unit: 'm/s' } });
    expect(await calc('traverse', { plan, readings: [20, 20] })).toMatchObject({
      refused: expect.stringContaining('traverse.incomplete'),
    });
    expect(await calc('traverse', { plan, reads: 'velocityPressure', readings: [-20] })).toMatchObject({
      refused: expect.stringContaining('pitot.negative-point'),
    });
  });

  it('suction-curve: the peak of a curve, and its refusal of two openings', async () => {
    const point = (mm: number, kPa: number) => ({
      orifice: { value: mm, unit: 'mm' },
      suction: { value: kPa, unit: 'kPa' },
    });
    const curve = await calc('suction-curve', {
      points: [point(0, 22), point(10, 20.4), point(16, 16), point(22, 11), point(30, 6), point(40, 2.6)],
    });
    expect(curve).toMatchObject({ peak: { airPower: { unit: 'W' }, inside: true } });
    expect(await calc('suction-curve', { points: [point(0, 22), point(10, 20)] })).toMatchObject({
      refused: expect.stringContaining('curve.too-few'),
    });
  });

  it('suction with a minus is suction: -92 to -80 inH2O is a loss of 13 %, on the command line as on the pad', async () => {
    const inH2O = (...values: readonly number[]) => values.map((value) => ({ value, unit: 'inH2O' }));
    const minus = await calc('compare', {
      quantity: 'pressure',
      before: inH2O(-92, -92.1, -91.9),
      after: inH2O(-80, -80.1, -79.9),
    });
    expect(minus).toEqual(
      await calc('compare', { quantity: 'pressure', before: inH2O(92, 92.1, 91.9), after: inH2O(80, 80.1, 79.9) }),
    );
    expect(minus).toMatchObject({ outcome: 'less', relative: expect.closeTo(-0.1304, 3) });
  });

  it('three equal readings are as sure as one step of the display, and from nothing there is no share', async () => {
    const equal = (value: number) => [value, value, value].map((v) => ({ value: v, unit: 'L/s' }));
    const step = await calc('compare', { before: equal(29.5), after: equal(29.4) });
    // Two displays of 0.1 L/s: 0.1/sqrt 12 each (GUM F.2.2.1), both sides, at 95 %.
    expect(step).toMatchObject({
      relative: expect.closeTo(-0.0034, 3),
      p: expect.closeTo(0.0143, 3),
      expandedUncertainty: { value: expect.closeTo((1.96 * 1e-4) / Math.sqrt(6), 6) },
    });
    expect(await calc('compare', { before: equal(29.5), after: equal(28.9) })).toMatchObject({ outcome: 'less' });
    expect(
      await calc('compare', {
        before: equal(29.5),
        after: equal(28.9),
        instrument: { relative: 0, resolution: { value: 1, unit: 'L/s' } },
      }),
    ).toMatchObject({ outcome: 'noRealDifference' });
    const fromNothing = await calc('compare', { before: equal(0), after: equal(12) });
    expect(fromNothing).toMatchObject({ outcome: 'more', relative: null });
    expect(JSON.stringify(fromNothing)).not.toMatch(/Infinity|NaN/);
    expect(await calc('compare', { before: equal(-30), after: equal(12) })).toMatchObject({
      refused: expect.stringContaining('quantity.negative'),
    });
  });

  it('suction at or above the barometer, a bore of 50 m and thresholds the wrong way round are named at every door', async () => {
    const psi = (value: number) => ({ value, unit: 'psi' });
    expect(
      await calc('suction-curve', {
        points: [
          { orifice: 0, suction: psi(95) },
          { orifice: 0.016, suction: psi(2) },
          { orifice: 0.03, suction: psi(1) },
        ],
      }),
    ).toMatchObject({ refused: expect.stringContaining('suction.impossible') });
    const readings = [20, 20.1, 19.9];
    const of = (over: object) =>
      calc('airflow-test', { method: 'anemometer', place: 'inlet', readings, bore: 0.05, ...over });
    for (const [over, code] of [
      [{ bore: 50 }, 'quantity.out-of-range'],
      [{ hoseBore: 50 }, 'quantity.out-of-range'],
      [{ hoseBore: 0 }, 'quantity.out-of-range'],
      [{ instrument: { meaning: 'limits', absolute: -0.1, resolution: 0.1 } }, 'instrument.negative'],
      [{ thresholds: { warnLoss: 0.3, actLoss: 0.2 } }, 'thresholds.order'],
    ] as const)
      expect(await of(over)).toMatchObject({ refused: expect.stringContaining(code) });
  });

  it('airflow-test answers its interval and the flow it was judged by; traverse and suction-curve take the air as it is', async () => {
    const judged = await calc('airflow-test', {
      method: 'flowMeter',
      place: 'hoseEnd',
      readings: [9.9, 10, 10.1].map((value) => ({ value, unit: 'L/s' })),
      hoseBore: { value: 27, unit: 'mm' },
      machineKind: 'mExtractor',
    });
    // 20 m/s in 27 mm is 41.2 m3/h, the figure of the class's own table.
    expect(judged).toMatchObject({
      flowLimit: { value: expect.closeTo(41.2 / 3600, 4) },
      limits: { low: {}, high: {} },
    });
    const traverseAt = (pressure: number) =>
      calc('traverse', {
        plan: { shape: 'round', diameter: 0.16 },
        reads: 'velocityPressure',
        readings: Array.from({ length: 12 }, () => 60),
        air: { pressure },
      });
    const flowOf = (answer: object) => (answer as { flow: { value: number } }).flow.value;
    // Velocity goes with the root of the density: a fifth less pressure, a ninth more flow.
    expect(flowOf(await traverseAt(81_060)) / flowOf(await traverseAt(101_325))).toBeCloseTo(Math.sqrt(1 / 0.8), 2);
    const thin = await calc('suction-curve', {
      points: [
        { orifice: 0, suction: 22_000 },
        { orifice: 0.016, suction: 15_000 },
        { orifice: 0.03, suction: 4000 },
      ],
      air: { pressure: 81_060 },
    });
    expect(thin).toMatchObject({ peak: { airPower: { unit: 'W' } }, offCurve: null });
  });

  it('particle-test: 6 against 333, and what is no count', async () => {
    const side = (count: number) => ({ count, time: { value: 60, unit: 's' }, flow: { value: 2.83, unit: 'L/min' } });
    expect(await calc('particle-test', { exhaust: side(6), room: side(333) })).toMatchObject({ outcome: 'belowRoom' });
    expect(await calc('particle-test', { exhaust: side(6.5), room: side(333) })).toMatchObject({
      refused: expect.stringContaining('particles.whole'),
    });
    expect(await calc('particle-test', { exhaust: { ...side(6), time: 0 }, room: side(-1) })).toMatchObject({
      refused: expect.stringContaining('particles.counting'),
    });
  });

  it.each(['compare', 'traverse', 'suction-curve', 'particle-test'])('%s prints its schema', async (name) => {
    expect(JSON.parse((await run(['calc', name, '--schema'])).out)).toHaveProperty('properties');
  });

  it.each([
    ['nonsense', '{', 'request.malformed'],
    [
      'a wrong unit',
      { method: 'flowMeter', place: 'inlet', readings: [{ value: 1, unit: 'kPa' }] },
      'quantity.wrong-unit',
    ],
    [
      'an impossible suction',
      { method: 'sealedSuction', place: 'inlet', readings: [{ value: 40, unit: 'psi' }] },
      'suction.impossible',
    ],
    ['no reading', { method: 'flowMeter', place: 'inlet', readings: [] }, 'field.invalid'],
    ['no bore', { method: 'anemometer', place: 'inlet', readings: [10] }, 'bore.missing'],
  ])('refuses %s with a problem and exit code 1', async (_what, input, code) => {
    const result = await run(['calc', 'airflow-test'], input);
    expect(result.code).toBe(1);
    expect(result.err).toContain(code);
    expect(result.out).toBe('');
  });

  it('says what it does not know', async () => {
    expect((await run(['calc', 'constructor'])).err).toContain('calc.unknown');
    expect((await run(['dance'])).code).toBe(2);
  });
});
