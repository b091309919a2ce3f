import { fail, failure, ok, type Result } from '../failure/failure';
import { type CaseSubject } from './expected';
import type { FaultKind } from './fault';
import {
  foresee,
  type PredictionCache,
  handlingKey,
  likelihoodAt,
  neighboursOf,
  newForesight,
} from './prediction-cache';
import type { Hypothesis } from './hypotheses';
import { type Operation, operationKey } from './operation';
import { type Outcome } from './outcome';
import type { Interventions } from './signature';

/** One thing seen, heard or measured. Struck out, it counts for nothing. */
export interface Evidence {
  readonly operation: Operation;
  readonly outcome: Outcome;
  /** What had been done to the machine by then. */
  readonly interventions: Interventions;
  readonly struck: boolean;
}

/** A fault at a stage, severity aside. */
export interface Cause {
  readonly kind: FaultKind;
  readonly position: number;
}

export interface Case {
  readonly subject: CaseSubject;
  readonly hypotheses: readonly Hypothesis[];
  readonly causes: readonly Cause[];
  /** Index into `causes` of each fault of each hypothesis. */
  readonly causesOf: readonly (readonly number[])[];
  /** For each graded fault of each hypothesis: the hypotheses with the next lesser and the next greater severity. */
  readonly neighbours: readonly (readonly (readonly [lesser: number, greater: number])[])[];
  /** Logarithms of the likelihoods of evidence already weighed. */
  readonly rows: Map<string, Float64Array>;
  readonly predictionCache: PredictionCache;
}

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

const causeKey = ({ kind, position }: Cause): string => `${kind} ${position}`;

/** Opens a case: every explanation, with nothing weighed yet. */
export const openCase = (subject: CaseSubject, hypotheses: readonly Hypothesis[]): Case => {
  const index = new Map<string, number>();
  const causes: Cause[] = [];
  const causesOf = hypotheses.map((h) =>
    h.faults.map((f) => {
      const key = causeKey(f);
      const before = index.get(key);
      if (before !== undefined) return before;
      index.set(key, causes.length);
      return causes.push({ kind: f.kind, position: f.position }) - 1;
    }),
  );
  return {
    subject,
    hypotheses,
    causes,
    causesOf,
    neighbours: neighboursOf(hypotheses),
    rows: new Map(),
    predictionCache: newForesight(),
  };
};

/** The doubts are taken wide so that no true cause is lost; this much sharper, what is told with a probability comes true as often. Tuned on made-up machines. */
export const SHARPNESS = 1.4;

/** A second look at the same thing is no second witness: it counts this much. */
const REPEATED = 0.35;

const evidenceKey = (e: Evidence): string => `${operationKey(e.operation)}/${handlingKey(e.interventions)}`;

const shareOf = (evidence: readonly Evidence[], i: number): number => {
  const e = evidence[i];
  const before = e ? evidence.slice(0, i).some((x) => !x.struck && evidenceKey(x) === evidenceKey(e)) : false;
  return before ? REPEATED : 1;
};

const rowOf = (c: Case, e: Evidence): Float64Array => {
  const key = `${evidenceKey(e)}/${e.outcome.kind === 'number' ? e.outcome.valueSi : e.outcome.word}`;
  const held = c.rows.get(key);
  if (held) return held;
  const column = foresee(c, e.operation, e.interventions);
  const row = Float64Array.from(c.hypotheses, (_, index) => Math.log(likelihoodAt(column, index, e.outcome)));
  c.rows.set(key, row);
  return row;
};

const most = (row: Float64Array): number => row.reduce((a, b) => (b > a ? b : a), Number.NEGATIVE_INFINITY);

const normalised = (logs: Float64Array): Float64Array => {
  const top = most(logs);
  const raw = logs.map((l) => Math.exp(l - top));
  const total = raw.reduce((a, b) => a + b, 0);
  return raw.map((r) => r / total);
};

/** No explanation makes both likely: their best together falls short of their bests apart by more than this many nats. */
const APART = 4.5;

interface Row {
  readonly index: number;
  readonly logs: Float64Array;
}

const contradictionIn = (rows: readonly Row[]): readonly [number, number] | null => {
  let pair: readonly [number, number] | null = null;
  let widest = APART;
  const bests = rows.map((r) => most(r.logs));
  rows.forEach((a, i) => {
    for (let j = i + 1; j < rows.length; j += 1) {
      const b = rows[j];
      if (!b) continue;
      let together = Number.NEGATIVE_INFINITY;
      for (let k = 0; k < a.logs.length; k += 1) together = Math.max(together, (a.logs[k] ?? 0) + (b.logs[k] ?? 0));
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
 * of 0 or more. Returns `stage.unknown` or `path.range` with the piece of evidence. Never divides by zero: no outcome is
 * quite impossible, and what contradicts is told. `told` hears of each piece weighed.
 */
export const weigh = (
  c: Case,
  evidence: readonly Evidence[],
  onProgress: (done: number, of: number) => void = () => undefined,
): Result<Posterior> => {
  const checked = checkEvidence(c, evidence);
  if (!checked.ok) return checked;
  const rows = evidence.flatMap((e, index): readonly Row[] => {
    if (e.struck) return [];
    const logs = rowOf(c, e);
    onProgress(index + 1, evidence.length);
    return [{ index, logs }];
  });
  const logs = Float64Array.from(c.hypotheses, (h) => Math.log(h.prior));
  for (const row of rows) {
    const share = SHARPNESS * shareOf(evidence, row.index);
    for (let k = 0; k < logs.length; k += 1) logs[k] = (logs[k] ?? 0) + share * (row.logs[k] ?? 0);
  }
  const weights = normalised(logs);
  return ok({ weights, ...summed(c, weights), contradiction: contradictionIn(rows) });
};

/** The likeliest explanations, best first. */
export const likeliest = (c: Case, { weights }: Posterior, count: number): readonly Weighed[] =>
  c.hypotheses
    .map((hypothesis, i): Weighed => ({ hypothesis, probability: weights[i] ?? 0 }))
    .sort((a, b) => b.probability - a.probability)
    .slice(0, count);

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
    // Weights without this piece: what it says is told against the rest of the case.
    const l = Math.exp(row[i] ?? 0);
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
