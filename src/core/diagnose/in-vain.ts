import { type Complaint, inBand, measuresOf } from './complaint';
import { type CaseSubject, expectedOf } from './expected';
import { type Operation, sameOperation } from './operation';
import type { Evidence } from './posterior';
import { type Repair } from './repair';
import { type Interventions, UNTOUCHED } from './signature';

/** The part of a case's progress that repairs are judged by. */
interface Repaired {
  readonly complaint: Complaint;
  readonly interventions: Interventions;
  readonly evidence: readonly Evidence[];
}

/** A flow that rises by less than this share has not changed: two readings of a meter differ by as much. A modelling choice. */
const SAME_FLOW = 0.1;

/** So many repairs in a row that changed nothing: none of the known causes fits. Source: common practice, no published source. */
export const VAIN_REPAIRS = 2;

const sameRepair = (a: Repair, b: Repair | undefined): boolean => a.kind === b?.kind && a.position === b.position;

/** Evidence that was taken with exactly these repairs done. */
const takenAt = (evidence: readonly Evidence[], repairs: readonly Repair[]): readonly Evidence[] =>
  evidence.filter(
    (e) =>
      !e.struck &&
      e.interventions.repairs.length === repairs.length &&
      repairs.every((r, i) => sameRepair(r, e.interventions.repairs[i])),
  );

const rose = ({ from, to }: { readonly from: Evidence; readonly to: Evidence }): boolean =>
  from.outcome.kind === 'number' &&
  to.outcome.kind === 'number' &&
  to.outcome.valueSi > (1 + SAME_FLOW) * from.outcome.valueSi;

/**
 * Repairs in a row, up to the newest, after which the complaint's own measures were as before. A repair whose fault was
 * seen is not counted: it put something right, and another fault keeps the complaint. Returns a number of repairs, 0 or
 * more. Definition: readings of the complaint's own measures before and after each repair. Valid: any progress.
 */
export const repairsInVain = (subject: CaseSubject, progress: Repaired): number => {
  const { evidence, interventions } = progress;
  const measures = measuresOf(progress.complaint, subject.traits);
  const isBack = (e: Evidence): boolean => {
    const sound = expectedOf(e.operation, [], { interventions: UNTOUCHED, subject });
    return inBand(e.operation, e.outcome, sound.kind === 'number' ? sound.mean : 0);
  };
  const seenThere = ({ position }: Repair): boolean =>
    evidence.some(
      ({ operation, outcome, struck }) =>
        !struck &&
        operation.kind === 'found' &&
        operation.position === position &&
        outcome.kind === 'word' &&
        outcome.word === 'yes',
    );
  let count = 0;
  interventions.repairs.forEach((repair, i) => {
    const earlier = interventions.repairs.slice(0, i);
    const after = takenAt(evidence, [...earlier, repair]);
    const newest = (list: readonly Evidence[], m: Operation) => list.findLast((e) => sameOperation(e.operation, m));
    const compared = measures.flatMap((m) => {
      const now = newest(after, m);
      const before = Array.from({ length: i + 1 }, (_, k) =>
        newest(takenAt(evidence, interventions.repairs.slice(0, i - k)), m),
      ).find((e) => e !== undefined);
      return now && before ? [{ now, before }] : [];
    });
    if (compared.length === 0) return;
    const helped = compared.some(
      ({ now, before }) => !isBack(before) && (isBack(now) || rose({ from: before, to: now })),
    );
    const vain = !helped && !seenThere(repair) && compared.some(({ now }) => !isBack(now));
    count = vain ? count + 1 : 0;
  });
  return count;
};
