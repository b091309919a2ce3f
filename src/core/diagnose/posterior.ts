import { fail, failure, ok, type Result } from '../failure/failure';
import type { FaultKind } from './fault';
import type { Hypothesis } from './hypotheses';
import { type Operation, sameOperation } from './operation';
import { expectedOf, likelihood, type Outcome, type TestBench } from './outcome';
import { type Signature, signatureOf } from './signature';

/** One thing seen, heard or measured. Struck out, it counts for nothing. */
export interface Evidence {
  readonly operation: Operation;
  readonly outcome: Outcome;
  /** Stages that were out of the machine when it was seen. */
  readonly out: readonly number[];
  /** Stages that had a new part by then. */
  readonly fresh: readonly number[];
  readonly struck: boolean;
}

export interface Case {
  readonly bench: TestBench;
  readonly hypotheses: readonly Hypothesis[];
  readonly signatures: readonly Signature[];
}

export interface Weighed {
  readonly hypothesis: Hypothesis;
  readonly probability: number;
}

/** A single fault with its probability, over every explanation it is part of. */
export interface FaultProbability {
  readonly kind: FaultKind;
  readonly position: number;
  readonly probability: number;
  /** Mean severity where it is there. */
  readonly severity: number;
}

export interface Posterior {
  readonly weights: readonly number[];
  readonly faults: readonly FaultProbability[];
  /** Probability that something is wrong at each stage, by position. */
  readonly stages: readonly number[];
  readonly nothing: number;
  readonly pair: number;
  /** Two pieces of evidence that cannot both be right, by index; the first to be re-checked first. null where there are none. */
  readonly contradiction: readonly [number, number] | null;
}

/** Opens a case: every explanation with what it would read. */
export const openCase = (bench: Omit<TestBench, 'sound' | 'out' | 'fresh'>, hypotheses: readonly Hypothesis[]): Case => {
  const sound = signatureOf(bench.suspect, []);
  return { bench: { ...bench, sound, out: [], fresh: [] }, hypotheses, signatures: hypotheses.map((h) => (h.faults.length === 0 ? sound : signatureOf(bench.suspect, h.faults))) };
};

/** A second look at the same thing is no second witness: it counts this much. */
const REPEATED = 0.35;

const shareOf = (evidence: readonly Evidence[], i: number): number => {
  const e = evidence[i];
  const before = e ? evidence.slice(0, i).some((x) => !x.struck && sameOperation(x.operation, e.operation) && x.out.join() === e.out.join() && x.fresh.join() === e.fresh.join()) : false;
  return before ? REPEATED : 1;
};

const logLikelihoods = (c: Case, e: Evidence): readonly number[] => {
  const bench: TestBench = { ...c.bench, out: e.out, fresh: e.fresh };
  return c.signatures.map((s) => Math.log(likelihood(e.outcome, expectedOf(e.operation, s, bench))));
};

const normalised = (logs: readonly number[]): readonly number[] => {
  const most = logs.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
  const raw = logs.map((l) => Math.exp(l - most));
  const total = raw.reduce((a, b) => a + b, 0);
  return raw.map((r) => r / total);
};

/** No explanation makes both likely: their best together falls short of their bests apart by more than this many nats. */
const APART = 5;

const contradictionIn = (rows: readonly { readonly index: number; readonly logs: readonly number[] }[]): readonly [number, number] | null => {
  let worst: { pair: readonly [number, number]; gap: number } | null = null;
  const best = (logs: readonly number[]) => logs.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
  rows.forEach((a, i) => {
    for (const b of rows.slice(i + 1)) {
      const together = a.logs.reduce((most, l, k) => Math.max(most, l + (b.logs[k] ?? 0)), Number.NEGATIVE_INFINITY);
      const gap = best(a.logs) + best(b.logs) - together;
      if (gap > APART && (worst === null || gap > worst.gap)) worst = { pair: [a.index, b.index], gap };
    }
  });
  return (worst as { pair: readonly [number, number] } | null)?.pair ?? null;
};

const summed = (c: Case, weights: readonly number[]): readonly FaultProbability[] => {
  const sums = new Map<string, { kind: FaultKind; position: number; probability: number; severity: number }>();
  c.hypotheses.forEach((h, i) => {
    for (const f of h.faults) {
      const key = `${f.kind} ${f.position}`;
      const held = sums.get(key) ?? { kind: f.kind, position: f.position, probability: 0, severity: 0 };
      const w = weights[i] ?? 0;
      sums.set(key, { ...held, probability: held.probability + w, severity: held.severity + w * f.severity });
    }
  });
  return [...sums.values()].map((f) => ({ ...f, severity: f.probability > 0 ? f.severity / f.probability : 0 })).sort((a, b) => b.probability - a.probability);
};

const knows = (c: Case, { operation }: Evidence): boolean => !('position' in operation) || c.bench.suspect.model.stages[operation.position] !== undefined;

/**
 * Weighs every explanation by the evidence: Bayes' rule on the priors, in logarithms, a repeated look at a discount.
 * Source: Bayes' theorem (Jaynes, Probability Theory, ch. 4). Valid: evidence on stages the machine has, finite numbers
 * of 0 or more. Returns `stage.unknown` or `path.range` with the piece of evidence. Never divides by zero: no outcome is
 * quite impossible, and what contradicts is told.
 */
export const weigh = (c: Case, evidence: readonly Evidence[]): Result<Posterior> => {
  const stray = evidence.findIndex((e) => !e.struck && !knows(c, e));
  if (stray >= 0) return fail(failure('stage.unknown', `evidence.${stray}`, { tag: 'This machine' }));
  const wild = evidence.findIndex((e) => !e.struck && e.outcome.kind === 'number' && !(e.outcome.valueSi >= 0 && e.outcome.valueSi < 1e7));
  if (wild >= 0) return fail(failure('path.range', `evidence.${wild}`, { field: 'reading', value: Number.NaN, low: 0, high: 1e7 }));
  const rows = evidence.flatMap((e, index) => (e.struck ? [] : [{ index, logs: logLikelihoods(c, e) }]));
  const logs = c.hypotheses.map((h, k) => rows.reduce((sum, r) => sum + shareOf(evidence, r.index) * (r.logs[k] ?? 0), Math.log(h.prior)));
  const weights = normalised(logs);
  const faults = summed(c, weights);
  const stages = c.bench.suspect.model.stages.map((_, position) => c.hypotheses.reduce((sum, h, i) => (h.faults.some((f) => f.position === position) ? sum + (weights[i] ?? 0) : sum), 0));
  return ok({
    weights,
    faults,
    stages,
    nothing: c.hypotheses.reduce((sum, h, i) => (h.faults.length === 0 ? sum + (weights[i] ?? 0) : sum), 0),
    pair: c.hypotheses.reduce((sum, h, i) => (h.faults.length === 2 ? sum + (weights[i] ?? 0) : sum), 0),
    contradiction: contradictionIn(rows),
  });
};

/** The likeliest explanations, best first. */
export const likeliest = (c: Case, { weights }: Posterior, count: number): readonly Weighed[] =>
  c.hypotheses.map((hypothesis, i): Weighed => ({ hypothesis, probability: weights[i] ?? 0 })).sort((a, b) => b.probability - a.probability).slice(0, count);
