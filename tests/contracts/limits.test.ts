import { describe, expect, it } from 'vitest';
import { LogUsageBody } from '@/contracts/plan';

describe('a day has 24 hours', () => {
  const at = (hours: number) =>
    LogUsageBody.safeParse({ clientId: 'client-0001', by: 'MK', day: '2026-11-24', hours, dust: 'plaster' }).success;

  it('none, some and all of them are taken; more, or fewer than none, are not', () => {
    expect([0, 7.5, 24, 24.1, 240, -1, Number.NaN].map(at)).toEqual([true, true, true, false, false, false, false]);
  });
});
