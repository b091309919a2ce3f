import { fail, failure, ok, type Result } from '../failure/failure';
import { type Case, type Cause, type Evidence } from './case';
import { addTo, type Row, rowOf, type Shared, shareOf, totalsOf } from './evidence-rows';
import type { Hypothesis } from './hypotheses';

export { openCase } from './case';
export type { Case, Cause, Evidence } from './case';

export interface Weighed {
  readonly hypothesis: Hypothesis;
  readonly probability: number;
}

/** A single fault with its probability, over every explanation it is part of. */
export interface FaultProbability extends Cause {
  readonly probability: number;
  /** Mean severity where it is there. */
  readonly severity: number;
}

export interface Posterior {
  readonly weights: Float64Array;
  /** Likeliest first. */
  readonly faults: readonly FaultProbability[];
  /** Probability that something is wrong at each stage, by position. */
  readonly stages: readonly number[];
  readonly nothing: number;
  readonly pair: number;
  /** Two pieces of evidence that cannot both be right, by index; the first to be re-checked first. null where there are none. */
  readonly contradiction: readonly [number, number] | null;
}

const most = (row: Float64Array): number => {
  let top = Number.NEGATIVE_INFINITY;
  for (const log of row) if (log > top) top = log;
  return top;
};

const normalised = (logs: Float64Array): Float64Array => {
  const top = most(logs);
  const raw = logs.map((l) => Math.exp(l - top));
  const total = raw.reduce((a, b) => a + b, 0);
  return raw.map((r) => r / total);
};

/** No explanation makes both likely: their best together falls short of their bests apart by more than this many nats. */
const APART = 4.5;

/** Looked for in every explanation on the fitted machine, and in those on its variants that are still in question. */
const contradictionIn = (rows: readonly Row[], among: readonly number[]): readonly [number, number] | null => {
  let pair: readonly [number, number] | null = null;
  let widest = APART;
  const logs = rows.map((r) => {
    const list = new Float64Array(among.length);
    addTo(list, among, r.logAt);
    return list;
  });
  const bests = logs.map(most);
  rows.forEach((a, i) => {
    for (let j = i + 1; j < rows.length; j += 1) {
      const [b, x, y] = [rows[j], logs[i], logs[j]];
      if (!b || !x || !y) continue;
      let together = Number.NEGATIVE_INFINITY;
      for (let k = 0; k < x.length; k += 1) together = Math.max(together, (x[k] ?? 0) + (y[k] ?? 0));
      const gap = (bests[i] ?? 0) + (bests[j] ?? 0) - together;
      if (gap > widest) {
        pair = [a.index, b.index];
        widest = gap;
      }
    }
  });
  return pair;
};

interface Sums {
  readonly faults: readonly FaultProbability[];
  readonly stages: readonly number[];
  readonly nothing: number;
  readonly pair: number;
}

const summed = (c: Case, weights: Float64Array): Sums => {
  const [sums, severe] = [new Float64Array(c.causes.length), new Float64Array(c.causes.length)];
  const stages = c.subject.faultSimulator.suspect.model.stages.map(() => 0);
  let [nothing, pair] = [0, 0];
  c.hypotheses.forEach(({ faults }, i) => {
    const w = weights[i] ?? 0;
    if (w === 0) return;
    if (faults.length === 0) nothing += w;
    if (faults.length > 1) pair += w;
    faults.forEach((f, k) => {
      const cause = c.causesOf[i]?.[k] ?? 0;
      sums[cause] = (sums[cause] ?? 0) + w;
      severe[cause] = (severe[cause] ?? 0) + w * f.severity;
      if (!faults.slice(0, k).some((x) => x.position === f.position))
        stages[f.position] = (stages[f.position] ?? 0) + w;
    });
  });
  const faults = c.causes.map((cause, i): FaultProbability => {
    const probability = sums[i] ?? 0;
    return { ...cause, probability, severity: probability > 0 ? (severe[i] ?? 0) / probability : 0 };
  });
  return { faults: faults.sort((a, b) => b.probability - a.probability), stages, nothing, pair };
};

