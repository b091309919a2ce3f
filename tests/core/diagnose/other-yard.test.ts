import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { REPAIR_KINDS } from '@/core/diagnose/repair';
import { type OwnAir, settle } from '../../bench/find/yard/air';
import { outcomeOf } from '../../bench/find/outcome';
import { yardCase } from '../../bench/find/yard/yard-case';

const TOOL = { gap: 0, sealed: false } as const;
/** A tool and a hose of squares, a straight fan. */
const simple = (over: Partial<OwnAir> = {}): OwnAir => ({
  segments: [
    { a: 2e6, n: 2, ways: 1 },
    { a: 6e6, n: 2, ways: 1 },
    { a: 0, n: 1, ways: 1 },
    { a: 1e6, n: 2, ways: 1 },
  ],
  holes: [],
  fan: { at: 2, p0Pa: 20_000, qMaxM3s: 0.06, bend: 1, speed: 1 },
  ...over,
});

describe('the air of the other yard', () => {
  it('of squares and a straight fan is the root of a quadratic', () => {
    const [c, b, p0] = [9e6, 20_000 / 0.06, 20_000];
    const q = (-b + Math.sqrt(b * b + 4 * c * p0)) / (2 * c);
    expect(settle(simple(), TOOL).entersM3s).toBeCloseTo(q, 9);
    expect(settle(simple({ fan: { ...simple().fan, speed: 0.7 } }), TOOL).entersM3s).toBeCloseTo(0.7 * q, 9);
    expect(settle(simple(), { gap: 1, sealed: true }).belowPa[1]).toBeCloseTo(20_000, 3);
  });

  it('what enters and what leaks in is what the fan moves; a hole in the hose is gone with the hose', () => {
    const hole = { at: 1, along: 0.4, c: 2e-4, m: 0.5 };
    const holed = settle(simple({ holes: [hole] }), TOOL);
    const before = (holed.belowPa[1] ?? 0) + 0.4 * 6e6 * holed.entersM3s ** 2;
    expect(holed.fanM3s - holed.entersM3s).toBeCloseTo(2e-4 * Math.sqrt(before), 7);
    expect(holed.entersM3s).toBeLessThan(settle(simple(), TOOL).entersM3s);
    const off = { gap: 2, sealed: false } as const;
    expect(settle(simple({ holes: [hole] }), off).entersM3s).toBeCloseTo(settle(simple(), off).entersM3s, 12);
  });

  it('has nothing of the engine in its formulas, and little but names of stages and tests elsewhere', () => {
    const source = (file: string) => readFileSync(`tests/bench/find/yard/${file}.ts`, 'utf8');
    expect(source('air')).not.toMatch(/^import/m);
    for (const file of ['machines', 'faults', 'looks', 'yard-case'])
      expect(source(file), file).not.toMatch(
        /path\/model|pressureProfile|diagnose\/(expected|signature'.*faultSimulator|effects)/,
      );
  });

  it('makes the same case of the same seed, lets it be walked in every way, and is cured by its repairs', () => {
    expect(outcomeOf('yard', 12)).toEqual(outcomeOf('yard', 12));
    const c = yardCase(14);
    expect(c.ending([]).felt || c.ending([]).silent || c.faults.length === 0 || c.ending([]).root).toBe(true);
    const all = c.faults.flatMap((f) => REPAIR_KINDS.map((kind) => ({ kind, position: f.position })));
    expect(c.ending(all)).toEqual({ felt: false, root: false, silent: false });
  });
});
