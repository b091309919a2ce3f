import { isProbablyPast } from '../forecast/overdue';
import type { ReachQuantiles } from '../forecast/limit-distribution';
import type { DustHazard } from '../machine/machine';
import type { MachineClass } from '../filter/machine-class';
import { STAGE_KINDS, type StageKind } from '../path/stage-kinds';
import type { PlanPart } from './problem';

/** How a machine's class weighs on the price of a late day. Choice: a modelling choice. */
const CLASS_WEIGHT: Readonly<Record<MachineClass, number>> = { L: 1, M: 1.25, H: 1.5, HEPA: 1.5 };

/**
 * How many times more a late day of a stage costs: by the class of its machine and by its dust. The dust weighs as the square
 * root of its opening's price. 1 for a bag or a bin that sets the rhythm: its day of life holds the price of an opening
 * already, and an earlier change opens the machine more often. Choice: a modelling choice. Valid: prices above 0.
 */
export const lateWeight = (
  kind: StageKind,
  { hazard, machineClass }: { readonly hazard: DustHazard; readonly machineClass: MachineClass | null },
  openingCost: Readonly<Record<DustHazard, number>>,
): number =>
  STAGE_KINDS[kind].setsRhythm
    ? 1
    : Math.max(1, Math.sqrt(openingCost[hazard] / Math.max(1, openingCost.plain))) *
      (machineClass === null ? 1 : CLASS_WEIGHT[machineClass]);

/** The first day a part can be taken, from today (day 0) on; null while none is there or on its way. Definition: the first day with a piece. Valid: a part of the plan. */
export const partDay = (part: PlanPart | undefined): number | null => {
  if (!part) return 0;
  if (part.onHand > 0) return 0;
  const days = part.deliveries.filter((d) => d.quantity > 0).map((d) => d.day);
  return days.length === 0 ? null : Math.min(...days);
};

interface Facts {
  readonly kind: StageKind;
  readonly reached: ReachQuantiles;
  readonly machineClass: MachineClass | null;
  /** The day an examination must be done by; null for a change. */
  readonly latest: number | null;
  readonly part: PlanPart | undefined;
}

/** Whether a late filter lets dust into the room: a filter that carries the class of an M or H machine, and any HEPA. */
const isHazardous = ({ kind, machineClass }: Pick<Facts, 'kind' | 'machineClass'>): boolean =>
  kind === 'hepa' || (STAGE_KINDS[kind].carriesClass && machineClass !== null && machineClass !== 'L');

/**
 * The last day of a change or an examination, from today (day 0) on; null where late is only dear. An examination has its
 * own day. A filter of an M or H machine, and any HEPA, has the day by which it is reached in nine of ten ways; a bag
 * that is surely full has today. A last day never lies before the day its part is there. Choice: a modelling choice. Valid: ascending quantiles.
 */
export const lastDayOf = (facts: Facts): number | null => {
  if (facts.latest !== null) return Math.max(0, facts.latest);
  const there = partDay(facts.part);
  if (there === null) return null;
  if (isHazardous(facts)) return Math.max(0, there, Math.ceil(facts.reached[3]));
  return STAGE_KINDS[facts.kind].fills && isProbablyPast(facts.reached) ? there : null;
};
