import { STAGE_KINDS, type StageKind } from '../path/stage-kinds';

export const OTHER_DAYS = 180;

/** Days a stage of a kind usually lasts, before anything of it is on record. A Moorwind default, a modelling choice. Source: `STAGE_KINDS`. Total. */
export const usualDays = (kind: StageKind): number => STAGE_KINDS[kind].usualDays;
/** Run hours of a usual calendar day, where only days are known. */
export const USUAL_HOURS = 1.8;
/** Spread of a stage about its kind, as a logarithm. A modelling choice. */
export const TEMPLATE_SPREAD = { fills: 0.7, wears: 0.9 } as const;
/** Working days of a calendar day. */
export const WORKED = 5 / 7;

/** Stages that fill; they are looked at, and changed within days. */
export const fills = (kind: StageKind): boolean => STAGE_KINDS[kind].fills;
