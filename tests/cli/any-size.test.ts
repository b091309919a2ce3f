import { describe, expect, it } from 'vitest';
import { runCli } from '../../cli/run';

/** One input of every calculation that it answers. */
const INPUTS: Readonly<Record<string, unknown>> = {
  'airflow-test': {
    method: 'anemometer',
    place: 'inlet',
    readings: [20, 20.2, 19.8],
    bore: 0.05,
    profileFactor: 0.82,
    hoseBore: 0.036,
    machineKind: 'mExtractor',
    air: { temperature: 293, relativeHumidity: 0.5, pressure: 101_000 },
    instrument: { meaning: 'limits', relative: 0.03, absolute: 0.1, resolution: 0.1 },
    baseline: { readings: [21, 21.1, 20.9] },
    thresholds: { warnLoss: 0.1, actLoss: 0.25 },
  },
  'tool-need': { text: 'concrete', tool: 'grinder', size: 0.125, makerAir: 0.04, hours: 2 },
  circuit: {
    supply: 230,
    breaker: 16,
    machine: { current: 5, power: 1100, powerFactor: 0.9 },
    tool: { power: 900 },
    socket: 1200,
    lead: { length: 25, sectionMm2: 1.5 },
    hours: 4,
    generator: 5000,
  },
  work: {
    text: 'oak',
    tool: 'sander',
    size: 0.15,
    hours: 3,
    machines: [{ name: 'A', kind: 'mExtractor', machineClass: 'M' }],
    hoses: [{ bore: 0.036, length: 4 }],
  },
  upgrade: {
    kind: 'shopVacuum',
    changes: [{ kind: 'separator', lossK: 6, inletBoreM: 0.05, share: 0.9 }],
    hose: { bore: 0.036, length: 3 },
  },
  'adapter-ring': {
    filter: 0.4445,
    rim: 0.48895,
    gasket: 0.4064,
    gasketWidth: 0.019,
    sheet: 0.018,
    screw: 0.004,
    brackets: 4,
    board: { width: 0.6, height: 0.6 },
  },
  payback: { price: 100, stages: [{ name: 'bag', perChange: 10, days: 30, factor: 2, spread: 0.2 }] },
  compare: {
    before: [0.04, 0.0401, 0.0399],
    after: [0.03, 0.0301, 0.0299],
    instrument: { relative: 0.02, resolution: 1e-4 },
  },
  traverse: { plan: { shape: 'round', diameter: 0.16 }, readings: [9, 10, 11, 11, 10, 9, 9, 10, 11, 11, 10, 9] },
  'suction-curve': {
    points: [
      { orifice: 0, suction: 22_000 },
      { orifice: 0.016, suction: 15_000 },
      { orifice: 0.03, suction: 4000 },
      { orifice: 0.04, suction: 1600 },
    ],
    coefficient: 0.61,
    instrument: { relative: 0.01, absolute: 20, resolution: 10 },
  },
  'particle-test': {
    exhaust: { count: 6, time: 60, flow: 4.7e-5 },
    room: { count: 333, time: 60, flow: 4.7e-5 },
  },
  'air-path': {
    elements: [
      { kind: 'line', bore: 0.036, length: 3 },
      { kind: 'medium', k1: 6000, k2: 100, area: 0.9, dust: 0.1 },
      { kind: 'cyclone', lossK: 6, inletArea: 0.002 },
      { kind: 'resistance', r1: 20_000, r2: 1e5 },
      { kind: 'fan', curve: { sealed: 22_000, freeFlow: 0.06 } },
      { kind: 'fitting', lossK: 1, bore: 0.05 },
    ],
    leaks: [{ node: 1, area: 2e-5 }],
    drive: { volts: 225 },
  },
  calibrate: {
    machine: { kind: 'mExtractor' },
    readings: [
      { what: 'sealed', place: 'inlet', value: 20_600 },
      { what: 'orifice', place: 'inlet', value: 13_200, orifice: 0.016 },
      { what: 'orifice', place: 'inlet', value: 8900, orifice: 0.022 },
      { what: 'flow', place: 'hoseEnd', value: 0.033, expanded: 0.001 },
    ],
  },
  'filter-train': {
    stages: [
      {
        name: 'bag',
        medium: 'fleeceBag',
        rating: { scale: 'dustClass', dustClass: 'M' },
        bypass: 0.001,
        timesClean: 2,
      },
      {
        name: 'HEPA',
        medium: 'hepaGlass',
        rating: { scale: 'point', efficiency: 0.9997, sizeUm: 0.3 },
        faceVelocity: 0.02,
      },
    ],
    wholeBypass: 0.0001,
  },
  hose: { bore: 0.036, length: 3, flow: 0.04, friction: { factor: 0.045 } },
  diagnose: {
    machine: { kind: 'hepaTank', hoseBore: 0.032, hoseLength: 3 },
    evidence: [{ test: { kind: 'flow', place: 'inlet' }, value: 0.02 }],
  },
  'next-test': {
    machine: { kind: 'hepaTank', hoseBore: 0.032, hoseLength: 3 },
    evidence: [{ test: { kind: 'flow', place: 'inlet' }, value: 0.02 }],
  },
  due: {
    today: '2026-10-20',
    changedOn: '2026-10-01',
    rules: [
      { rule: { kind: 'calendarDays', days: 14 } },
      { rule: { kind: 'fill', share: 0.5 } },
      { rule: { kind: 'runHours', hours: 40 } },
    ],
    looks: [{ day: '2026-10-10', share: 0.3 }],
    hours: [{ day: '2026-10-10', hours: 3 }],
  },
  forecast: {
    history: {
      template: { load: 40 },
      counts: 'hours',
      past: [{ load: 52, days: 40, end: 'limit', found: 1 }],
      load: 20,
      inspections: [{ kind: 'share', load: 18, share: 0.4 }],
    },
    recent: [2, 2, 0, 3],
    calendarDays: 40,
  },
  plan: {
    minutes: [60, 60, 0, 60],
    machines: [{ id: 'A', openingCost: 20, openingMinutes: 10 }],
    parts: [{ id: 'bag', onHand: 1 }],
    tasks: [
      {
        id: 'bag',
        machine: 'A',
        minutes: 10,
        reached: [1, 2, 3, 4, 5],
        lifeValuePerDay: 1,
        overrunCostPerDay: 6,
        part: { id: 'bag' },
      },
    ],
  },
  reorder: { perDay: 0.2, perDayDeviation: 0.6, leadDays: 10, leadDeviation: 2, service: 0.95, onHand: 3, packSize: 5 },
  integrity: {
    machineClass: 'H',
    through: { count: 2, time: 60, flow: 4.7e-5 },
    challenge: { count: 900, time: 60, flow: 4.7e-5 },
  },
};

