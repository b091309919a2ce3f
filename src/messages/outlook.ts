import { chanceWord } from '@/core/numeric/chance-word';
import type { ForecastBasis, StageOutlook } from '@/core/forecast/from-record';
import { isOverdue, isPastByRecord, isProbablyPast, isReachedToday, mayBePast, mayBind } from '@/core/forecast/overdue';
import type { StageForecast } from '@/core/forecast/reach';
import { showPercent } from '@/core/units';
import { sayRule } from './needs';
import { ZONE_WORDS } from './outcomes';
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

/** The question after a fall of the fill that no change on record explains; null without one. */
export const askIfChanged = ({ fallen }: ForecastBasis): string | null =>
  fallen &&
  `Was it changed? It was ${showPercent(fallen.before.share)} full on ${fallen.before.day} and ${showPercent(fallen.after.share)} on ${fallen.after.day}, and no change between these days is on record. The forecast takes it as changed.`;

/** Why a gauge that is not green does not count for a stage, and the next step; null where it counts. */
export const sayUncounted = ({ uncounted }: ForecastBasis): string | null =>
  uncounted &&
  `The gauge was ${ZONE_WORDS[uncounted.zone]} on ${uncounted.day}. It may read across the ${uncounted.before} as well, so this is not counted here. Fit a fresh ${uncounted.before} and read the gauge again; or say in the air path that it reads across this filter alone.`;

/** When a stage reaches its limit, by which rule, and how surely it is past. */
export const sayOutlook = (
  { stageId, forecast }: StageOutlook,
  machine: MachineAirPath,
): { readonly sentence: string; readonly rules: string; readonly overdue: boolean } | null => {
  if (!forecast) return null;
  const rules = machine.stages.find((s) => s.id === stageId)?.rules ?? [];
  const said = forecast.binding
    .filter((b) => mayBind(b.chance))
    .map(
      (b) =>
        `${sayRule(rules.find((r) => r.id === b.rule)?.rule ?? { kind: 'indicator' })}${forecast.binding.length > 1 ? ` (${showPercent(b.chance)})` : ''}`,
    );
  return { overdue: isOverdue(forecast), sentence: sayWhen(forecast), rules: said.join(', or ') };
};

/** When a limit is reached, and how sure it is that it is past. */
const sayWhen = (forecast: StageForecast): string => {
  const [, low, , high, last] = forecast.reached;
  if (isOverdue(forecast) && forecast.seenPast)
    return `Overdue: seen at its limit ${days(forecast.seenPast.daysAgo)} ago. If it was changed since, record the change.`;
  if (isPastByRecord(forecast.reached))
    return `By the record, past its limit for ${days(Math.max(1, Math.round(-last)))} or more.`;
  if (isReachedToday(forecast.reached)) return 'Due today at the latest.';
  if (isProbablyPast(forecast.reached))
    return 'Probably past its limit: look today. If it was changed since, record the change.';
  return `Due ${sayRange(low, high)}${mayBePast(forecast.overdue) ? `; ${showPercent(forecast.overdue)} chance that its limit is reached already` : ''}.`;
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
