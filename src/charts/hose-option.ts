import type { EChartsCoreOption } from 'echarts/core';
import { fromSi, prettyUnit, SHOWN, type QuantityKind, type UnitSystem } from '../core/units';
import type { Ink } from './ink';

/** Flow at the tool and velocity in the hose against the length of the hose, a line for each bore. */
export interface HoseChart {
  readonly units: UnitSystem;
  readonly bores: readonly {
    readonly name: string;
    readonly points: readonly {
      readonly lengthM: number;
      readonly flowM3s: number;
      readonly velocityMs: number;
    }[];
  }[];
  /** Flow the tool must have, m3/s; null without a demand. */
  readonly mustM3s: number | null;
  /** Velocity that keeps the dust moving, m/s; null without a demand. */
  readonly hoseMs: number | null;
  readonly chosen: { readonly lengthM: number; readonly flowM3s: number; readonly velocityMs: number } | null;
}

const DASHES = ['solid', 'dashed', 'dotted', [8, 3, 2, 3], [2, 4]] as const;

interface AxisWords {
  readonly up: string;
  readonly along: string;
}

/** The axes of one of the two pictures. */
const axesOf = (grid: 0 | 1, ink: Ink, { up, along }: AxisWords) => ({
  xAxis: {
    gridIndex: grid,
    type: 'value' as const,
    min: 0,
    name: along,
    nameLocation: 'middle' as const,
    nameGap: 26,
    axisLabel: { color: ink.text },
    nameTextStyle: { color: ink.text },
    splitLine: { show: false },
  },
  yAxis: {
    gridIndex: grid,
    type: 'value' as const,
    min: 0,
    name: up,
    nameTextStyle: { color: ink.text, align: 'left' as const },
    axisLabel: { color: ink.text },
    splitLine: { lineStyle: { color: ink.soft, opacity: 0.25 } },
  },
});

/**
 * The choice of a hose as an ECharts option: two pictures over one length, limits drawn; lines differ by dash and name.
 */
export const hoseOption = (chart: HoseChart, ink: Ink): EChartsCoreOption => {
  const of = (kind: QuantityKind, v: number) => fromSi(kind, v, SHOWN[chart.units][kind].unit);
  const unit = (kind: QuantityKind) => prettyUnit(SHOWN[chart.units][kind].unit);
  const [metres, lengthUnit] = chart.units === 'us' ? [fromSi('length', 1, 'ft'), 'ft'] : [1, 'm'];
  const limit = (value: number | null, name: string) =>
    value === null
      ? {}
      : {
          markLine: {
            silent: true,
            symbol: 'none',
            data: [{ yAxis: value }],
            lineStyle: { color: ink.stop, width: 2, type: 'solid' as const },
            label: {
              formatter: name,
              color: ink.stop,
              position: 'insideStartTop' as const,
              fontWeight: 600,
              backgroundColor: ink.paper,
            },
          },
        };
  const lines = (grid: 0 | 1) =>
    chart.bores.map((b, i) => ({
      type: 'line' as const,
      name: b.name,
      xAxisIndex: grid,
      yAxisIndex: grid,
      symbol: 'none',
      data: b.points.map((p) => [
        p.lengthM * metres,
        grid === 0 ? of('flow', p.flowM3s) : of('velocity', p.velocityMs),
      ]),
      lineStyle: { color: i % 2 === 0 ? ink.text : ink.line, width: 2, type: DASHES[i % DASHES.length] },
      endLabel: { show: true, formatter: '{a}', color: ink.text, fontWeight: 600 },
      ...(i === 0
        ? grid === 0
          ? limit(chart.mustM3s === null ? null : of('flow', chart.mustM3s), 'the tool needs')
          : limit(chart.hoseMs === null ? null : of('velocity', chart.hoseMs), 'keeps the dust moving')
        : {}),
    }));
  const dot = (grid: 0 | 1) =>
    chart.chosen === null
      ? []
      : [
          {
            type: 'scatter' as const,
            name: 'this hose',
            xAxisIndex: grid,
            yAxisIndex: grid,
            symbolSize: 12,
            itemStyle: { color: ink.paper, borderColor: ink.line, borderWidth: 3 },
            data: [
              [
                chart.chosen.lengthM * metres,
                grid === 0 ? of('flow', chart.chosen.flowM3s) : of('velocity', chart.chosen.velocityMs),
              ],
            ],
            z: 6,
          },
        ];
  const flow = axesOf(0, ink, { up: `air, ${unit('flow')}`, along: '' });
  const velocity = axesOf(1, ink, { up: `in the hose, ${unit('velocity')}`, along: `length of hose, ${lengthUnit}` });
  return {
    animation: false,
    backgroundColor: ink.paper,
    textStyle: { color: ink.text, fontFamily: 'inherit', fontSize: 13 },
    grid: [
      { left: 48, right: 64, top: 28, height: '36%' },
      { left: 48, right: 64, top: '56%', height: '32%' },
    ],
    xAxis: [flow.xAxis, velocity.xAxis],
    yAxis: [flow.yAxis, velocity.yAxis],
    series: [...lines(0), ...dot(0), ...lines(1), ...dot(1)],
  };
};
