import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countDifference, onHand } from '@/core/stock/ledger';

describe('the ledger', () => {
  it('on hand is the sum of the movements of the part, in any order, and may be negative', () => {
    const movement = fc.record({ partId: fc.integer({ min: 1, max: 4 }), quantity: fc.integer({ min: -9, max: 9 }) });
    fc.assert(
      fc.property(fc.array(movement, { minLength: 1 }), (movements) => {
        expect(onHand(movements)).toEqual(new Map([...onHand([...movements].reverse())]));
        const total = [...onHand(movements).values()].reduce((a, b) => a + b, 0);
        expect(total).toBe(movements.reduce((a, m) => a + m.quantity, 0));
      }),
    );
    expect(onHand([{ partId: 1, quantity: -1 }]).get(1)).toBe(-1);
  });

  it('a count brings the ledger to what was counted', () => {
    expect(countDifference({ counted: 4, ledger: -1 })).toBe(5);
    expect(countDifference({ counted: 4, ledger: 4 })).toBe(0);
  });
});
