import { chanceWord } from '@/core/numeric/chance-word';
import type { ForecastBasis, StageOutlook } from '@/core/forecast/from-record';
import { isOverdue, mayBePast, mayBind } from '@/core/forecast/overdue';
import { showPercent } from '@/core/units';
import { sayRule } from './needs';
import { days } from './words';
import type { Machine } from '@/core/machine/machine';

/** Days as a range a person would say: "in 3 to 5 weeks", "now". */
export const sayRange = (low: number, high: number): string => {
  const [a, b] = [Math.max(0, Math.round(low)), Math.round(high)];
  if (b <= 1) return 'now';
  if (b < 21) return a === b ? `in ${b} days` : `in ${a} to ${b} days`;
  const weeks = (d: number) => Math.round(d / 7);
  if (b < 120) return weeks(a) === weeks(b) ? `in ${weeks(b)} weeks` : `in ${weeks(a)} to ${weeks(b)} weeks`;
  const months = (d: number) => Math.round(d / 30.4);
  return months(a) === months(b) ? `in ${months(b)} months` : `in ${months(a)} to ${months(b)} months`;
};

/** The same, short enough for the strip. */
export const shortRange = (low: number, high: number): string => {
  if (high < 0) return 'past';
  const [unit, word] = high < 21 ? [1, 'd'] : high < 120 ? [7, 'wk'] : [30.4, 'mo'];
  const [a, b] = [Math.max(0, Math.round(low / unit)), Math.round(high / unit)];
  return a === b ? `${b} ${word}` : `${a}-${b} ${word}`;
};

/** The basis of a forecast, in a sentence. */
export const sayBasis = ({ intervals, inspections, counts, regimeSince }: ForecastBasis): string => {
  if (intervals === 0 && inspections === 0)
    return 'Nothing of its own on record yet: the figures of its kind are used.';
  const what = [
    ...(intervals > 0 ? [`${intervals} earlier ${intervals === 1 ? 'change' : 'changes'}`] : []),
    ...(inspections > 0 ? [`${inspections} ${inspections === 1 ? 'look or test' : 'looks or tests'} since`] : []),
  ];
  return `Based on ${what.join(' and ')}, counted in ${counts === 'hours' ? 'run hours' : 'working days, because no run hours are on record'}.${regimeSince === null ? '' : ` The air path changed on ${regimeSince}; older changes count little.`}`;
};

/** When a stage reaches its limit, by which rule, and how surely it is past. */
export const sayOutlook = (
  { stageId, forecast }: StageOutlook,
  machine: Machine,
): { readonly sentence: string; readonly rules: string; readonly overdue: boolean } | null => {
  if (!forecast) return null;
  const [, low, , high] = forecast.reached;
  const rules = machine.stages.find((s) => s.id === stageId)?.rules ?? [];
  const said = forecast.binding
    .filter((b) => mayBind(b.chance))
    .map(
      (b) =>
        `${sayRule(rules.find((r) => r.id === b.rule)?.rule ?? { kind: 'indicator' })}${forecast.binding.length > 1 ? ` (${showPercent(b.chance)})` : ''}`,
    );
  const overdue = isOverdue(forecast.reached);
  return {
    overdue,
    sentence: overdue
      ? `Overdue by ${days(Math.max(1, Math.round(-high)))} or more.`
      : `Due ${sayRange(low, high)}${mayBePast(forecast.overdue) ? `; ${showPercent(forecast.overdue)} chance that it is overdue already` : ''}.`,
    rules: said.join(', or '),
  };
};

/** The effect of waiting a week, for today's round. */
export const sayPastInAWeek = (chance: number): string => {
  switch (chanceWord(chance)) {
    case 'surely':
      return 'Will be overdue within a week.';
    case 'hardly':
      return 'Unlikely to be overdue within a week.';
    case 'figure':
      return `${showPercent(chance)} chance of being overdue within a week.`;
  }
};
