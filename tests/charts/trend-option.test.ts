import { describe, expect, it } from 'vitest';
import { trendOption, type TrendChart } from '@/charts/trend-option';

const point = (day: number, mean: number, over: Partial<TrendChart['points'][number]> = {}) => ({
  at: `2026-01-${String(day).padStart(2, '0')}T10:00:00.000Z`,
  mean,
  expanded: 0.001,
  rigSeries: 1,
  usable: true,
  ...over,
});

const chart: TrendChart = {
  quantity: 'flow',
  units: 'metric',
  points: [
    point(1, 0.03),
    point(2, 0.029),
    point(3, 0.028, { rigSeries: 2 }),
    point(4, 0.01, { usable: false }),
    point(5, 0.027, { rigSeries: 2, expanded: null }),
  ],
  changes: [
    { at: '2026-01-02T00:00:00.000Z', name: 'main filter' },
    ...Array.from({ length: 9 }, () => ({ at: '2026-01-03T00:00:00.000Z', name: 'bag' })),
  ],
  lines: [{ name: 'baseline', value: 0.03, tone: 'base' }],
  ink: { text: '#000', line: '#111', soft: '#222', watch: '#333', stop: '#444', paper: '#fff' },
};

interface Drawn {
  readonly series: readonly {
    readonly type: string;
    readonly data: readonly (readonly unknown[])[];
    readonly markLine?: {
      readonly data: readonly {
        readonly name: string;
        readonly yAxis?: number;
        readonly label: { readonly show?: boolean };
      }[];
    };
  }[];
}

describe('the trend chart', () => {
  const [line, whiskers, unused] = (trendOption(chart) as unknown as Drawn).series;

  it('breaks the line where the rig changed, and leaves unusable tests out of it', () => {
    expect(line?.data.map((d) => d[1])).toEqual([30, 29, null, 28, 27]);
    expect(unused?.data.map((d) => d[1])).toEqual([10]);
  });

  it('draws an interval where there is one', () => {
    expect(whiskers?.data).toHaveLength(3);
    expect(whiskers?.data[0]?.slice(1)).toEqual([expect.closeTo(29, 9), expect.closeTo(31, 9)]);
  });

  it('has baseline and changes as lines, the rare change named, the frequent one not', () => {
    const marks = line?.markLine?.data ?? [];
    expect(marks.find((m) => m.name === 'baseline')?.yAxis).toBe(30);
    expect(marks.find((m) => m.name === 'main filter')?.label.show).toBe(true);
    expect(marks.find((m) => m.name === 'bag')?.label.show).toBe(false);
  });
});
