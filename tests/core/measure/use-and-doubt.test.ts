import { describe, expect, it } from 'vitest';
import { compareChain } from '@/core/measure/chain';
import { compareTests } from '@/core/measure/compare-tests';
import { judgeAgainstBaseline } from '@/core/measure/judge-baseline';
import { judgeBranches, judgeDuct, selectorMismatch, voltageNote, wheelNeedM3s } from '@/core/measure/needs-of-use';
import { isTooEarly } from '@/core/measure/indicator-wait';
import { howToSettle, MOST_REPEATS } from '@/core/measure/settle';
import { settledMean } from '@/core/measure/settling';
import { fromSi, toSi } from '@/core/units';
import { standInLine } from '@/server/instruments/stand-in-meter';
import { seeded } from '../../../demo/random';
import { flowTest, limits, reduce } from '../../support/readings';

const cfm = (v: number) => toSi('flow', v, 'cfm');
const around = (mean: number, half: number) => [mean - half, mean, mean + half];

describe('what the tool needs', () => {
  // 29 CFR 1926.1153 Table 1: 25 cfm per inch of wheel.
  it.each([
    ['4.5 in', 4.5, 'in', 112.5],
    ['5 in', 5, 'in', 125],
    ['7 in', 7, 'in', 175],
    ['115 mm', 115, 'mm', 113.2],
  ] as const)('a %s wheel wants %d', (_name, size, unit, need) => {
    expect(fromSi('flow', wheelNeedM3s(toSi('length', size, unit)), 'cfm')).toBeCloseTo(need, 1);
  });

  it('on a Y each branch needs its own: 350 cfm in sum proves nothing', () => {
    const seven = toSi('length', 7, 'in');
    const branch = (flow: number) => ({ wheelM: seven, flowM3s: cfm(flow), expandedM3s: cfm(3) });
    expect(judgeBranches([branch(230), branch(120)]).map((b) => b.decision)).toEqual(['pass', 'fail']);
    expect(judgeBranches([branch(176)])[0]?.decision).toBe('cannotTell');
  });

  it('a 36 mm hose on the 27 mm setting is warned of at 11.3 m/s only (EN 60335-2-69 Annex AA)', () => {
    expect(selectorMismatch({ hoseM: 0.036, selectorM: 0.027 })?.warnsAtMs).toBeCloseTo(11.25, 2);
    expect(selectorMismatch({ hoseM: 0.027, selectorM: 0.036 })?.warnsAtMs).toBeCloseTo(35.6, 1);
    expect(selectorMismatch({ hoseM: 0.027, selectorM: 0.027 })).toBeNull();
  });

  it('ducts: 18-20 m/s for chips (ACGIH Industrial Ventilation)', () => {
    const duct = (velocityMs: number) => judgeDuct({ load: 'woodChips', velocityMs, expandedMs: 0.5 });
    expect([duct(22), duct(19), duct(17)]).toEqual(['pass', 'cannotTell', 'fail']);
  });

  it('a voltage within 2 % is not said; 207 of 230 V is 10 % off and about 5 % of the flow', () => {
    expect(voltageNote({ volts: 226, nominalVolts: 230 })).toBeNull();
    expect(voltageNote({ volts: 207, nominalVolts: 230 })?.flowShare).toBeCloseTo(-0.051, 3);
  });
});

describe('settling a doubt', () => {
  it('more repeats, as few as will do', () => {
    const how = howToSettle({ deviation: 1, fixed: 0, n: 3, distance: 1 });
    // Student 2.776 / sqrt 5 = 1.24, 2.571 / sqrt 6 = 1.05, 2.447 / sqrt 7 = 0.925.
    expect(how).toEqual({ by: 'repeats', more: 4 });
  });

  it('one more, when one more will do', () => {
    // Student 3.182 / sqrt 4 = 1.59: just inside 1.6.
    expect(howToSettle({ deviation: 1, fixed: 0, n: 3, distance: 1.6 })).toEqual({ by: 'repeats', more: 1 });
  });

  it('two repeats have a spread, one has none; the most is thirty', () => {
    expect(() => howToSettle({ deviation: 1, fixed: 0, n: 1, distance: 1 })).toThrow('1 repeats have no spread');
    expect(howToSettle({ deviation: 1, fixed: 0, n: 2, distance: 100 })).toEqual({ by: 'repeats', more: 1 });
    // Student 2.045 / sqrt 30 = 0.3734, 2.048 / sqrt 29 = 0.3804.
    expect(howToSettle({ deviation: 1, fixed: 0, n: 3, distance: 0.375 })).toEqual({ by: 'repeats', more: 27 });
    expect(howToSettle({ deviation: 1, fixed: 0, n: 3, distance: 0.372 }).by).toBe('method');
    // Readings that do not scatter at all: the meter decides, at 1.96 of its standard uncertainty.
    expect(howToSettle({ deviation: 0, fixed: 1, n: 3, distance: 1.961 })).toEqual({ by: 'repeats', more: 1 });
    expect(howToSettle({ deviation: 0, fixed: 1, n: 3, distance: 1.959 }).by).toBe('method');
  });

  it('a light is believed from the tenth second on (common practice, no published source)', () => {
    expect([0, 9.9, 10, 15, Number.NaN].map(isTooEarly)).toEqual([true, true, false, false, true]);
  });

  it('no number of repeats helps against the meter itself', () => {
    expect(howToSettle({ deviation: 1, fixed: 1, n: 3, distance: 1 })).toEqual({ by: 'method', neededExpanded: 1 });
    expect(howToSettle({ deviation: 1, fixed: 0, n: MOST_REPEATS, distance: 0.01 }).by).toBe('method');
  });

  it('the number it names does settle it', () => {
    const how = howToSettle({ deviation: 0.4, fixed: 0.05, n: 3, distance: 0.3 });
    if (how.by !== 'repeats') throw new Error('expected repeats');
    const values = (n: number) =>
      Array.from({ length: n }, (_, i) => 10 + 0.4 * Math.sqrt((n - 1) / n) * (i % 2 === 0 ? 1 : -1));
    const accuracy = { ...limits(0), meaning: 'standard' as const, absoluteSi: 0.05 };
    const { repeats } = reduce(flowTest(values(2 * Math.ceil((3 + how.more) / 2)), { accuracy }));
    expect(repeats.expanded).toBeLessThan(0.3);
  });
});

