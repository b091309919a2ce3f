import { describe, expect, it } from 'vitest';
import { compareExhaust } from '@/core/upgrade/particles';

const count = (through: number, challenge = 2000, volumeM3 = 2.83e-3) => ({
  through: { count: through, volumeM3 },
  challenge: { count: challenge, volumeM3 },
});

describe('particles before and after', () => {
  // Handbook of the trade, section 14: 6 with a foam out to 333 with it in. With one run a side the counts differ beyond chance.
  it('6 and 333 are told apart by their counts, either way round', () => {
    expect(compareExhaust(count(6), count(333)).outcome).toBe('more');
    const back = compareExhaust(count(333), count(6));
    expect(back.outcome).toBe('less');
    // The ratio itself lies between its limits.
    expect(back.times.low).toBeLessThan(6 / 333);
    expect(back.times.high).toBeGreaterThan(6 / 333);
  });

  it('a room that was dirtier the second time is taken out of it', () => {
    expect(compareExhaust(count(100, 1000), count(1000, 10_000)).outcome).toBe('cannotTell');
  });

  it('few counts tell nothing, and nothing counted in the room least of all', () => {
    expect(compareExhaust(count(3), count(6)).outcome).toBe('cannotTell');
    expect(compareExhaust(count(0), count(0)).outcome).toBe('cannotTell');
    expect(compareExhaust(count(5, 0), count(5, 0)).outcome).toBe('cannotTell');
  });
});
