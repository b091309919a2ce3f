import { expectedIn, handlingOf, type CaseSubject } from './expected';
import type { Fault } from './fault';
import type { Hypothesis } from './hypotheses';
import { type Operation, operationKey } from './operation';
import { type Expected, figureLikelihood, likelihood, type Outcome } from './outcome';
import type { Interventions, Signature } from './signature';

/** What every explanation makes a test read, filled as it is asked. */
export type Column =
  | { readonly kind: 'words'; readonly at: (index: number) => Expected }
  | {
      readonly kind: 'numbers';
      /** Logarithm of the figure and its floor. */
      readonly logAt: (index: number) => number;
      /** Doubt as a share, that of the grades of severity included. */
      readonly relativeAt: (index: number) => number;
      /** The same, with a usual grade where its neighbours were never worked out: enough to choose a test by. */
      readonly roughAt: (index: number) => number;
      readonly floor: number;
    };

export interface PredictionCache {
  readonly columns: Map<string, Column>;
  readonly signatures: Map<string, (Signature | undefined)[]>;
}

export const newForesight = (): PredictionCache => ({ columns: new Map(), signatures: new Map() });

/** For each graded fault of an explanation: the explanations with the next lesser and the next greater severity. */
export type Neighbours = readonly (readonly (readonly [lesser: number, greater: number])[])[];

/** What a foresight is made of. */
export interface Foreseen {
  readonly subject: CaseSubject;
  readonly hypotheses: readonly Hypothesis[];
  readonly neighbours: Neighbours;
  readonly predictionCache: PredictionCache;
}

export const handlingKey = ({ out, repairs }: Interventions): string =>
  `${out.join()}/${repairs.map((r) => `${r.kind}${r.position}`).join()}`;

const gradeKey = (f: Fault, severity: number): string => `${f.kind} ${f.position} ${f.node ?? ''} ${severity}`;

/** Chains of three stand on a grid of their own. */
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

/** What a grade usually spreads a reading by. */
const USUAL_GRADE = 0.07;

const signaturesOf = (
  { subject, hypotheses, predictionCache }: Foreseen,
  interventions: Interventions,
): ((index: number) => Signature) => {
  const key = handlingKey(interventions);
  const held = predictionCache.signatures.get(key) ?? [];
  predictionCache.signatures.set(key, held);
  return (index) => (held[index] ??= subject.faultSimulator.signature(hypotheses[index]?.faults ?? [], interventions));
};

const makeColumn = (f: Foreseen, op: Operation, interventions: Interventions): Column => {
  const signatureAt = signaturesOf(f, handlingOf(op, interventions, f.subject));
  const first = expectedIn(op, f.subject.faultSimulator.sound, f.subject);
  if (first.kind === 'words') {
    const words: (Expected | undefined)[] = [];
    return { kind: 'words', at: (index) => (words[index] ??= expectedIn(op, signatureAt(index), f.subject)) };
  }
  const { relative, floor } = first;
  const logs = new Float64Array(f.hypotheses.length).fill(Number.NaN);
  const logAt = (index: number): number => {
    const held = logs[index] ?? 0;
    if (held === held) return held;
    const e = expectedIn(op, signatureAt(index), f.subject);
    const log = Math.log((e.kind === 'number' ? e.mean : 0) + floor);
    logs[index] = log;
    return log;
  };
  const relativeAt = (index: number): number => {
    let square = relative * relative;
    for (const [lesser, greater] of f.neighbours[index] ?? []) {
      const steps = (lesser === index ? 0 : 1) + (greater === index ? 0 : 1);
      if (steps > 0) square += (((logAt(greater) - logAt(lesser)) * GRADE_SPREAD) / steps) ** 2;
    }
    return Math.sqrt(square);
  };
  const roughAt = (index: number): number => {
    let square = relative * relative;
    for (const [lesser, greater] of f.neighbours[index] ?? []) {
      const steps = (lesser === index ? 0 : 1) + (greater === index ? 0 : 1);
      const span = (logs[greater] ?? 0) - (logs[lesser] ?? 0);
      if (steps > 0) square += span === span ? ((span * GRADE_SPREAD) / steps) ** 2 : USUAL_GRADE ** 2;
    }
    return Math.sqrt(square);
  };
  return { kind: 'numbers', logAt, relativeAt, roughAt, floor };
};

/** What a test gives under each explanation after some handling; kept, so that nothing is worked out twice. */
export const foresee = (f: Foreseen, op: Operation, interventions: Interventions): Column => {
  const key = `${operationKey(op)}/${handlingKey(interventions)}`;
  const held = f.predictionCache.columns.get(key);
  if (held) return held;
  const made = makeColumn(f, op, interventions);
  f.predictionCache.columns.set(key, made);
  return made;
};

/** Works out a test under every explanation before it is done, so that its outcome is weighed at once. */
export const warm = (f: Foreseen, op: Operation, interventions: Interventions): void => {
  const column = foresee(f, op, interventions);
  f.hypotheses.forEach((_, i) => (column.kind === 'numbers' ? column.relativeAt(i) : column.at(i)));
};

/** How likely an outcome is under one explanation; above 0 always. Source: as `likelihood`. Valid: an index of the column. */
export const likelihoodAt = (column: Column, index: number, outcome: Outcome): number => {
  if (column.kind === 'words') return likelihood(outcome, column.at(index));
  if (outcome.kind !== 'number') return 1;
  const relative = column.relativeAt(index);
  return figureLikelihood((Math.log(outcome.valueSi + column.floor) - column.logAt(index)) / relative, relative);
};
