import { toDigits } from '@/core/units';
import type { EChartsCoreOption } from 'echarts/core';
import type { Ink } from './ink';

export interface PenetrationCurve {
  readonly name: string;
  readonly whole: boolean;
  /** Size in um, penetration as a share. */
  readonly points: readonly (readonly [sizeUm: number, penetration: number])[];
}

export interface PenetrationChart {
  readonly curves: readonly PenetrationCurve[];
  readonly limits: readonly { readonly name: string; readonly penetration: number }[];
}

const DASHES = ['dashed', 'dotted', [8, 3, 2, 3], [2, 2], [12, 4]] as const;
/** Below this share, 1 in 10 million, nothing is drawn. */
const LEAST = 1e-7;

/** Penetration by particle size on two logarithmic axes, as an ECharts option. Stages by dash, the whole solid. */
export const penetrationOption = (chart: PenetrationChart, ink: Ink): EChartsCoreOption => ({
  animation: false,
  backgroundColor: ink.paper,
  textStyle: { color: ink.text, fontFamily: 'inherit', fontSize: 13 },
  grid: { left: 66, right: 120, top: 20, bottom: 44 },
  xAxis: {
    type: 'log',
    min: 0.01,
    max: 10,
    name: 'particle size, µm',
    nameLocation: 'middle',
    nameGap: 28,
    axisLabel: { color: ink.text },
    nameTextStyle: { color: ink.text },
    splitLine: { show: false },
  },
  yAxis: {
    type: 'log',
    min: LEAST * 100,
    max: 100,
    axisLabel: { color: ink.text, formatter: (v: number) => `${toDigits(v, 3)} %` },
    splitLine: { lineStyle: { color: ink.soft, opacity: 0.25 } },
  },
  series: chart.curves.map((curve, i) => ({
    type: 'line',
    name: curve.name,
    data: curve.points.map(([d, p]) => [d, Math.max(LEAST, p) * 100]),
    symbol: 'none',
    lineStyle: {
      color: curve.whole ? ink.line : ink.text,
      width: curve.whole ? 3.5 : 1.5,
      type: curve.whole ? 'solid' : DASHES[i % DASHES.length],
    },
    endLabel: { show: true, formatter: curve.name, color: ink.text, fontSize: 12 },
    labelLayout: { moveOverlap: 'shiftY' },
    ...(curve.whole && {
      markLine: {
        symbol: 'none',
        silent: true,
        // Two decimals, the default, would draw 0.005 % at 0.01 %.
        precision: 8,
        data: chart.limits.map((l) => ({
          yAxis: l.penetration * 100,
          label: { formatter: l.name, color: ink.text, position: 'insideStartTop' },
          lineStyle: { color: ink.stop, type: 'dashed', width: 1.2 },
        })),
      },
    }),
  })),
});
