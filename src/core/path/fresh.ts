/** A filter as the indicator check asks after it. */
export interface CheckedFilter {
  readonly name: string;
  readonly missing: boolean;
  /** Share of its interval still to go; null without a rule. */
  readonly remaining: number | null;
}

export type NotReady = { readonly because: 'missing' | 'old' | 'unsaid'; readonly name: string };

/** A filter with less of its interval to go than this is not fresh. A Moorwind default, a modelling choice. */
export const FRESH_ABOVE = 0.5;

/**
 * Obstacles to an indicator check: a loaded bag or filter lights it rightly, and then the check proves nothing. `said`
 * are the filters the technician has just fitted new, by name. Source: common practice, no published source.
 */
export const notReady = (filters: readonly CheckedFilter[], said: ReadonlySet<string>): readonly NotReady[] =>
  filters.flatMap(({ name, missing, remaining }): readonly NotReady[] => {
    if (missing) return [{ because: 'missing', name }];
    if (said.has(name) || (remaining !== null && remaining > FRESH_ABOVE)) return [];
    return [{ because: remaining === null ? 'unsaid' : 'old', name }];
  });
