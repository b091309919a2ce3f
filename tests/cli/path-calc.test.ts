import { describe, expect, it } from 'vitest';
import { AirPathOutput, CalibrateOutput, HoseOutput } from '@/contracts/calc/air-path';
import { FilterTrainOutput } from '@/contracts/calc/filter-train';
import { runCli } from '../../cli/run';

const run = async (name: string, input: unknown, flag?: string) => {
  const out: string[] = [];
  const err: string[] = [];
  const code = await runCli({
    args: ['calc', name, ...(flag ? [flag] : [])],
    readInput: () => Promise.resolve(JSON.stringify(input)),
    write: (text) => out.push(text),
    complain: (text) => err.push(text),
    env: {},
    now: () => '2026-11-24T10:00:00.000Z',
  });
  return { code, json: (code === 0 ? JSON.parse(out.join('')) : JSON.parse(err.join(''))) as unknown };
};
const codes = async (name: string, input: unknown) => {
  const { code, json } = await run(name, input);
  return code === 0
    ? ['accepted']
    : (json as { problems: { code: string; path: string }[] }).problems.map((p) => `${p.code} ${p.path}`.trim());
};

const FAN = { kind: 'fan', curve: { sealed: { value: 24, unit: 'kPa' }, freeFlow: { value: 52, unit: 'L/s' } } };
const filter = (r1: number) => ({ kind: 'resistance', r1 });

describe('calc air-path', () => {
  const fact = (r1: number) => ({
    elements: [filter(0), filter(r1), FAN],
    leaks: [{ node: 1, area: 20e-6 }],
    enter: { node: 1, state: 'sealed' },
  });

  it('reads 92 inH2O clean and 40 behind a leak with the filter blocked (common practice, no published source)', async () => {
    const suction = async (r1: number) =>
      AirPathOutput.parse((await run('air-path', fact(r1))).json).steps[0]?.pressureAfter.value ?? 0;
    expect(-(await suction(0)) / 249.08891).toBeCloseTo(92, -0.3);
    expect(-(await suction(8.5e6)) / 249.08891).toBeCloseTo(40, -0.3);
  });

  it('says how it ended; a removed element, a Y, twin filters, low voltage and thin air all go in', async () => {
    const way = {
      elements: [
        { kind: 'nozzle', area: 7e-4 },
        { kind: 'line', bore: { value: 36, unit: 'mm' }, length: 2 },
      ],
    };
    const input = {
      mouths: [way, way],
      elements: [
        { kind: 'line', bore: 0.05, length: 3, friction: { roughness: { value: 0.05, unit: 'mm' } } },
        {
          kind: 'parallel',
          ways: [[{ kind: 'medium', k1: 6000, area: 0.9 }], [{ kind: 'medium', k1: 6000, area: 0.9 }]],
        },
        { kind: 'cyclone', lossK: 6, inletArea: 0.002 },
        FAN,
        { kind: 'fitting', lossK: 1, bore: 0.05 },
      ],
      drive: { volts: 207 },
      air: { temperature: { value: 30, unit: 'degC' }, relativeHumidity: 0.4, pressure: 85_000 },
    };
    const whole = AirPathOutput.parse((await run('air-path', input)).json);
    expect(whole.status).toBe('converged');
    expect(whole.iterations).toBeLessThan(60);
    expect(whole.mouthFlows[0]?.value).toBeCloseTo(whole.toolFlow.value / 2, 9);
    const without = AirPathOutput.parse((await run('air-path', { ...input, removed: [2] })).json);
    expect(without.toolFlow.value).toBeGreaterThan(whole.toolFlow.value);
  });

  it('a chafed hose by its holes is the same as by their area; a fan by its measured points works between them only', async () => {
    const flow = async (leak: object) =>
      AirPathOutput.parse((await run('air-path', { elements: [filter(0), filter(1e5), FAN], leaks: [leak] })).json)
        .toolFlow.value;
    expect(await flow({ node: 1, holes: 25, hole: { value: 2, unit: 'mm' } })).toBeCloseTo(
      await flow({ node: 1, area: (25 * Math.PI * 4e-6) / 4 }),
      12,
    );
    const points = [0, 10, 20, 30].map((q) => ({
      flow: { value: q, unit: 'L/s' },
      suction: { value: 20 - 0.4 * q, unit: 'kPa' },
    }));
    const fan = { kind: 'fan', curve: { kind: 'points', points } };
    const solved = AirPathOutput.parse((await run('air-path', { elements: [filter(4e5), fan] })).json);
    expect(solved.toolFlow.value).toBeCloseTo(0.025, 6);
    expect(await codes('air-path', { elements: [fan] })).toEqual(['path.outside-curve fan']);
    expect(
      await codes('air-path', { elements: [{ ...fan, curve: { kind: 'points', points: points.slice(0, 2) } }] }),
    ).toEqual(['curve.too-few elements.0.curve.points.readings']);
  });

  it.each<[string, object, string]>([
    ['zero area', { elements: [{ kind: 'medium', k1: 900, area: 0 }, FAN] }, 'path.area elements.0.areaM2'],
    ['negative K', { elements: [{ kind: 'fitting', lossK: -2, bore: 0.05 }, FAN] }, 'path.negative elements.0.lossK'],
    ['a hose of zero bore', { elements: [{ kind: 'line', bore: 0, length: 3 }, FAN] }, 'path.bore elements.0.boreM'],
    ['an empty path', { elements: [] }, 'path.empty'],
    ['no fan', { elements: [filter(1)] }, 'path.no-fan'],
    [
      'more than the fan can move',
      { elements: [filter(1), FAN], enter: { node: 0, state: 'drawn', flow: 5 } },
      'path.no-point start',
    ],
    [
      'a wrong unit',
      { elements: [{ kind: 'fitting', lossK: 1, bore: { value: 5, unit: 'kPa' } }, FAN] },
      'quantity.wrong-unit elements.0.bore',
    ],
    [
      'a leak beyond the end',
      { elements: [filter(1), FAN], leaks: [{ node: 9, area: 1e-6 }] },
      'path.node leaks.0.node',
    ],
  ])('%s is named', async (_what, input, code) => {
    expect(await codes('air-path', input)).toContain(code);
  });
});

