import { chanceWord } from '@/core/numeric/chance-word';
import type { ForecastBasis, StageOutlook } from '@/core/forecast/from-record';
import { isOverdue, mayBePast, mayBind } from '@/core/forecast/overdue';
import { showPercent } from '@/core/units';
import { sayRule } from './needs';
import type { MachineAirPath } from '@/core/machine/machine';
import { days, sayRange, whereAbove0 } from './format';

/** The basis of a forecast, in a sentence. */
export const sayBasis = ({ intervals, inspections, counts, regimeSince }: ForecastBasis): string => {
  if (intervals === 0 && inspections === 0)
    return 'Nothing of its own on record yet: the figures of its kind are used.';
  const what = [
    ...whereAbove0(intervals, (n) => `${n} earlier ${n === 1 ? 'change' : 'changes'}`),
    ...whereAbove0(inspections, (n) => `${n} ${n === 1 ? 'look or test' : 'looks or tests'} since`),
  ];
  return `Based on ${what.join(' and ')}, counted in ${counts === 'hours' ? 'run hours' : 'working days, because no run hours are on record'}.${regimeSince === null ? '' : ` The air path changed on ${regimeSince}; older changes count little.`}`;
};

/** When a stage reaches its limit, by which rule, and how surely it is past. */
export const sayOutlook = (
  { stageId, forecast }: StageOutlook,
  machine: MachineAirPath,
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
