import type { Medium } from '../constants/media';
import type { FilterRating } from '../filter/rating';
import type { LineFriction } from './model/element';
import type { FanCurve } from './model/fan';

/** How a stage resists the air. */
export type StageAir =
  | { readonly form: 'none' }
  | {
      readonly form: 'medium';
      readonly medium: Medium;
      readonly areaM2: number;
      /** null: the medium's default. */ readonly k1PaSM: number | null;
      /** Equal elements side by side. */ readonly inParallel: number;
    }
  | { readonly form: 'fitting'; readonly lossK: number; readonly boreM: number }
  | { readonly form: 'nozzle'; readonly areaM2: number; readonly coefficient: number }
  /** null bore or length: the machine's own hose or duct. */
  | {
      readonly form: 'line';
      readonly boreM: number | null;
      readonly lengthM: number | null;
      readonly friction: LineFriction;
      readonly entryK: number;
      readonly exitK: number;
    }
  | { readonly form: 'cyclone'; readonly lossK: number; readonly inletAreaM2: number }
  /** Joins several equal ways, each with everything before it. */
  | { readonly form: 'wye'; readonly ways: number; readonly lossK: number; readonly boreM: number }
  | { readonly form: 'fan'; readonly curve: FanCurve };

export const ORIENTATIONS = ['withFlow', 'againstFlow', 'unmarked'] as const;
export type Orientation = (typeof ORIENTATIONS)[number];

/** A gauge reads across its own stage, or across that and the filter before it; `unknown` until somebody says which. */
export const GAUGE_SPANS = ['own', 'withBefore', 'unknown'] as const;
export type GaugeSpan = (typeof GAUGE_SPANS)[number];

/** Where a coloured gauge turns amber and red, Pa, and what it reads across. */
export interface GaugeMarks {
  readonly amberPa: number;
  readonly redPa: number;
  readonly spans: GaugeSpan;
}

/** The seat and rating of a stage. */
export interface StageFit {
  readonly orientation: Orientation;
  /** Seals to be seen at every opening. */
  readonly seals: number;
  /** Share of the air that gets past the seat, 0 to 1. */
  readonly bypass: number;
  readonly rating: FilterRating;
  /** Not the part the machine was tested with. */
  readonly foreign: boolean;
  /** The marks of a coloured gauge at this stage; null without a gauge. */
  readonly gaugePa: GaugeMarks | null;
}

export interface StageSpec {
  readonly air: StageAir;
  readonly fit: StageFit;
}
