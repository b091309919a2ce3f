import { type Fault, isHarmless, isSilent } from './fault';
import { EXPOSURE_MINUTES, type HazardLevel } from './operation';
import type { Case, Cause } from './posterior';
import { curedBy, REPAIR_FACTS, type Repair, repairOf } from './repair';

/** Minutes a case that comes back costs. A Moorwind default, a modelling choice. */
export const WRONG_CLOSING_MINUTES = 60;
/** A fault nobody feels or breathes costs less to leave. */
const HARMLESS_MINUTES = 15;

/** A repair that changes nothing costs a retest and the technician's patience besides. A Moorwind default. */
const IN_VAIN_MINUTES = 6;

/** Price of a repair that was not needed: its time, its exposure, and the part it spends. Minutes. */
export const needlessMinutes = (repair: Repair, hazard: HazardLevel): number => {
  const facts = REPAIR_FACTS[repair.kind];
  return facts.minutes + facts.exposure * EXPOSURE_MINUTES[hazard] + facts.partMinutes;
};

/** What it costs to leave each cause, and to repair it for nothing. By index of the case's causes. */
export interface Losses {
  readonly left: readonly number[];
  readonly needless: readonly number[];
  /** How much doubt about it matters in the choice of a test. */
  readonly weight: readonly number[];
}

const leftMinutes = (cause: Pick<Fault, 'kind' | 'position'>): number => (isHarmless(cause) ? HARMLESS_MINUTES : WRONG_CLOSING_MINUTES);

export interface Stand {
  readonly hazard: HazardLevel;
  readonly repairs: readonly Repair[];
  /** The complaint's own measure is back in its band: what could be felt is gone, only the silent is left to ask. */
  readonly back: boolean;
}

/** Losses as the case stands. Once the flow is back, a fault that is still felt is a contradiction in terms but for its doubt. */
export const lossesOf = (c: Case, { hazard, repairs, back }: Stand): Losses => {
  const { model } = c.bench.mechanic.suspect;
  const cured = (cause: Cause) => curedBy(repairs, cause);
  return {
    left: c.causes.map((x) => (cured(x) ? 0 : back && !isSilent(x, model) ? FELT_AFTER_BACK * leftMinutes(x) : leftMinutes(x))),
    needless: c.causes.map((x) => needlessMinutes(repairOf(x, model.stages), hazard) + IN_VAIN_MINUTES),
    weight: c.causes.map((x) => (cured(x) ? 0 : isHarmless(x) ? 0.3 : isSilent(x, model) ? (back ? 1 : SILENT_WHILE_FELT) : 1)),
  };
};

/** A fault the measure does not feel is as good as none: this part of its loss is left once the flow is back. */
const FELT_AFTER_BACK = 0.15;
/** While the flow is away, what is silent can wait: it is asked after the flow is back. */
const SILENT_WHILE_FELT = 0.35;

/** The least that can be lost by leaving a cause or repairing it, minutes, at its probability. */
export const lossOf = (probability: number, cause: number, { left, needless }: Losses): number =>
  Math.min(probability * (left[cause] ?? 0), (1 - probability) * (needless[cause] ?? 0));