describe('calc hose', () => {
  it('20 m/s in 27 mm is 41.2 m3/h (EN 60335-2-69), and its parts add up', async () => {
    const { json } = await run('hose', {
      bore: { value: 27, unit: 'mm' },
      length: 4,
      flow: { value: 41.224, unit: 'm3/h' },
    });
    const h = HoseOutput.parse(json);
    expect(h.velocity.value).toBeCloseTo(20, 3);
    expect(h.ofFriction.value + h.ofEnds.value).toBeCloseTo(h.drop.value, 9);
    expect(h.ofFriction.value).toBeCloseTo((0.045 * 4 * 1.2 * 400) / 0.027 / 2, -0.5);
  });

  it('a longer hose on a machine costs flow', async () => {
    const { json } = await run('hose', {
      bore: 0.036,
      length: 10,
      flow: 0.03,
      machine: { kind: 'mExtractor', hoseBore: 0.036, hoseLength: 4 },
    });
    expect(HoseOutput.parse(json).machine?.change).toBeLessThan(-0.1);
    expect(await codes('hose', { bore: 0, length: 4, flow: 0.02 })).toEqual(['path.bore boreM']);
    expect(await codes('hose', { bore: 0.03, length: 4, flow: -1 })).toEqual(['path.negative flow']);
  });
});

describe('calc calibrate', () => {
  const sealed = { what: 'sealed', place: 'inlet', value: { value: 20.6, unit: 'kPa' } };
  const readings = [
    sealed,
    { what: 'orifice', place: 'inlet', value: { value: 13.2, unit: 'kPa' }, orifice: { value: 16, unit: 'mm' } },
    { what: 'orifice', place: 'inlet', value: { value: 8.9, unit: 'kPa' }, orifice: { value: 22, unit: 'mm' } },
    { what: 'flow', place: 'hoseEnd', value: { value: 33, unit: 'L/s' } },
  ];

  it('gives the fan, the leak and the path with their intervals, and each reading beside the model', async () => {
    const { json } = await run('calibrate', { machine: { kind: 'mExtractor' }, readings });
    const c = CalibrateOutput.parse(json);
    expect(c.readings.every((r) => r.agrees)).toBe(true);
    const p0 = c.parameters.find((p) => p.name === 'p0Pa');
    expect(p0?.value).toBeGreaterThan(20_000);
    expect(p0?.value).toBeLessThan(22_000);
    expect((p0?.low ?? 0) < (p0?.value ?? 0) && (p0?.value ?? 0) < (p0?.high ?? 0)).toBe(true);
  });

  it('one point and contradictory points are refused by name', async () => {
    expect(await codes('calibrate', { machine: { kind: 'mExtractor' }, readings: [sealed] })).toEqual([
      'calibration.one-point',
    ]);
    const wild = [
      ...readings.slice(0, 3),
      { what: 'flow', place: 'hoseEnd', value: { value: 12, unit: 'L/s' }, expanded: 1e-5 },
      { what: 'flow', place: 'hoseEnd', value: { value: 40, unit: 'L/s' }, expanded: 1e-5 },
    ];
    expect(await codes('calibrate', { machine: { kind: 'mExtractor' }, readings: wild })).toEqual([
      'calibration.contradictory',
    ]);
    expect(
      await codes('calibrate', {
        machine: { kind: 'mExtractor' },
        readings: [{ what: 'stageDp', place: 'toolEnd', stage: 'gas', value: 100 }],
      }),
    ).toEqual(['stage.unknown readings.0.stage']);
  });
});

describe('calc filter-train', () => {
  const hepa = (bypass: number) => ({
    stages: [
      { name: 'HEPA', medium: 'hepaGlass', rating: { scale: 'point', efficiency: 0.9997, sizeUm: 0.3 }, bypass },
    ],
  });

  it('0.1 % past the last seat makes any HEPA element an L-class result, and the reason says so', async () => {
    const [good, leaky] = [
      FilterTrainOutput.parse((await run('filter-train', hepa(0))).json),
      FilterTrainOutput.parse((await run('filter-train', hepa(0.001))).json),
    ];
    expect(good.deserved).toMatchObject({ dustClass: 'M', usHepa: true });
    expect(leaky.deserved).toMatchObject({
      dustClass: 'L',
      usHepa: false,
      reason: expect.stringContaining('bypass of 0.1 %'),
    });
    expect(good.mostPenetrating.sizeUm).toBeLessThan(0.3);
  });

  it('refuses a train of nothing and a bypass of more than all', async () => {
    expect(await codes('filter-train', { stages: [] })).toEqual(['train.empty']);
    expect(await codes('filter-train', hepa(2))).toEqual(['train.bypass stages.0.bypass']);
  });
});

describe('the schemas', () => {
  it.each(['air-path', 'calibrate', 'filter-train', 'hose'])('%s prints its own', async (name) => {
    expect((await run(name, {}, '--schema')).json).toHaveProperty('properties');
  });
});
