import { fail, failure, ok, type Result } from '../failure/failure';

/** What no routine test may be made on, by a word of what was collected. Source: HSE and OSHA practice; licensed work stays with those licensed. */
const REFUSED: readonly (readonly [RegExp, string])[] = [
  [/asbestos/i, 'asbestos'],
  [/unknown lead|lead, unknown/i, 'lead of unknown amount'],
  [/alumin|magnesium|titanium|metal fines|energetic/i, 'fine metal that can burn or explode'],
];

/** The hazard question first: refuses a case on what only licensed people may open. Returns `case.refused` with the reason. */
export const hazardGate = (lastCollected: string): Result<true> => {
  const found = REFUSED.find(([word]) => word.test(lastCollected));
  return found ? fail(failure('case.refused', 'lastCollected', { what: found[1] })) : ok(true);
};