describe('comparing configurations', () => {
  it('102.8 to 95, 92 and 97 cfm are -7.6, -10.5 and -5.6 % (common practice, no published source)', () => {
    const out = reduce(flowTest(around(cfm(102.8), cfm(0.3))));
    const shares = [95, 92, 97].map((f) =>
      compareTests({ before: out, after: reduce(flowTest(around(cfm(f), cfm(0.3)))) }),
    );
    expect(shares.map((c) => Number(((c.relative ?? 0) * 100).toFixed(1)))).toEqual([-7.6, -10.5, -5.6]);
    expect(shares.every((c) => c.outcome === 'less')).toBe(true);
  });

  it('the shares of a chain add up to the whole, each with its interval', () => {
    const chain = compareChain([92, 97, 102.8].map((f) => reduce(flowTest(around(cfm(f), cfm(0.3))))));
    expect(chain.reduce((sum, l) => sum + (l.share ?? 0), 0)).toBeCloseTo(1, 12);
    expect(chain[0]?.share).toBeCloseTo(5 / 10.8, 9);
    expect(chain.every((l) => (l.shareExpanded ?? 0) > 0)).toBe(true);
  });

  it('gives no share of a whole that is within the noise', () => {
    const chain = compareChain([100, 103, 100.1].map((f) => reduce(flowTest(around(cfm(f), cfm(1))))));
    expect(chain.map((l) => l.share)).toEqual([null, null]);
    expect(chain[0]?.difference).toBeGreaterThan(0);
  });

  it('refuses a chain of one, and of two places', () => {
    const one = reduce(flowTest([1, 1.1, 0.9]));
    expect(() => compareChain([one])).toThrow(RangeError);
    expect(() => compareChain([one, reduce(flowTest([1, 1.1, 0.9], { place: 'outlet' }))])).toThrow(RangeError);
  });

  it('names a moved rig and another voltage, and claims nothing of a maximum hold', () => {
    const before = reduce(flowTest(around(30, 0.1), { volts: 230 }));
    const moved = compareTests({ before, after: reduce(flowTest(around(33, 0.1), { rigSeries: 2, volts: 210 })) });
    expect(moved.differs).toEqual(['rig', 'voltage']);
    const held = reduce(flowTest(around(33, 0.1), { maxHold: true }));
    expect(compareTests({ before, after: held }).outcome).toBe('tooFew');
    expect(
      judgeAgainstBaseline({ now: held, baseline: before, thresholds: { warnLoss: 0.15, actLoss: 0.25 } }).outcome,
    ).toBe('biased');
  });

  it('two rigs add their errors, one rig cancels its own', () => {
    const over = { method: 'anemometer' as const, boreM: 0.05, profileFactor: 0.82 };
    const before = reduce(flowTest(around(20, 0.01), over));
    const same = compareTests({ before, after: reduce(flowTest(around(22, 0.01), over)) });
    const other = compareTests({ before, after: reduce(flowTest(around(22, 0.01), { ...over, rigSeries: 2 })) });
    expect(other.expanded!).toBeGreaterThan(5 * same.expanded!);
  });
});

describe('a meter that settles', () => {
  const random = seeded(3);
  const lines = Array.from({ length: 150 }, (_, i) => {
    const t = new Date(i * 100).toISOString();
    return {
      atMs: i * 100,
      line: standInLine(
        { quantity: 'velocity', unit: 'm/s', target: 20, noise: 0.008 },
        { seconds: i / 10, t, uniform: random.uniform },
      ),
    };
  });
  const samples = lines.flatMap(({ atMs, line }) => (line.value === null ? [] : [{ atMs, valueSi: line.value }]));

  it('is not held while it still climbs', () => {
    expect(settledMean(samples.filter((s) => s.atMs <= 3000))).toBeNull();
    expect(settledMean([])).toBeNull();
  });

  it('is held within its noise once it stands, and drops some readings on the way', () => {
    const settled = settledMean(samples);
    expect(Math.abs((settled?.mean ?? 0) / 20 - 1)).toBeLessThan(0.005);
    expect(settled!.highest).toBeGreaterThan(settled!.mean);
    expect(lines.length - samples.length).toBeGreaterThan(0);
  });
});
