import { describe, expect, it } from 'vitest';
import { discHoleM, discVerdict } from '@/core/path/disc';
import { notReady } from '@/core/path/fresh';

describe('the indicator check', () => {
  it('a disc that covers 80 % of a hose leaves a hole of 45 % of its bore (common practice, no published source)', () => {
    for (const boreM of [0.027, 0.036, 0.05]) {
      const hole = discHoleM(boreM);
      expect(hole / boreM).toBeCloseTo(0.4472, 4);
      expect((hole / boreM) ** 2).toBeCloseTo(0.2, 12);
    }
    expect(() => discHoleM(0)).toThrow(RangeError);
    expect(() => discHoleM(Number.NaN)).toThrow(RangeError);
  });

  it('on, then off, is good; never on is blind; never off is stuck', () => {
    expect(discVerdict({ covered: 'lit', uncovered: 'out' })).toBe('good');
    expect(discVerdict({ covered: 'out', uncovered: 'out' })).toBe('blind');
    expect(discVerdict({ covered: 'lit', uncovered: 'lit' })).toBe('stuck');
  });

  it('is not begun on an old, an unknown or a missing filter; a new one just fitted counts', () => {
    const filters = [
      { name: 'bag', missing: false, remaining: 0.2 },
      { name: 'main filter', missing: false, remaining: 0.9 },
      { name: 'HEPA', missing: true, remaining: 0.9 },
      { name: 'cloth', missing: false, remaining: null },
    ];
    expect(notReady(filters, new Set())).toEqual([
      { because: 'old', name: 'bag' },
      { because: 'missing', name: 'HEPA' },
      { because: 'unsaid', name: 'cloth' },
    ]);
    // Half of its interval to go is not fresh.
    expect(notReady([{ name: 'bag', missing: false, remaining: 0.5 }], new Set())).toEqual([
      { because: 'old', name: 'bag' },
    ]);
    expect(notReady([{ name: 'bag', missing: false, remaining: 0.51 }], new Set())).toEqual([]);
    expect(notReady([{ name: 'bag', missing: false, remaining: null }], new Set(['bag']))).toEqual([]);
    expect(notReady(filters, new Set(['bag', 'cloth', 'HEPA']))).toEqual([{ because: 'missing', name: 'HEPA' }]);
  });
});
