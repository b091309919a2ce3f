import { CLASS_HOSE_VELOCITY } from '@/core/constants/limits';
import { MACHINE_KINDS } from '@/core/machine/kinds';
import { boreAreaM2 } from '@/core/measure/bore-flow';
import type { Method } from '@/core/measure/methods';
import type { TrendChart } from '@/charts/trend-option';
import { type UnitSystem, fixed } from '@/core/units';
import { METHOD_WORDS, PLACE_WORDS } from '@/messages/words';
import type { Bench } from '@/server/services/measuring/bench';
import { type Trend, type TrendKey, trendKeys, trendQuantity } from '@/server/services/measuring/trend';

/** A trend's key as one word of an address. */
export const keyText = ({ method, place, stageId }: TrendKey): string => [method, place, stageId ?? ''].join('.');

export const keyOf = (bench: Bench, text: string | null): TrendKey | null => {
  const keys = trendKeys(bench);
  return keys.find((k) => keyText(k) === text) ?? keys[0] ?? null;
};

export const trendName = (bench: Bench, { method, place, stageId }: TrendKey): string => {
  const stage = bench.status.machine.stages.find((s) => s.id === stageId);
  return `${METHOD_WORDS[method]}, ${stage ? stage.name : PLACE_WORDS[place]}`;
};

const isFlow = (method: Method, bench: Bench): boolean =>
  trendQuantity({ method, place: 'hoseEnd', stageId: null }) === 'flow' &&
  MACHINE_KINDS[bench.status.machine.kind].hoseVelocityLimit;

/** Baseline, the two lines under it, and the class limit where the hose is judged. */
const linesOf = (bench: Bench, trend: Trend): TrendChart['lines'] => {
  const { machine } = bench.status;
  const { warnLoss, actLoss } = bench.yard.site.thresholds;
  const lines: { name: string; value: number; tone: 'base' | 'watch' | 'stop' }[] = [];
  if (trend.baseline !== null) {
    lines.push({ name: 'baseline', value: trend.baseline, tone: 'base' });
    lines.push({
      name: `warn, -${fixed(warnLoss * 100, 0)} %`,
      value: trend.baseline * (1 - warnLoss),
      tone: 'watch',
    });
    lines.push({ name: `act, -${fixed(actLoss * 100, 0)} %`, value: trend.baseline * (1 - actLoss), tone: 'stop' });
  }
  if (
    isFlow(trend.key.method, bench) &&
    machine.hoseBoreM !== null &&
    (trend.key.place === 'hoseEnd' || trend.key.place === 'toolEnd')
  ) {
    lines.push({
      name: '20 m/s in the hose',
      value: CLASS_HOSE_VELOCITY.value * boreAreaM2(machine.hoseBoreM),
      tone: 'stop',
    });
  }
  return lines;
};

/** The data of the chart. */
export const trendChart = (bench: Bench, trend: Trend, units: UnitSystem): Omit<TrendChart, 'ink'> => ({
  quantity: trendQuantity(trend.key),
  units,
  points: trend.points,
  changes: trend.changes.filter((c) => c.at >= (trend.points[0]?.at ?? '')),
  lines: linesOf(bench, trend),
});