const knows = (c: Case, { operation }: Evidence): boolean =>
  !('position' in operation) || c.subject.faultSimulator.suspect.model.stages[operation.position] !== undefined;

const MOST_READING = 1e7;

const checkEvidence = (c: Case, evidence: readonly Evidence[]): Result<true> => {
  const stray = evidence.findIndex((e) => !e.struck && !knows(c, e));
  if (stray >= 0) return fail(failure('stage.unknown', `evidence.${stray}`, { tag: 'This machine' }));
  const wild = evidence.findIndex(
    (e) => !e.struck && e.outcome.kind === 'number' && !(e.outcome.valueSi >= 0 && e.outcome.valueSi < MOST_READING),
  );
  const outcome = evidence[wild]?.outcome;
  if (outcome?.kind === 'number')
    return fail(
      failure('path.range', `evidence.${wild}`, {
        field: 'the reading',
        value: outcome.valueSi,
        low: 0,
        high: MOST_READING,
      }),
    );
  return ok(true);
};

/**
 * Weighs every explanation by the evidence: Bayes' rule on the priors, in logarithms, a repeated look at a discount.
 * Source: Bayes' theorem (Jaynes, Probability Theory, ch. 4). Valid: evidence on stages the machine has, finite numbers
 * of 0 or more. Returns `stage.unknown` or `path.range` with the piece of evidence. Never divides by zero: no outcome
 * has a likelihood of 0, and contradictions are reported. Calls `onProgress` when all is weighed.
 */
export const weigh = (
  c: Case,
  evidence: readonly Evidence[],
  onProgress: (done: number, of: number) => void = () => undefined,
): Result<Posterior> => {
  const checked = checkEvidence(c, evidence);
  if (!checked.ok) return checked;
  const said = evidence.flatMap((e, index): readonly Shared[] =>
    e.struck ? [] : [{ row: rowOf(c, e, index), share: shareOf(evidence, index) }],
  );
  const { totals, among } = totalsOf(c, said);
  onProgress(1, 1);
  const weights = normalised(totals);
  return ok({
    weights,
    ...summed(c, weights),
    contradiction: contradictionIn(
      said.map(({ row }) => row),
      among,
    ),
  });
};

/** The likeliest explanations, best first; the variants of the machine added up. */
export const likeliest = (c: Case, { weights }: Posterior, count: number): readonly Weighed[] => {
  const plain = c.hypotheses.length / c.variants.length;
  return c.hypotheses
    .slice(0, plain)
    .map((hypothesis, i): Weighed => ({
      hypothesis,
      probability: c.variants.reduce((sum, _, v) => sum + (weights[i + v * plain] ?? 0), 0),
    }))
    .sort((a, b) => b.probability - a.probability)
    .slice(0, count);
};

/** How far one piece of evidence moved a fault, in nats: above 0 it speaks for it. Source: Good, Probability and the Weighing of Evidence (1950): the logarithm of the likelihood ratio. Valid: a cause of the case. */
export const weightOfEvidence = (
  c: Case,
  { weights }: Posterior,
  { evidence, cause }: { readonly evidence: Evidence; readonly cause: Cause },
): number => {
  const row = rowOf(c, evidence);
  const key = c.causes.findIndex((x) => x.kind === cause.kind && x.position === cause.position);
  let [withIt, withMass, without, withoutMass] = [0, 0, 0, 0];
  c.causesOf.forEach((causes, i) => {
    // Weights without this piece: its meaning is judged against the rest of the case.
    if ((weights[i] ?? 0) === 0) return;
    const l = Math.exp(row.logAt(i));
    const w = (weights[i] ?? 0) / l;
    if (causes.includes(key)) {
      withIt += w * l;
      withMass += w;
    } else {
      without += w * l;
      withoutMass += w;
    }
  });
  return withMass > 0 && withoutMass > 0 && withIt > 0 && without > 0
    ? Math.log(withIt / withMass) - Math.log(without / withoutMass)
    : 0;
};
