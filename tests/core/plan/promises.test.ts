import { describe, expect, it } from 'vitest';
import { addDays } from '@/core/calendar/calendar-date';
import { type Promised, withPromises } from '@/core/plan/promises';
import { about, plannedStage, plannedYard } from '../../support/plans';

const TODAY = '2026-03-02';
const day = (n: number) => addDays(TODAY, n);

const promised = (over: Partial<Promised> = {}): Promised => ({
  stageId: 1,
  cycle: 1,
  day: day(8),
  setOn: TODAY,
  middle: day(10),
  partDay: TODAY,
  records: 3,
  locked: false,
  moved: null,
  ...over,
});

/** The price of putting the promised day off by a day, with this forecast and so many records of the machine. */
const priceOf = (middle: number, records: number, over: Partial<Promised> = {}) => {
  const input = plannedYard([plannedStage(1, 20, { reached: about(middle) })]);
  const now = { input, today: TODAY, records: [records] };
  return withPromises(now, [promised(over)]).machines[0]?.stages[0]?.promised?.later ?? null;
};

// A foreman moves a day that he has named only where keeping it would be wrong: common practice, no published source.
describe('the price of moving a promised day', () => {
  const firm = priceOf(10, 3) ?? 0;

  it('is firm where nothing was recorded, however the forecast has moved', () => {
    expect(priceOf(4, 3)).toBe(firm);
  });

  it('stays firm after a record that moved the forecast but left the day a good one', () => {
    // The middle went from day 10 to day 13: day 8 is still at the beginning of the band (7.8 to 13).
    expect(priceOf(13, 4)).toBe(firm);
  });

  it('falls where a record says that the limit comes first, or long after, and more for a machine that is away', () => {
    const before = priceOf(4, 4) ?? 0;
    const after = priceOf(24, 4) ?? 0;
    expect(before).toBeLessThan(firm / 10);
    expect(after).toBe(before);
    const input = plannedYard([plannedStage(1, 20, { reached: about(10) })]);
    const [machine] = input.machines;
    const away = { ...input, machines: machine ? [{ ...machine, blockedDays: [8] }] : [] };
    const price = withPromises({ input: away, today: TODAY, records: [3] }, [promised()]);
    expect(price.machines[0]?.stages[0]?.promised?.later).toBeLessThan(before);
  });

  it('says nothing of a day that has gone by, nor of an interval that has ended', () => {
    expect(priceOf(10, 3, { day: day(-1) })).toBeNull();
    expect(priceOf(10, 3, { cycle: 2 })).toBeNull();
  });
});
