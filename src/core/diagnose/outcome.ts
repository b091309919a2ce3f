/** The outcome of a test. */
export type Outcome =
  /** SI: m3/s for a flow, Pa for a pressure, V, Pa for a supply. */
  { readonly kind: 'number'; readonly valueSi: number } | { readonly kind: 'word'; readonly word: string };

/** The expected outcome of a test under one explanation. */
export type Expected =
  /** `relative` is the doubt as a share; below `floor` two readings are alike. */
  | { readonly kind: 'number'; readonly mean: number; readonly relative: number; readonly floor: number }
  | { readonly kind: 'words'; readonly words: Readonly<Record<string, number>> };

/** No look is certain: this share goes to the other words. */
const SLIP = 0.03;

/** Shares that sum to 1, none of them 0. */
export const wordShares = (raw: Readonly<Record<string, number>>): Expected => {
  const words: Record<string, number> = {};
  let [total, count] = [0, 0];
  for (const k in raw) {
    total += Math.max(0, raw[k] ?? 0);
    count += 1;
  }
  for (const k in raw)
    words[k] = SLIP / count + (1 - SLIP) * (total > 0 ? Math.max(0, raw[k] ?? 0) / total : 1 / count);
  return { kind: 'words', words };
};

export const yesNo = (yes: string, no: string, share: number): Expected =>
  wordShares({ [yes]: share, [no]: 1 - share });

/** A reading this far out is a slip of the meter, not of the model: no explanation is ever quite impossible. */
const WILD = 2e-3;
const ROOT_TWO_PI = Math.sqrt(2 * Math.PI);

/** Density of a reading `z` doubts away from its figure, on a logarithm, with a share left for slips. Source: see `likelihood`. Valid: a relative doubt above 0. */
export const figureLikelihood = (z: number, relative: number): number =>
  WILD + Math.exp(-0.5 * z * z) / (relative * ROOT_TWO_PI);

/**
 * How likely an outcome is under what was expected; above 0 always. A number's is a normal density on the logarithm of
 * the reading, level below the floor, with a share left for slips. Source: relative errors of one size are normal on a
 * logarithm (GUM 2008, 4.3); outliers as a share (Press et al., Numerical Recipes, 15.7).
 * Valid: every outcome; a word that was not expected has the share of slips.
 */
export const likelihood = (outcome: Outcome, expected: Expected): number => {
  if (outcome.kind === 'word') return expected.kind === 'words' ? (expected.words[outcome.word] ?? WILD) : 1;
  if (expected.kind !== 'number') return 1;
  return figureLikelihood(
    Math.log((outcome.valueSi + expected.floor) / (expected.mean + expected.floor)) / expected.relative,
    expected.relative,
  );
};
