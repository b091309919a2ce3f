import type { MachineModel, ModelStage } from '../path/machine-path';
import { complainedOf, type Complaint } from './complaint';
import { type Fault, isHarmless, isSilent } from './fault';
import { EXPOSURE_MINUTES, type HazardLevel } from './operation';
import type { Case, Cause } from './posterior';
import { curedBy, cures, partMinutes, REPAIR_FACTS, type Repair, repairsOf } from './repair';

/** Minutes a case that comes back costs. A Moorwind default, a modelling choice. */
export const WRONG_CLOSING_MINUTES = 60;
/** Price of leaving a dust leak, minutes: people breathe it until it is found. A Moorwind default. */
const SILENT_MINUTES = 240;
/** Price of leaving a fault that nobody feels or breathes, minutes. */
const HARMLESS_MINUTES = 15;

/** A repair that changes nothing costs a retest and the technician's patience besides. A Moorwind default. */
const IN_VAIN_MINUTES = 12;

/** Price of a repair: its time, its exposure, and the part it spends. Minutes. Choice: Moorwind defaults, modelling choices. Valid: every repair and level. */
export const repairMinutes = (repair: Repair, hazard: HazardLevel, stages: readonly ModelStage[]): number => {
  const facts = REPAIR_FACTS[repair.kind];
  const part = repair.kind === 'newPart' ? partMinutes(stages[repair.position]?.kind) : facts.partMinutes;
  return facts.minutes + facts.exposure * EXPOSURE_MINUTES[hazard] + part;
};

/** One thing that can be done about the causes of a stage. */
export interface Remedy {
  readonly repair: Repair;
  /** Price of a repair where no such fault is present, minutes. */
  readonly needless: number;
  /** For each cause it cures, by index: its price beyond the needed one. */
  readonly cures: ReadonlyMap<number, number>;
}

/** The causes at one stage, and their remedies. */
export interface StageLosses {
  readonly causes: readonly number[];
  readonly remedies: readonly Remedy[];
}

/** Price of leaving each cause, by index of the case's causes, and of repairing it for nothing. */
export interface Losses {
  readonly left: readonly number[];
  /** Weight of its doubt in the choice of a test. */
  readonly weight: readonly number[];
  readonly stages: readonly StageLosses[];
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

/**
 * The price of leaving a cause, in the present case. Once the flow is back a detectable fault is unlikely, so its price
 * is reduced.
 */
const leftOf = (cause: Cause, model: MachineModel, { complaint, back }: Stand): number => {
  if (complainedOf(complaint, cause.kind)) return WRONG_CLOSING_MINUTES;
  return back && !isSilent(cause, model) ? FELT_AFTER_BACK * leftMinutes(cause, model) : leftMinutes(cause, model);
};

const stageLosses = (c: Case, { complaint, hazard, repairs, back }: Stand): readonly StageLosses[] => {
  const { model } = c.subject.faultSimulator.suspect;
  const { stages } = model;
  // After the flow is back, a fault no test can detect may stay; then the full repair price counts, otherwise only the
  // excess over the cheapest repair.
  const mayStay = (cause: Cause) => back && !isSilent(cause, model) && !complainedOf(complaint, cause.kind);
  const open = c.causes.flatMap((cause, index) => (curedBy(repairs, cause) ? [] : [{ cause, index }]));
  const price = (r: Repair) => repairMinutes(r, hazard, stages);
  return [...new Set(open.map(({ cause }) => cause.position))].map((position): StageLosses => {
    const here = open.filter(({ cause }) => cause.position === position);
    const kinds = new Map(here.flatMap(({ cause }) => repairsOf(cause, stages).map((r) => [r.kind, r] as const)));
    const all = [...kinds.values()];
    return {
      causes: here.map(({ index }) => index),
      remedies: all.map((repair): Remedy => ({
        repair,
        needless: price(repair) + IN_VAIN_MINUTES,
        cures: new Map(
          here.flatMap(({ cause, index }) =>
            cures(repair, cause)
              ? [
                  [
                    index,
                    price(repair) - (mayStay(cause) ? 0 : Math.min(...all.filter((r) => cures(r, cause)).map(price))),
                  ] as const,
                ]
              : [],
          ),
        ),
      })),
    };
  });
};

/** Losses in the present case. */
export const lossesOf = (c: Case, stand: Stand): Losses => {
  const { model } = c.subject.faultSimulator.suspect;
  const { complaint, repairs, back } = stand;
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
    weight: c.causes.map((x) => (cured(x) ? 0 : matters(x))),
    stages: stageLosses(c, stand),
  };
};

/** A fault the measure does not feel is as good as none: this part of its loss is left once the flow is back. */
const FELT_AFTER_BACK = 0.15;
/** A harmless fault left in matters this much. A Moorwind default. */
const HARMLESS = 0.3;
/** While the flow is away, a silent fault can wait: it is asked about after the flow is back. */
const SILENT_WHILE_FELT = 0.35;

/** Chance of each cause, by index. */
export type Chance = (cause: number) => number;

/**
 * Expected loss of leaving a stage unrepaired, minutes. Source: expected loss (Raiffa and Schlaifer). Valid:
 * probabilities of 0 to 1.
 */
export const lossOfLeaving = ({ causes }: StageLosses, chance: Chance, { left }: Losses): number =>
  causes.reduce((sum, f) => sum + chance(f) * (left[f] ?? 0), 0);

/** Chance that a remedy is of use: of all the causes it cures together. Definition: the sum of chances that exclude each other. Valid: probabilities of 0 to 1. */
export const useOf = ({ cures: cured }: Remedy, chance: Chance): number => {
  let use = 0;
  for (const f of cured.keys()) use += chance(f);
  return Math.min(1, use);
};

/**
 * Expected price of a remedy beyond the needed one, minutes: in vain, or dearer than necessary. Source: expected loss
 * (Raiffa and Schlaifer). Valid: probabilities of 0 to 1.
 */
export const riskOf = (remedy: Remedy, chance: Chance): number => {
  let risk = (1 - useOf(remedy, chance)) * remedy.needless;
  for (const [f, beyond] of remedy.cures) risk += chance(f) * beyond;
  return risk;
};

/** The same with what it leaves at its stage, minutes. Source and Valid as `riskOf`. */
export const lossOfRemedy = (
  stage: StageLosses,
  remedy: Remedy,
  { chance, losses }: { readonly chance: Chance; readonly losses: Losses },
): number =>
  stage.causes.reduce(
    (sum, f) => sum + (remedy.cures.has(f) ? 0 : chance(f) * (losses.left[f] ?? 0)),
    riskOf(remedy, chance),
  );

/** The least that can be lost at a stage by leaving it or by what can be done about it, minutes. Source: expected loss (Raiffa and Schlaifer). Valid: probabilities of 0 to 1. */
export const lossOf = (stage: StageLosses, chance: Chance, losses: Losses): number => {
  let least = lossOfLeaving(stage, chance, losses);
  for (const remedy of stage.remedies) least = Math.min(least, lossOfRemedy(stage, remedy, { chance, losses }));
  return least;
};
