/** Past these shares of a new one's weight a filter is called loaded, or blocked. Moorwind defaults, modelling choices; a plugged one can weigh four times a new one (common practice, no published source). */
export const LOADED_RATIO = 1.5;
export const BLOCKED_RATIO = 3;

/**
 * How a filter's weight stands against a new one's, both kg. Source: common practice, no published source. Valid for
 * masses above 0; weight says nothing of tears.
 */
export const filterWeight = ({
  massKg,
  newMassKg,
}: {
  readonly massKg: number;
  readonly newMassKg: number;
}): { readonly ratio: number; readonly verdict: 'nearNew' | 'loaded' | 'blocked' } => {
  const ratio = massKg / newMassKg;
  return { ratio, verdict: ratio >= BLOCKED_RATIO ? 'blocked' : ratio >= LOADED_RATIO ? 'loaded' : 'nearNew' };
};
