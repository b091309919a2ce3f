import { type Case, type Evidence } from './case';
import { type Operation, operationKey, sameOperation } from './operation';
import { type Outcome } from './outcome';
import { biasedLikelihoodAt, foresee, handlingKey, likelihoodAt, mostSaid } from './prediction-cache';
import { BIAS_STEPS, BIAS_WEIGHTS, type Witness, WITNESSES, witnessOf } from './witness';

// What each piece of evidence makes of every explanation, and all of it together, as logarithms.

/**
 * Weight of a second look that repeats the first, also with a repair elsewhere between them: it is not an independent
 * witness.
 */
const REPEATED = 0.35;

const evidenceKey = (e: Evidence): string => `${operationKey(e.operation)}/${handlingKey(e.interventions)}`;

/** Weight of a repeated drop across a stage: the meter's bias explains a repeated reading. */
const SAME_DROP = 0.25;

const saysTheSame = (a: Outcome, b: Outcome, kind: Operation['kind']): boolean =>
  a.kind === 'word' && b.kind === 'word'
    ? a.word === b.word
    : a.kind === 'number' && b.kind === 'number' && kind === 'stageDp'
      ? Math.abs(a.valueSi - b.valueSi) <= SAME_DROP * Math.max(a.valueSi, b.valueSi)
      : false;

/** How much a piece of evidence counts, 0 to 1: less where it says again what was said before. Choice: a Moorwind default, a modelling choice. Valid: an index of the evidence. */
export const shareOf = (evidence: readonly Evidence[], i: number): number => {
  const e = evidence[i];
  if (!e) return 1;
  const again = (x: Evidence): boolean =>
    evidenceKey(x) === evidenceKey(e) ||
    (sameOperation(x.operation, e.operation) && saysTheSame(x.outcome, e.outcome, e.operation.kind));
  return evidence.slice(0, i).some((x) => !x.struck && again(x)) ? REPEATED : 1;
};

/** One piece of evidence as the explanations see it. */
export interface Row {
  readonly index: number;
  readonly witness: Witness | null;
  /** The most it can say for any explanation, nats. */
  readonly most: number;
  /** Without its witness's bias. */
  readonly logAt: (k: number) => number;
  /** With its witness one step off. */
  readonly stepAt: (k: number, step: number) => number;
}

export const rowOf = (c: Case, e: Evidence, index = 0): Row => {
  const key = `${evidenceKey(e)}/${e.outcome.kind === 'number' ? e.outcome.valueSi : e.outcome.word}`;
  const witness = witnessOf(e.operation);
  const held =
    c.rows.get(key) ??
    Array.from({ length: witness === null ? 1 : BIAS_STEPS.length + 1 }, () =>
      new Float64Array(c.hypotheses.length).fill(Number.NaN),
    );
  c.rows.set(key, held);
  const column = foresee(c, e.operation, e.interventions);
  const stepAt = (k: number, step: number): number => {
    const row = held[witness === null ? 0 : step];
    if (!row) return 0;
    const before = row[k] ?? 0;
    if (before === before) return before;
    const log = Math.log(
      witness === null ? likelihoodAt(column, k, e.outcome) : biasedLikelihoodAt(column, { index: k, step }, e.outcome),
    );
    row[k] = log;
    return log;
  };
  const together = held[BIAS_STEPS.length];
  const logAt = (k: number): number => {
    if (!together) return stepAt(k, 0);
    const before = together[k] ?? 0;
    if (before === before) return before;
    let sum = 0;
    for (let step = 0; step < BIAS_STEPS.length; step += 1)
      sum += (BIAS_WEIGHTS[step] ?? 0) * Math.exp(stepAt(k, step));
    return (together[k] = Math.log(sum));
  };
  return { index, witness, most: mostSaid(column), logAt, stepAt };
};

export interface Shared {
  readonly row: Row;
  /** Its weight. */
  readonly share: number;
}

export const addTo = (totals: Float64Array, among: readonly number[], of: (k: number) => number): void => {
  for (let i = 0; i < among.length; i += 1) totals[i] = (totals[i] ?? 0) + of(among[i] ?? 0);
};

/** Logarithm of the mean over a witness's bias of all it said. */
const ofWitness = (said: readonly Shared[]): ((k: number) => number) => {
  const logs = new Float64Array(BIAS_STEPS.length);
  return (k) => {
    logs.fill(0);
    for (const { row, share } of said)
      for (let step = 0; step < logs.length; step += 1) logs[step] = (logs[step] ?? 0) + share * row.stepAt(k, step);
    const top = Math.max(logs[0] ?? 0, logs[1] ?? 0, logs[2] ?? 0);
    let sum = 0;
    for (let step = 0; step < logs.length; step += 1)
      sum += (BIAS_WEIGHTS[step] ?? 0) * Math.exp((logs[step] ?? 0) - top);
    return top + Math.log(sum);
  };
};

