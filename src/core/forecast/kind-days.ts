import type { StageKind } from '../path/stage-kinds';

/** Middle days to the limit, before anything is on record. Moorwind defaults, a modelling choice. */
const TEMPLATE_DAYS: Partial<Record<StageKind, number>> = {
  bag: 30,
  cyclone: 18,
  dropChamber: 60,
  prefilter: 120,
  mainFilter: 365,
  canister: 730,
  hepa: 400,
  gas: 180,
  cloth: 240,
  foam: 90,
  exhaustFilter: 180,
};
export const OTHER_DAYS = 180;

/** Days a stage of a kind usually lasts, before anything of it is on record. A Moorwind default, a modelling choice. Valid: any kind. Source: see `TEMPLATE_DAYS`. */
export const usualDays = (kind: StageKind): number => TEMPLATE_DAYS[kind] ?? OTHER_DAYS;
/** Run hours of a usual calendar day, where only days are known. */
export const USUAL_HOURS = 1.8;
export /** How far a stage may lie from its kind, as a spread of the logarithm. A modelling choice. */
const TEMPLATE_SPREAD = { fills: 0.7, wears: 0.9 } as const;
/** Working days of a calendar day. */
export const WORKED = 5 / 7;

/** Stages that fill; they are looked at, and changed within days. */
export const FILLS: ReadonlySet<StageKind> = new Set(['bag', 'cyclone', 'dropChamber']);
