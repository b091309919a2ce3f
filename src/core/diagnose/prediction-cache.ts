import { expectedIn, handlingOf } from './expected';
import type { Fault } from './fault';
import type { Hypothesis } from './hypotheses';
import type { Variant } from './variants';
import { BIAS, BIAS_STEPS, witnessOf } from './witness';
import { type Operation, operationKey } from './operation';
import { type Expected, figureLikelihood, likelihood, type Outcome } from './outcome';
import type { Interventions, Signature } from './signature';

/** The reading of a test under every explanation, filled on demand. */
export type Column =
  | {
      readonly kind: 'words';
      readonly at: (index: number) => Expected;
      /** The same with the witness this step of its bias off. */
      readonly biasedAt: (index: number, step: number) => Expected;
    }
  | {
      readonly kind: 'numbers';
      /** Logarithm of the figure and its floor. */
      readonly logAt: (index: number) => number;
      /** Doubt as a share, that of the grades of severity included. */
      readonly relativeAt: (index: number) => number;
      /** The same, with a usual grade where its neighbours were never worked out: enough to choose a test by. */
      readonly roughAt: (index: number) => number;
      readonly floor: number;
      /** The least doubt, as a share: that of the reading itself. */
      readonly relative: number;
      /** The part of the doubt that the witness carries into all it reads, as a share; 0 for none. */
      readonly shared: number;
    };

export interface PredictionCache {
  readonly columns: Map<string, Column>;
  readonly signatures: Map<string, (Signature | undefined)[]>;
  /** Explanations on variants of the machine that were in question when the case was last weighed. */
  followed: readonly number[];
}

export const newForesight = (): PredictionCache => ({ columns: new Map(), signatures: new Map(), followed: [] });

/** For each graded fault of an explanation on the fitted machine: the explanations with the next lesser and the next greater severity. */
export type Neighbours = readonly (readonly (readonly [lesser: number, greater: number])[])[];

/** An explanation on a machine that is this variant of itself. */
export interface Explanation extends Hypothesis {
  readonly variant: number;
}

/** Inputs of a prediction. */
export interface Foreseen {
  readonly variants: readonly Variant[];
  readonly hypotheses: readonly Explanation[];
  readonly neighbours: Neighbours;
  readonly predictionCache: PredictionCache;
}

export const handlingKey = ({ out, repairs }: Interventions): string =>
  `${out.join()}/${repairs.map((r) => `${r.kind}${r.position}`).join()}`;

const gradeKey = (f: Fault, severity: number): string => `${f.kind} ${f.position} ${f.node ?? ''} ${severity}`;

/** Chains of three have their own grid. */
const gridKey = (f: Fault, faults: readonly Fault[]): string =>
  `${gradeKey(f, 0)}${faults.length > 2 ? ' in a chain' : ''}`;

const gradesOf = (hypotheses: readonly Hypothesis[]): ReadonlyMap<string, readonly number[]> => {
  const grades = new Map<string, readonly number[]>();
  for (const { faults } of hypotheses) {
    for (const f of faults) {
      const key = gridKey(f, faults);
      const held = grades.get(key) ?? [];
      if (!held.includes(f.severity))
        grades.set(
          key,
          [...held, f.severity].sort((a, b) => a - b),
        );
    }
  }
  return grades;
};

export const neighboursOf = (hypotheses: readonly Hypothesis[]): Neighbours => {
  const keyOf = (faults: readonly Fault[], k: number, severity: number) =>
    faults.map((f, i) => gradeKey(f, i === k ? severity : f.severity)).join('+');
  const index = new Map(hypotheses.map((h, i) => [keyOf(h.faults, -1, 0), i]));
  const grades = gradesOf(hypotheses);
  return hypotheses.map(({ faults }, i) =>
    faults.flatMap((f, k): readonly (readonly [number, number])[] => {
      const all = grades.get(gridKey(f, faults)) ?? [];
      if (all.length < 2) return [];
      const at = all.indexOf(f.severity);
      const found = (severity: number | undefined) =>
        severity === undefined ? i : (index.get(keyOf(faults, k, severity)) ?? i);
      return [[found(all[at - 1]), found(all[at + 1])]];
    }),
  );
};

/** A severity is anywhere between its grade's neighbours: evenly, so its spread is a step over the root of 12. */
const GRADE_SPREAD = 1 / Math.sqrt(12);

/** Usual spread of a reading by the grade of a fault. */
const USUAL_GRADE = 0.07;

const signaturesOf = (f: Foreseen, op: Operation, interventions: Interventions): ((index: number) => Signature) => {
  const handling = f.variants.map(({ subject }) => handlingOf(op, interventions, subject));
  const key = handling[0] ? handlingKey(handling[0]) : '';
  const held = f.predictionCache.signatures.get(key) ?? [];
  f.predictionCache.signatures.set(key, held);
  return (index) =>
    (held[index] ??= signatureIn(f, index, handling[f.hypotheses[index]?.variant ?? 0] ?? interventions));
};

const subjectAt = (f: Foreseen, index: number): Variant['subject'] =>
  (f.variants[f.hypotheses[index]?.variant ?? 0] as Variant).subject;

const signatureIn = (f: Foreseen, index: number, handling: Interventions): Signature =>
  subjectAt(f, index).faultSimulator.signature(f.hypotheses[index]?.faults ?? [], handling);

type SignatureAt = (index: number) => Signature;

