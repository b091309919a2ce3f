import Papa from 'papaparse';
import { siUnit } from '@/core/units';
import type { Bench } from './bench';
import { loadTrend, type TrendKey, trendQuantity } from './trend';

/** A trend as CSV, in SI with the unit in the heading; the same figures as the chart's. */
export const trendCsv = (bench: Bench, key: TrendKey): string => {
  const unit = siUnit(trendQuantity(key));
  const rows = loadTrend(bench, key).points.map((p) => ({
    performed_at: p.at,
    day: p.day,
    [`mean_${unit}`]: p.mean,
    [`half_interval_95_${unit}`]: p.expanded,
    readings: p.n,
    rig_series: p.rigSeries,
    baseline: p.isBaseline,
    used: p.usable,
    configuration: p.configuration.replace(/[;\t\r\n]/g, ' '),
    by: p.by,
  }));
  return Papa.unparse(rows, { newline: '\r\n', escapeFormulae: true });
};