const SIZES = [0, -1, 1, 1e-9, 1e-300, 5e-324, 0.5, 50, 1e5, 1e9, 1e15, 1e300, 1.79e308, -1e300];
/** A calculation that is still at it after so long, on a machine five times slower than ours, hangs. ms */
const HANG_MS = 20_000;

type Path = readonly (string | number)[];

/** Where the numbers of an input stand. */
const numbersOf = (value: unknown, path: Path = []): readonly Path[] => {
  if (typeof value === 'number') return [path];
  if (Array.isArray(value)) return value.flatMap((v, i) => numbersOf(v, [...path, i]));
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([k, v]) => numbersOf(v, [...path, k]));
};

const withNumber = (value: unknown, [at, ...rest]: Path, number: number): unknown => {
  if (at === undefined) return number;
  if (Array.isArray(value)) return value.map((v: unknown, i) => (i === at ? withNumber(v, rest, number) : v));
  const fields = value as Record<string, unknown>;
  return { ...fields, [at]: withNumber(fields[at], rest, number) };
};

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
  return { code, text: (code === 0 ? out : err).join('') };
};

describe('every calculation, with numbers of every size', () => {
  it.each(Object.keys(INPUTS))(
    '%s answers, or names what is wrong: never a stack trace, a hang, or half a number',
    async (name) => {
      const input = INPUTS[name];
      const whole = await run(name, input);
      expect(whole.code, whole.text.slice(0, 500)).toBe(0);
      for (const path of numbersOf(input))
        for (const size of SIZES) {
          const what = `${name} ${path.join('.')} = ${size}`;
          const from = performance.now();
          const { code, text } = await run(name, withNumber(input, path, size));
          expect(performance.now() - from, `${what} took too long`).toBeLessThan(HANG_MS);
          const answer = JSON.parse(text) as {
            readonly problems?: readonly { readonly code: string; readonly message: string }[];
          };
          if (code === 0) expect(text, what).not.toMatch(/\b(NaN|Infinity|undefined)\b/);
          else {
            expect(answer.problems?.length, what).toBeGreaterThan(0);
            expect(JSON.stringify(answer.problems), what).not.toMatch(/\b(NaN|Infinity|undefined|null)\b/);
            expect(
              answer.problems?.map((p) => p.code),
              what,
            ).not.toContain('calc.no-figure');
            expect(text, what).not.toContain('Invalid time value');
          }
        }
    },
    300_000,
  );
});
