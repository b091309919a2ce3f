/** The end of an interval, and its information about the limit. */
export type IntervalEnd =
  /** Changed because the limit was seen: full, gauge, indicator, flow lost. */
  | 'limit'
  /** Changed as a precaution, or because the machine was open: mostly near the limit, but no proof of it. */
  | 'early'
  /** Changed on a date or by a count: the limit had not been seen until then. */
  | 'bound'
  /** For some other reason, such as damage: says nothing of its life. */
  | 'other';

/** An observation of an interval at a load since its change. */
export type Mark =
  /** Share of the limit, with its own doubt as a standard deviation of the share. */
  | {
      readonly kind: 'share';
      readonly load: number;
      readonly share: number;
      readonly deviation: number;
      /** Seen or read at the stage itself, not derived from the flow of the whole machine. */
      readonly atStage?: boolean;
    }
  /** Only between which shares it was: a gauge's zone, a light. */
  | { readonly kind: 'zone'; readonly load: number; readonly above: number | null; readonly below: number | null };

/** One interval of a stage, over or running. */
export interface Interval {
  /** Load it ran for so far: run hours weighted by dust where they are logged, otherwise days of work. */
  readonly load: number;
  /** Calendar days it lasted so far. */
  readonly days: number;
  readonly marks: readonly Mark[];
  /** Uncertainty of its load, as a spread of the logarithm: unrecorded days, or a date that is off by days. */
  readonly unsure: number;
}

/** One interval that is over. */
export interface PastInterval extends Interval {
  readonly end: IntervalEnd;
  /** Before the newest recorded change of the path. */
  readonly beforeRegime: boolean;
}

/** The facts about a stage before it is forecast. */
export interface StageHistory {
  /** Middle and spread (of the logarithm) of the load to its limit on a machine of this kind. */
  readonly template: { readonly load: number; readonly spread: number };
  /** The unit of a load. */
  readonly counts: 'hours' | 'days';
  /** Oldest first. */
  readonly past: readonly PastInterval[];
  readonly running: Interval;
  /** Days since the running interval had so much load behind it. */
  readonly daysSince: (load: number) => number;
  /** Days people usually take to see a limit and act on it. */
  readonly actDays: number;
  /** Chance that a limit is ignored for long, against the usual habit. */
  readonly ignored: number;
  /** Chance that a change was made and not written down. */
  readonly unwritten: number;
}
