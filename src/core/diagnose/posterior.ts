import { fail, failure, ok, type Result } from '../failure/failure';
import { type CaseSubject } from './expected';
import type { FaultKind } from './fault';
import {
  biasedLikelihoodAt,
  type Explanation,
  foresee,
  type PredictionCache,
  handlingKey,
  likelihoodAt,
  neighboursOf,
  newForesight,
} from './prediction-cache';
import type { Hypothesis } from './hypotheses';
import { type Variant, variantsOf } from './variants';
import { BIAS_STEPS, BIAS_WEIGHTS, type Witness, WITNESSES, witnessOf } from './witness';
import { type Operation, operationKey, sameOperation } from './operation';
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
  /** The machine as its model was fitted. */
  readonly subject: CaseSubject;
  /** The ways it may be when sound; the first is `subject`. */
  readonly variants: readonly Variant[];
  /** Every explanation on every variant of the machine: those of the first variant first. */
  readonly hypotheses: readonly Explanation[];
  readonly causes: readonly Cause[];
  /** Index into `causes` of each fault of each hypothesis. */
  readonly causesOf: readonly (readonly number[])[];
  readonly logPriors: Float64Array;
  /** For each graded fault of each hypothesis on the first variant: the hypotheses with the next lesser and the next greater severity. */
  readonly neighbours: readonly (readonly (readonly [lesser: number, greater: number])[])[];
  /** Logarithms of the likelihoods of evidence already weighed: as it is, or for each step of its witness's bias. NaN where not asked yet. */
  readonly rows: Map<string, readonly Float64Array[]>;
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

/** Opens a case: every explanation on every variant of the machine, with nothing weighed yet. */
export const openCase = (subject: CaseSubject, plain: readonly Hypothesis[]): Case => {
  const variants = variantsOf(subject);
  const hypotheses = variants.flatMap(({ share }, variant) =>
    plain.map((h): Explanation => ({ faults: h.faults, prior: h.prior * share, variant })),
  );
  const index = new Map<string, number>();
  const causes: Cause[] = [];
  const own = plain.map((h) =>
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
    variants,
    hypotheses,
    causes,
    causesOf: variants.flatMap(() => own),
    logPriors: Float64Array.from(hypotheses, (h) => Math.log(h.prior)),
    neighbours: neighboursOf(plain),
    rows: new Map(),
    predictionCache: newForesight(),
  };
};

/** A second look that says the same again is no second witness, a repair elsewhere between them or not: it counts this much. */
const REPEATED = 0.35;

const evidenceKey = (e: Evidence): string => `${operationKey(e.operation)}/${handlingKey(e.interventions)}`;

/** What a meter reads again is for its own bias to answer; the drop across a stage is as far off as it was. */
const SAME_DROP = 0.25;

const saysTheSame = (a: Outcome, b: Outcome, kind: Operation['kind']): boolean =>
  a.kind === 'word' && b.kind === 'word'
    ? a.word === b.word
    : a.kind === 'number' && b.kind === 'number' && kind === 'stageDp'
      ? Math.abs(a.valueSi - b.valueSi) <= SAME_DROP * Math.max(a.valueSi, b.valueSi)
      : false;

const shareOf = (evidence: readonly Evidence[], i: number): number => {
  const e = evidence[i];
  if (!e) return 1;
  const again = (x: Evidence): boolean =>
    evidenceKey(x) === evidenceKey(e) ||
    (sameOperation(x.operation, e.operation) && saysTheSame(x.outcome, e.outcome, e.operation.kind));
  return evidence.slice(0, i).some((x) => !x.struck && again(x)) ? REPEATED : 1;
};

/** One piece of evidence as the explanations see it. */
interface Row {
  readonly index: number;
  readonly witness: Witness | null;
  /** By itself, whatever its witness's bias. */
  readonly logAt: (k: number) => number;
  /** With its witness one step off. */
  readonly stepAt: (k: number, step: number) => number;
}

const rowOf = (c: Case, e: Evidence, index = 0): Row => {
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
    const row = held[step] ?? (held[0] as Float64Array);
    const before = row[k] ?? 0;
    if (before === before) return before;
    const log = Math.log(
      witness === null ? likelihoodAt(column, k, e.outcome) : biasedLikelihoodAt(column, k, e.outcome, step),
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
  return { index, witness, logAt, stepAt };
};

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

interface Shared {
  readonly row: Row;
  /** How much it counts. */
  readonly share: number;
}

const addTo = (totals: Float64Array, among: readonly number[], of: (k: number) => number): void => {
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

/** So many explanations are followed on every variant of the machine; the rest on the fitted one only. */
const FOLLOWED = 500;
/** How much of what speaks on the fitted machine is believed in choosing them: another variant may see it otherwise. */
const BELIEVED = 0.6;

/** Weights of all explanations before they are made to sum to 1, as logarithms; and the indices of those that are followed. */
const totalsOf = (
  c: Case,
  said: readonly Shared[],
): { readonly totals: Float64Array; readonly among: readonly number[] } => {
  const plain = c.hypotheses.length / c.variants.length;
  const base = Array.from({ length: plain }, (_, k) => k);
  const own = likelihoodsOf(said, base);
  const priors = c.logPriors;
  const scores = own.map((log, k) => (priors[k] ?? 0) + BELIEVED * log);
  const ranked = [...base].sort((a, b) => (scores[b] ?? 0) - (scores[a] ?? 0));
  const [followed, rest] = [ranked.slice(0, FOLLOWED), ranked.slice(FOLLOWED)];
  const totals = new Float64Array(c.hypotheses.length).fill(Number.NEGATIVE_INFINITY);
  const fitted = Math.log(c.variants[0]?.share ?? 1);
  for (const k of followed) totals[k] = (priors[k] ?? 0) + (own[k] ?? 0);
  // What is not followed stands for all its variants.
  for (const k of rest) totals[k] = (priors[k] ?? 0) - fitted + (own[k] ?? 0);
  const others = c.variants.flatMap((_, v) => (v === 0 ? [] : followed.map((k) => k + v * plain)));
  c.predictionCache.followed = others;
  const theirs = likelihoodsOf(said, others);
  others.forEach((k, i) => {
    totals[k] = (priors[k] ?? 0) + (theirs[i] ?? 0);
  });
  return { totals, among: [...base, ...others] };
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
    // Weights without this piece: what it says is told against the rest of the case.
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
