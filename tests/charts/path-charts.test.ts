import { describe, expect, it } from 'vitest';
import { fanOption } from '@/charts/fan-option';
import { penetrationOption } from '@/charts/penetration-option';

const INK = { text: '#000', line: '#111', soft: '#222', watch: '#333', stop: '#444', info: '#555', paper: '#fff' };

interface Series {
  readonly type: string;
  readonly name: string;
  readonly data: readonly unknown[];
  readonly lineStyle?: { readonly type: unknown };
  readonly markLine?: { readonly precision: number; readonly data: readonly { readonly yAxis: number }[] };
}
const seriesOf = (option: object) => (option as { readonly series: readonly Series[] }).series;

describe('the fan chart', () => {
  const chart = {
    units: 'us' as const,
    fan: [
      [0, 20_000],
      [0.05, 0],
    ] as const,
    asNew: [
      [0, 0],
      [0.04, 9000],
    ] as const,
    today: [
      [0, 0],
      [0.03, 11_000],
    ] as const,
    points: [{ name: 'today', flowM3s: 0.028, liftPa: 10_000 }],
  };

  it('shows its figures in the units chosen, and its working points by name', () => {
    const series = seriesOf(fanOption(chart, INK));
    expect(series.map((s) => s.name)).toEqual(['fan', 'path as new', 'path today', 'points']);
    expect(series[0]?.data[0]).toEqual([0, expect.closeTo(20_000 / 249.08891, 6)]);
    expect(series[3]?.data[0]).toMatchObject({
      name: 'today',
      value: [expect.closeTo(0.028 / 4.719474432e-4, 6), expect.closeTo(10_000 / 249.08891, 6)],
    });
    // Told apart without colour.
    expect(series[1]?.lineStyle?.type).not.toBe(series[2]?.lineStyle?.type);
  });
});

describe('the penetration chart', () => {
  const option = penetrationOption(
    {
      curves: [
        { name: 'bag', whole: false, points: [[0.3, 0.7]] },
        {
          name: 'whole train',
          whole: true,
          points: [
            [0.3, 0],
            [1, 0.00003],
          ],
        },
      ],
      limits: [{ name: 'H limit', penetration: 0.00005 }],
    },
    INK,
  );

  it('draws in per cent, nothing below what a logarithm can show, and the limits where they are', () => {
    const [bag, whole] = seriesOf(option);
    expect(bag?.data).toEqual([[0.3, 70]]);
    expect(whole?.data[0]).toEqual([0.3, expect.closeTo(1e-5, 12)]);
    expect(whole?.markLine?.data[0]?.yAxis).toBeCloseTo(0.005, 12);
    expect(whole?.markLine?.precision).toBeGreaterThan(3);
    expect(bag?.lineStyle?.type).not.toBe(whole?.lineStyle?.type);
  });
});
