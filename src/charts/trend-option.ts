import { fixed } from '@/core/units';
import type { CustomSeriesRenderItemReturn } from 'echarts';
import type { EChartsCoreOption } from 'echarts/core';
import type { Ink } from './ink';
import { fromSi, prettyUnit, SHOWN, type QuantityKind, type UnitSystem } from '../core/units';

export interface TrendChart {
  readonly quantity: QuantityKind;
  readonly units: UnitSystem;
  readonly points: readonly {
    readonly at: string;
    readonly mean: number;
    readonly expanded: number | null;
    readonly rigSeries: number;
    readonly usable: boolean;
  }[];
  readonly changes: readonly { readonly at: string; readonly name: string }[];
  readonly lines: readonly {
    readonly name: string;
    readonly value: number;
    readonly tone: 'base' | 'watch' | 'stop';
  }[];
  readonly ink: Pick<Ink, 'text' | 'line' | 'soft' | 'watch' | 'stop' | 'paper'>;
}

interface DrawApi {
  readonly value: (dimension: number) => number;
  readonly coord: (point: readonly number[]) => readonly number[];
}

/** An upright bar from low to high with short ends: half the 95 % interval on both sides. */
const whisker =
  (color: string) =>
  (_: unknown, api: DrawApi): CustomSeriesRenderItemReturn => {
    const [x = 0, low = 0] = api.coord([api.value(0), api.value(1)]);
    const [, high = 0] = api.coord([api.value(0), api.value(2)]);
    const stroke = { stroke: color, lineWidth: 1.5 };
    const bar = ([x1, x2]: readonly [number, number], [y1, y2]: readonly [number, number]) => ({
      type: 'line' as const,
      shape: { x1, y1, x2, y2 },
      style: stroke,
    });
    const ends = [x - 4, x + 4] as const;
    return {
      type: 'group',
      children: [bar([x, x], [low, high]), bar(ends, [low, low]), bar(ends, [high, high])],
    };
  };

/** The line is broken where the rig changed: a null between two rigs. */
const brokenLine = (points: TrendChart['points'], show: (v: number) => number) =>
  points.flatMap((p, i) => {
    const before = points[i - 1];
    const gap = before && before.rigSeries !== p.rigSeries ? [[p.at, null] as const] : [];
    return [...gap, [p.at, show(p.mean)] as const];
  });

/** Stages changed more often than this in the picture are drawn faint and unnamed: the rest would drown in bags. */
const NAMED_CHANGES = 4;

const changeLine = (change: TrendChart['changes'][number], { changes, ink }: TrendChart) => {
  const rare = changes.filter((c) => c.name === change.name).length <= NAMED_CHANGES;
  return {
    xAxis: change.at,
    name: change.name,
    label: { show: rare, formatter: change.name, color: ink.text, position: 'insideEndTop' as const },
    lineStyle: { color: ink.soft, type: 'dotted' as const, width: rare ? 1.5 : 1, opacity: rare ? 1 : 0.35 },
  };
};

/** A trend as an ECharts option: means with their intervals, changes upright, baseline and limits across. */
export const trendOption = (chart: TrendChart): EChartsCoreOption => {
  const { unit, decimals } = SHOWN[chart.units][chart.quantity];
  const show = (v: number) => fromSi(chart.quantity, v, unit);
  const { ink } = chart;
  const usable = chart.points.filter((p) => p.usable);
  const tones = { base: ink.soft, watch: ink.watch, stop: ink.stop } as const;
  return {
    animation: false,
    backgroundColor: ink.paper,
    textStyle: { color: ink.text, fontFamily: 'inherit', fontSize: 13 },
    grid: { left: 56, right: 128, top: 24, bottom: 40 },
    tooltip: {
      trigger: 'axis',
      valueFormatter: (v: unknown) => (typeof v === 'number' ? `${fixed(v, decimals)} ${prettyUnit(unit)}` : ''),
    },
    xAxis: {
      type: 'time',
      axisLabel: { color: ink.text, hideOverlap: true },
      axisLine: { lineStyle: { color: ink.soft } },
    },
    yAxis: {
      type: 'value',
      scale: true,
      name: prettyUnit(unit),
      nameTextStyle: { color: ink.text },
      axisLabel: { color: ink.text },
      splitLine: { lineStyle: { color: ink.soft, opacity: 0.25 } },
    },
    series: [
      {
        type: 'line',
        name: 'mean',
        data: brokenLine(usable, show),
        connectNulls: false,
        symbol: 'circle',
        symbolSize: 8,
        itemStyle: { color: ink.line },
        lineStyle: { color: ink.line, width: 2 },
        markLine: {
          symbol: 'none',
          silent: true,
          data: [
            ...chart.lines.map((l) => ({
              yAxis: show(l.value),
              name: l.name,
              label: { formatter: l.name, color: ink.text, position: 'end' as const },
              lineStyle: { color: tones[l.tone], type: 'dashed' as const, width: 1.5 },
            })),
            ...chart.changes.map((c) => changeLine(c, chart)),
          ],
        },
      },
      {
        type: 'custom',
        name: '95 %',
        renderItem: whisker(ink.line),
        tooltip: { show: false },
        data: usable.flatMap((p) =>
          p.expanded === null ? [] : [[p.at, show(p.mean - p.expanded), show(p.mean + p.expanded)]],
        ),
        encode: { x: 0, y: [1, 2] },
        z: 1,
      },
      {
        type: 'scatter',
        name: 'not used',
        data: chart.points.filter((p) => !p.usable).map((p) => [p.at, show(p.mean)]),
        symbol: 'diamond',
        symbolSize: 9,
        itemStyle: { color: 'transparent', borderColor: ink.soft, borderWidth: 1.5 },
      },
    ],
  };
};
