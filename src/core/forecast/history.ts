/** How a past interval ended, as far as it says when the limit was reached. */
export type IntervalEnd =
  /** Changed because the limit was seen: full, gauge, indicator, flow lost. */
  | 'limit'
  /** Changed before it: as a precaution, on a date, or because the machine was opened anyway. */
  | 'early'
  /** For some other reason, such as damage: says nothing of its life. */
  | 'other';

/** One interval of a stage that is over. */
export interface PastInterval {
  /** Load it ran for: run hours weighted by the dust of the job where they are logged, otherwise days. Above 0. */
  readonly load: number;
  /** Calendar days it lasted, above 0. */
  readonly days: number;
  readonly end: IntervalEnd;
  /** Share of its limit at the end, as it was found: 1 is the limit; null when nobody looked. */
  readonly found: number | null;
  /** Before the newest recorded change of dust, job or path. */
  readonly beforeRegime: boolean;
}

/** What was seen of the interval that runs. */
export type Inspection =
  /** Share of the limit at a load, with its own doubt as a standard deviation of the share. */
  | { readonly kind: 'share'; readonly load: number; readonly share: number; readonly deviation: number }
  /** Only on which side of a share it was: a gauge zone, a light. */
  | { readonly kind: 'side'; readonly load: number; readonly share: number; readonly above: boolean };

/** What is known of a stage before it is forecast. */
export interface StageHistory {
  /** Middle and spread (of the logarithm) of the load to its limit on a machine of this kind. */
  readonly template: { readonly load: number; readonly spread: number };
  /** What a load counts in. Days hide how hard it worked: a life in days is the less sure, the shorter it is. */
  readonly counts: 'hours' | 'days';
  /** Oldest first. */
  readonly past: readonly PastInterval[];
  /** Load since the last change. */
  readonly load: number;
  readonly inspections: readonly Inspection[];
}
