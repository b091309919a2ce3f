import { describe, expect, it } from 'vitest';
import { AS_FOUND_HOURS, isAsFound } from '@/core/record/as-found';
import { checkMoment } from '@/server/services/measuring/check-moment';
import { machineOf } from '../support/machines';

const HOUR_MS = 3_600_000;

describe('a test shows the machine as found', () => {
  it('only before the work, and at most 48 hours before it (common practice, no published source)', () => {
    const workAt = '2026-11-24T10:00:00.000Z';
    const before = (hours: number) =>
      isAsFound({ workAt, testAt: new Date(Date.parse(workAt) - hours * HOUR_MS).toISOString() });
    expect([before(0), before(AS_FOUND_HOURS), before(AS_FOUND_HOURS + 1 / 3600), before(-1 / 3600)]).toEqual([
      true,
      true,
      false,
      false,
    ]);
  });
});

describe('the moment of a piece of work', () => {
  it('may be the very day a machine came into service, not the day before; a few minutes ahead is a clock', () => {
    const machine = machineOf([], { inServiceOn: '2026-03-02' });
    const codes = (performedAt: string) =>
      checkMoment({ performedAt, machine, now: '2026-11-24T10:00:00.000Z', timeZone: 'Europe/London' }).map(
        (f) => f.code,
      );
    expect(codes('2026-03-02T00:30:00.000Z')).toEqual([]);
    expect(codes('2026-03-01T23:30:00.000Z')).toEqual(['date.before-service']);
    expect(codes('2026-11-24T10:09:00.000Z')).toEqual([]);
    expect(codes('2026-11-24T10:11:00.000Z')).toEqual(['date.future']);
  });
});
