import { type CaseSubject } from './expected';
import type { FaultKind } from './fault';
import { type Explanation, newForesight, neighboursOf, type PredictionCache } from './prediction-cache';
import type { Hypothesis } from './hypotheses';
import { type Operation } from './operation';
import { type Outcome } from './outcome';
import type { Interventions } from './signature';
import { type Variant, variantsOf } from './variants';

/** One thing seen, heard or measured. Struck out, it counts for nothing. */
export interface Evidence {
  readonly operation: Operation;
  readonly outcome: Outcome;
  /** Earlier actions on the machine at that time. */
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
  /**
   * Logarithms of the likelihoods of evidence already weighed: without bias, or for each step of its witness's bias.
   * NaN: not computed yet.
   */
  readonly rows: Map<string, readonly Float64Array[]>;
  readonly predictionCache: PredictionCache;
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
