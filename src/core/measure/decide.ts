export type Decision = 'pass' | 'fail' | 'cannotTell';

/**
 * Guarded acceptance of a result that must be at least a limit: pass when the result less its expanded uncertainty
 * still is, fail when the result plus it is still below, otherwise undecided. Source: JCGM 106:2012, 8.3.2 guarded
 * acceptance. All three in one unit; expanded 0 or more, throws RangeError else.
 */
export const decideAtLeast = (input: { value: number; expanded: number; limit: number }): Decision => {
  const { value, expanded, limit } = input;
  if (!(expanded >= 0)) throw new RangeError(`expanded uncertainty ${expanded} is below 0`);
  if (value - expanded >= limit) return 'pass';
  if (value + expanded < limit) return 'fail';
  return 'cannotTell';
};