const wordsColumn = (f: Foreseen, op: Operation, signatureAt: SignatureAt): Column => {
  const steps: (Expected | undefined)[][] = BIAS_STEPS.map(() => []);
  const witness = witnessOf(op);
  const biasedAt = (index: number, step: number): Expected => {
    const held = (steps[step] ??= []);
    return (held[index] ??= expectedIn(op, signatureAt(index), {
      subject: subjectAt(f, index),
      bias: witness === null ? 1 : Math.exp((BIAS_STEPS[step] ?? 0) * BIAS[witness]),
    }));
  };
  return { kind: 'words', at: (index) => biasedAt(index, UNBIASED), biasedAt };
};

const UNBIASED = 1;

const makeColumn = (f: Foreseen, op: Operation, interventions: Interventions): Column => {
  const signatureAt = signaturesOf(f, op, interventions);
  const { subject } = f.variants[0] as Variant;
  const first = expectedIn(op, subject.faultSimulator.sound, { subject });
  if (first.kind === 'words') return wordsColumn(f, op, signatureAt);
  const { relative, floor } = first;
  const plain = f.hypotheses.length / f.variants.length;
  const logs: (Float64Array | undefined)[] = [];
  const heldOf = (variant: number): Float64Array => (logs[variant] ??= new Float64Array(plain).fill(Number.NaN));
  const logAt = (index: number): number => {
    const variant = Math.floor(index / plain);
    const held = heldOf(variant);
    const before = held[index - variant * plain] ?? 0;
    if (before === before) return before;
    const e = expectedIn(op, signatureAt(index), { subject: subjectAt(f, index) });
    const log = Math.log((e.kind === 'number' ? e.mean : 0) + floor);
    held[index - variant * plain] = log;
    return log;
  };
  // The spread by grade is taken from the fitted machine: its variants give nearly the same.
  const relativeAt = (index: number): number => {
    const own = index % plain;
    let square = relative * relative;
    for (const [lesser, greater] of f.neighbours[own] ?? []) {
      const steps = (lesser === own ? 0 : 1) + (greater === own ? 0 : 1);
      if (steps > 0) square += (((logAt(greater) - logAt(lesser)) * GRADE_SPREAD) / steps) ** 2;
    }
    return Math.sqrt(square);
  };
  const roughAt = (index: number): number => {
    const own = index % plain;
    const fitted = heldOf(0);
    let square = relative * relative;
    for (const [lesser, greater] of f.neighbours[own] ?? []) {
      const steps = (lesser === own ? 0 : 1) + (greater === own ? 0 : 1);
      const span = (fitted[greater] ?? 0) - (fitted[lesser] ?? 0);
      if (steps > 0) square += span === span ? ((span * GRADE_SPREAD) / steps) ** 2 : USUAL_GRADE ** 2;
    }
    return Math.sqrt(square);
  };
  const witness = witnessOf(op);
  return { kind: 'numbers', logAt, relativeAt, roughAt, floor, relative, shared: witness === null ? 0 : BIAS[witness] };
};

/** The result of a test under each explanation after earlier handling; cached. */
export const foresee = (f: Foreseen, op: Operation, interventions: Interventions): Column => {
  const key = `${operationKey(op)}/${handlingKey(interventions)}`;
  const held = f.predictionCache.columns.get(key);
  if (held) return held;
  const made = makeColumn(f, op, interventions);
  f.predictionCache.columns.set(key, made);
  return made;
};

/** Works out a test before it is done, so that its outcome is weighed at once: every explanation on the fitted machine, those followed on its variants. */
export const warm = (f: Foreseen, op: Operation, interventions: Interventions): void => {
  const column = foresee(f, op, interventions);
  const plain = f.hypotheses.length / f.variants.length;
  const look = (index: number) => (column.kind === 'numbers' ? column.relativeAt(index) : column.at(index));
  for (let index = 0; index < plain; index += 1) look(index);
  for (const index of f.predictionCache.followed)
    if (column.kind === 'numbers') column.logAt(index);
    else column.at(index);
};

/** How likely an outcome is under one explanation; above 0 always. Source: as `likelihood`. Valid: an index of the column. */
export const likelihoodAt = (column: Column, index: number, outcome: Outcome): number => {
  if (column.kind === 'words') return likelihood(outcome, column.at(index));
  if (outcome.kind !== 'number') return 1;
  const relative = column.relativeAt(index);
  return figureLikelihood((Math.log(outcome.valueSi + column.floor) - column.logAt(index)) / relative, relative);
};

/** The part of a doubt that its witness's bias does not explain. */
const ownDoubt = (relative: number, shared: number): number => Math.sqrt(Math.max(1e-6, relative ** 2 - shared ** 2));

/**
 * The likelihood with the witness's bias shifted by one step; that bias is then not part of the doubt. Source and Valid
 * as `likelihoodAt`.
 */
export const biasedLikelihoodAt = (
  column: Column,
  { index, step }: { readonly index: number; readonly step: number },
  outcome: Outcome,
): number => {
  if (column.kind === 'words') return likelihood(outcome, column.biasedAt(index, step));
  if (outcome.kind !== 'number') return 1;
  const own = ownDoubt(column.relativeAt(index), column.shared);
  const off = (BIAS_STEPS[step] ?? 0) * column.shared;
  return figureLikelihood((Math.log(outcome.valueSi + column.floor) - column.logAt(index) - off) / own, own);
};

/** The most that any outcome of a test can say for an explanation, nats: words at most that it was certain. Source and Valid as `likelihoodAt`. */
export const mostSaid = (column: Column): number =>
  column.kind === 'words' ? 0 : Math.max(0, Math.log(figureLikelihood(0, ownDoubt(column.relative, column.shared))));
