import type { MachineModel } from '../path/machine-path';
import { complainedOf, type Complaint } from './complaint';
import { type Fault, isHarmless, isSilent } from './fault';
import { EXPOSURE_MINUTES, type HazardLevel } from './operation';
import type { Case, Cause } from './posterior';
import { curedBy, REPAIR_FACTS, type Repair, repairOf } from './repair';

/** Minutes a case that comes back costs. A Moorwind default, a modelling choice. */
export const WRONG_CLOSING_MINUTES = 60;
/** Dust let past is breathed until somebody looks: it is dearer to leave than what is felt. A Moorwind default. */
const SILENT_MINUTES = 150;
/** A fault nobody feels or breathes costs less to leave. */
const HARMLESS_MINUTES = 15;

/** A repair that changes nothing costs a retest and the technician's patience besides. A Moorwind default. */
const IN_VAIN_MINUTES = 6;

/** Price of a repair that was not needed: its time, its exposure, and the part it spends. Minutes. Source: Moorwind defaults, modelling choices. Valid: every repair and level. */
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

const leftMinutes = (cause: Pick<Fault, 'kind' | 'position'>, model: MachineModel): number =>
  isHarmless(cause) ? HARMLESS_MINUTES : isSilent(cause, model) ? SILENT_MINUTES : WRONG_CLOSING_MINUTES;

export interface Stand {
  readonly complaint: Complaint;
  readonly hazard: HazardLevel;
  readonly repairs: readonly Repair[];
  /** The complaint's own measure is back in its band: what could be felt is gone, only the silent is left to ask. */
  readonly back: boolean;
}

/** What leaving a cause costs as the case stands. Once the flow is back, a fault that is still felt is a contradiction in terms but for its doubt. */
const leftOf = (cause: Cause, model: MachineModel, { complaint, back }: Stand): number => {
  if (complainedOf(complaint, cause.kind)) return WRONG_CLOSING_MINUTES;
  return back && !isSilent(cause, model) ? FELT_AFTER_BACK * leftMinutes(cause, model) : leftMinutes(cause, model);
};

/** Losses as the case stands. */
export const lossesOf = (c: Case, stand: Stand): Losses => {
  const { model } = c.subject.faultSimulator.suspect;
  const { complaint, hazard, repairs, back } = stand;
  const cured = (cause: Cause) => curedBy(repairs, cause);
  const matters = (cause: Cause) =>
    complainedOf(complaint, cause.kind)
      ? 1
      : isHarmless(cause)
        ? HARMLESS
        : isSilent(cause, model) && !back
          ? SILENT_WHILE_FELT
          : 1;
  return {
    left: c.causes.map((x) => (cured(x) ? 0 : leftOf(x, model, stand))),
    needless: c.causes.map((x) => needlessMinutes(repairOf(x, model.stages), hazard) + IN_VAIN_MINUTES),
    weight: c.causes.map((x) => (cured(x) ? 0 : matters(x))),
  };
};

/** A fault the measure does not feel is as good as none: this part of its loss is left once the flow is back. */
const FELT_AFTER_BACK = 0.15;
/** A harmless fault left in matters this much. A Moorwind default. */
const HARMLESS = 0.3;
/** While the flow is away, what is silent can wait: it is asked after the flow is back. */
const SILENT_WHILE_FELT = 0.35;

/** The least that can be lost by leaving a cause or repairing it, minutes, at its probability. Source: expected loss (Raiffa and Schlaifer). Valid: a probability of 0 to 1. */
export const lossOf = (probability: number, cause: number, { left, needless }: Losses): number =>
  Math.min(probability * (left[cause] ?? 0), (1 - probability) * (needless[cause] ?? 0));
