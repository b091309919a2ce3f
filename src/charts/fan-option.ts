import type { EChartsCoreOption } from 'echarts/core';
import { fromSi, prettyUnit, SHOWN, type QuantityKind, type UnitSystem } from '../core/units';
import type { Ink } from './ink';

export interface FanPoint {
  readonly name: string;
  readonly flowM3s: number;
  readonly liftPa: number;
}

/** A fan and its path: where the two curves cross, the machine works. */
export interface FanChart {
  readonly units: UnitSystem;
  /** Lift of the fan against its flow. */
  readonly fan: readonly (readonly [flowM3s: number, liftPa: number])[];
  readonly asNew: readonly (readonly [flowM3s: number, liftPa: number])[];
  readonly today: readonly (readonly [flowM3s: number, liftPa: number])[];
  readonly points: readonly FanPoint[];
}

/**
 * The fan curve with the path's curves and the operating points, as an ECharts option. Lines differ by dash and name.
 */
export const fanOption = (chart: FanChart, ink: Ink): EChartsCoreOption => {
  const of = (kind: QuantityKind, v: number) => fromSi(kind, v, SHOWN[chart.units][kind].unit);
  const xy = ([q, p]: readonly [number, number]) => [of('flow', q), of('pressure', p)];
  const unit = (kind: QuantityKind) => prettyUnit(SHOWN[chart.units][kind].unit);
  const curve = (
    name: string,
    data: FanChart['fan'],
    look: { color: string; type: 'solid' | 'dashed'; width: number },
  ) => ({
    type: 'line' as const,
    name,
    data: data.map(xy),
    symbol: 'none',
    smooth: true,
    lineStyle: look,
  });
  return {
    animation: false,
    backgroundColor: ink.paper,
    textStyle: { color: ink.text, fontFamily: 'inherit', fontSize: 13 },
    grid: { left: 52, right: 24, top: 28, bottom: 44 },
    xAxis: {
      type: 'value',
      name: `air, ${unit('flow')}`,
      nameLocation: 'middle',
      nameGap: 28,
      min: 0,
      max: 'dataMax',
      axisLabel: { color: ink.text, formatter: (v: number) => String(Math.round(v)) },
      nameTextStyle: { color: ink.text },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      name: unit('pressure'),
      min: 0,
      axisLabel: { color: ink.text },
      nameTextStyle: { color: ink.text },
      splitLine: { lineStyle: { color: ink.soft, opacity: 0.25 } },
    },
    series: [
      curve('fan', chart.fan, { color: ink.text, type: 'solid', width: 2.5 }),
      curve('path as new', chart.asNew, { color: ink.soft, type: 'dashed', width: 1.5 }),
      curve('path today', chart.today, { color: ink.line, type: 'solid', width: 2 }),
      {
        type: 'scatter',
        name: 'points',
        // The two points may overlap, so their names go on opposite sides.
        data: chart.points.map((p, i) => ({
          name: p.name,
          value: xy([p.flowM3s, p.liftPa]),
          label: { position: i === 0 ? 'right' : 'left' },
        })),
        symbol: 'circle',
        symbolSize: 11,
        itemStyle: { color: ink.paper, borderColor: ink.line, borderWidth: 2.5 },
        label: { show: true, formatter: '{b}', color: ink.text, fontWeight: 600 },
        z: 5,
      },
    ],
  };
};
