import { describe, expect, it } from 'vitest';
import type { YearAhead } from '@/core/plan/year';
import { sayFullestWeek, sayRangeOf, sayYear, sayYearPast } from '@/messages/year';

const year: YearAhead = {
  openings: [178, 189, 205],
  minutes: [4735, 5097, 5589],
  cost: [7666, 8472, 9525],
  daysPast: [62, 85, 106],
  sharePast: [0.0051, 0.0071, 0.0088],
  parts: [],
  fullestWeek: [188, 214, 252],
};

describe('the year ahead, as it is said', () => {
  it('tells ranges, one figure where both ends are the same, and nothing where nothing is due', () => {
    expect(sayYear(year, 'GBP')).toBe(
      '178 to 205 openings and 79 to 93 hours of work; parts and openings GBP 7666 to GBP 9525.',
    );
    expect(sayYearPast(year)).toBe('Expect 62 to 106 overdue days in the year, over all parts together.');
    expect(sayRangeOf([3, 3, 3])).toBe('3');
    expect(sayYear({ ...year, openings: [0, 0, 0] }, '')).toBe('Nothing is due within a year.');
  });

  it('says when the fullest week is more than there is', () => {
    expect(sayFullestWeek(year, 600)).toMatchObject({ full: false });
    expect(sayFullestWeek(year, 200)).toEqual({
      full: true,
      sentence: 'Busiest week: 188 to 252 of your 200 minutes. Some work moves to the next week.',
    });
  });
});