/** What all that was seen makes of some explanations: logarithms, their priors apart. */
const likelihoodsOf = (said: readonly Shared[], among: readonly number[]): Float64Array => {
  const totals = new Float64Array(among.length);
  for (const { row, share } of said) if (row.witness === null) addTo(totals, among, (k) => share * row.logAt(k));
  for (const witness of WITNESSES) {
    const his = said.filter(({ row }) => row.witness === witness);
    if (his.length > 0) addTo(totals, among, ofWitness(his));
  }
  return totals;
};

/** The number of explanations followed on every variant of the machine; the rest only on the fitted one. */
const FOLLOWED = 500;
/** Share of the evidence on the fitted machine that chooses them: another variant may disagree. */
const BELIEVED = 0.6;
/** Explanations more than this many nats behind the best are dropped, by prior and by total evidence. */
const FAR = { believed: 8, said: 12 } as const;
/** The number weighed by all evidence first, for a lower bound of the best. */
const BEAM = 100;

interface Standing {
  readonly indices: readonly number[];
  /** Logarithms of the likelihood so far, in the order of the indices. */
  readonly logs: Float64Array;
}

const mostOf = (list: readonly number[]): number => list.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);

/**
 * The explanations on the fitted machine that what was said leaves standing. One is left out as soon as not even the
 * best that the rest could say of it would bring it near: what it makes of the rest is then never worked out.
 */
const standingOf = (c: Case, said: readonly Shared[]): Standing => {
  const prior = (k: number) => c.logPriors[k] ?? 0;
  let indices: readonly number[] = Array.from({ length: c.hypotheses.length / c.variants.length }, (_, k) => k);
  for (let n = 2; n < said.length; n += 2) {
    const logs = likelihoodsOf(said.slice(0, n), indices);
    const gain = said.slice(n).reduce((sum, { row, share }) => sum + share * row.most, 0);
    const order = indices.map((_, i) => i);
    const scores = indices.map((k, i) => prior(k) + BELIEVED * (logs[i] ?? 0));
    const beam = order
      .sort((a, b) => (scores[b] ?? 0) - (scores[a] ?? 0))
      .slice(0, BEAM)
      .map((i) => indices[i] ?? 0);
    const whole = likelihoodsOf(said, beam);
    const believed = mostOf(beam.map((k, i) => prior(k) + BELIEVED * (whole[i] ?? 0))) - FAR.believed;
    const full = mostOf(beam.map((k, i) => prior(k) + (whole[i] ?? 0))) - FAR.said;
    indices = indices.filter(
      (k, i) => (scores[i] ?? 0) + BELIEVED * gain > believed || prior(k) + (logs[i] ?? 0) + gain > full,
    );
  }
  return { indices, logs: likelihoodsOf(said, indices) };
};

/** Weights of all explanations before they are made to sum to 1, as logarithms; and the indices of those that are followed. */
export const totalsOf = (
  c: Case,
  said: readonly Shared[],
): { readonly totals: Float64Array; readonly among: readonly number[] } => {
  const plain = c.hypotheses.length / c.variants.length;
  const { indices, logs } = standingOf(c, said);
  const priors = c.logPriors;
  const standing = indices
    .map((k, i) => ({ k, own: logs[i] ?? 0, score: (priors[k] ?? 0) + BELIEVED * (logs[i] ?? 0) }))
    .sort((a, b) => b.score - a.score);
  const near = (standing[0]?.score ?? 0) - FAR.believed;
  const followed = standing.slice(0, FOLLOWED).filter(({ score }) => score > near);
  const totals = new Float64Array(c.hypotheses.length).fill(Number.NEGATIVE_INFINITY);
  const fitted = Math.log(c.variants[0]?.share ?? 1);
  // An explanation that is not followed represents all its variants.
  standing.forEach(({ k, own }, i) => {
    totals[k] = (priors[k] ?? 0) - (i < followed.length ? 0 : fitted) + own;
  });
  const others = c.variants.flatMap((_, v) => (v === 0 ? [] : followed.map(({ k }) => k + v * plain)));
  c.predictionCache.followed = others;
  const theirs = likelihoodsOf(said, others);
  others.forEach((k, i) => {
    totals[k] = (priors[k] ?? 0) + (theirs[i] ?? 0);
  });
  return { totals, among: [...indices, ...others] };
};
