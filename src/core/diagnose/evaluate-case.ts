import { ok, type Result } from '../failure/failure';
import { type Advice, adviceOf } from './closing';
import { type Complaint, inBand, measuresOf } from './complaint';
import { expectedOf, type CaseSubject } from './expected';
import { essentialStage, mayRun } from '../machine/essential';
import { repairsInVain } from './in-vain';
import { lossesOf } from './loss';
import { type Proposal, proposals } from './next-test';
import {
  type HazardLevel,
  type Operation,
  OPERATION_FACTS,
  operationKey,
  priceOf,
  sameOperation,
  type TestState,
} from './operation';
import { type Case, type Evidence, type Posterior, weigh } from './posterior';
import type { Repair } from './repair';
import { type Interventions, UNTOUCHED } from './signature';
import { standingStages } from './within';

/** The progress of a case. */
export interface Progress {
  readonly complaint: Complaint;
  readonly hazard: HazardLevel;
  /** State the machine is in now. */
  readonly state: TestState;
  readonly interventions: Interventions;
  readonly evidence: readonly Evidence[];
  /** Tests the technician would rather not do. */
  readonly skipped: readonly Operation[];
  /** A new part is in on trial: what tells whether it was that is asked until it is answered. */
  readonly trialOn?: boolean | undefined;
}

export interface CaseEvaluation {
  readonly posterior: Posterior;
  /** Best first. */
  readonly ranked: readonly Proposal[];
  readonly advice: Advice;
  /** Every measure of the complaint is in its band since the last repair. */
  readonly back: boolean;
  /** Repairs in a row that changed nothing. */
  readonly inVain: number;
  /** A measure of the complaint that has not been taken since the last repair. */
  readonly pending: Operation | null;
}

/** Share of the work that is weighing the evidence; the rest is choosing the next test. */
const EVIDENCE_PART = 0.7;

const sameRepairs = (a: readonly Repair[], b: readonly Repair[]): boolean =>
  a.length === b.length && a.every((r, i) => r.kind === b[i]?.kind && r.position === b[i].position);

/** Evidence about the present machine: taken since the last repair, with the same parts out as now. */
const current = ({ evidence, interventions }: Progress): readonly Evidence[] =>
  evidence.filter(
    (e) =>
      !e.struck &&
      sameRepairs(e.interventions.repairs, interventions.repairs) &&
      e.interventions.out.join() === interventions.out.join(),
  );

/** State of the complaint's own measures: all back in their band, and the next one to repeat since the last repair. */
export const measuresNow = (
  subject: CaseSubject,
  progress: Progress,
): {
  readonly back: boolean;
  readonly pending: Operation | null;
  /** One of them was not taken since the last repair, nor will be: it was put aside. */
  readonly unanswered: boolean;
} => {
  const measures = measuresOf(progress.complaint, subject.traits);
  const now = current(progress);
  const aside = progress.trialOn === true ? [] : progress.skipped;
  // Settings that were right stay right through a repair; everything else is measured again.
  const held = (m: Operation) =>
    m.kind === 'settings'
      ? progress.evidence.find((e) => !e.struck && sameOperation(e.operation, m) && inBand(m, e.outcome, 0))
      : undefined;
  const newest = measures.map((m) => held(m) ?? now.findLast((e) => sameOperation(e.operation, m)) ?? null);
  const pending = measures.find((m, i) => newest[i] === null && !aside.some((s) => sameOperation(s, m))) ?? null;
  const back = newest.every((e) => {
    if (!e) return false;
    const sound = expectedOf(e.operation, [], { interventions: UNTOUCHED, subject });
    return inBand(e.operation, e.outcome, sound.kind === 'number' ? sound.mean : 0);
  });
  return { back, pending, unanswered: newest.some((e) => e === null) };
};

/** A measure that contradicts an otherwise finished case is repeated once before the case is handed on. */
const onceOff = (subject: CaseSubject, progress: Progress): Operation | null => {
  const now = current(progress);
  return (
    measuresOf(progress.complaint, subject.traits).find((m) => {
      const taken = now.filter((e) => sameOperation(e.operation, m));
      const [only] = taken;
      if (taken.length !== 1 || !only) return false;
      const sound = expectedOf(m, [], { interventions: UNTOUCHED, subject });
      return !inBand(m, only.outcome, sound.kind === 'number' ? sound.mean : 0);
    }) ?? null
  );
};

/** Whether the newest flow at the tool is below its band: air is lacking. */
const lacksAir = (subject: CaseSubject, progress: Progress): boolean => {
  const flow: Operation = { kind: 'flow', place: 'toolEnd' };
  const taken = current(progress).findLast((e) => sameOperation(e.operation, flow));
  if (!taken) return false;
  const sound = expectedOf(flow, [], { interventions: UNTOUCHED, subject });
  return sound.kind === 'number' && !inBand(flow, taken.outcome, sound.mean);
};

/**
 * The settings are looked at once before a repair, and before the machine is opened, where air is lacking: speed,
 * selector, bleed and slide gate take half a minute, and nothing is opened. Source: common practice, no published source.
 */
const settingsFirst = (
  subject: CaseSubject,
  { judged, progress }: { readonly judged: Advice; readonly progress: Progress },
): Operation | null => {
  const opens =
    judged.kind === 'repair'
      ? judged.repair.kind !== 'settings'
      : judged.kind === 'test' && OPERATION_FACTS[judged.proposal.operation.kind].state === 'open';
  if (!opens || progress.state === 'open') return null;
  const looked = [...progress.evidence.filter((e) => !e.struck).map((e) => e.operation), ...progress.skipped];
  return looked.some((op) => op.kind === 'settings') || !lacksAir(subject, progress) ? null : { kind: 'settings' };
};

/** Before a fan goes for service its settings are looked at a second time: a look misses a bleed slid open now and then, and the fan is dear. */
const lookedOnce = (judged: Advice, progress: Progress): Operation | null => {
  if (judged.kind !== 'repair' || judged.repair.kind !== 'serviceFan') return null;
  const looks = current(progress).filter((e) => e.operation.kind === 'settings');
  return looks.length < 2 && !progress.skipped.some((s) => s.kind === 'settings') ? { kind: 'settings' } : null;
};

/** An open machine is inspected before it is closed and measured again, where the look is worth its time. */
const lookWhileOpen = (ranked: readonly Proposal[]): Proposal | null =>
  ranked
    .filter((p) => (p.operation.kind === 'lookBag' || p.operation.kind === 'cleanSide') && p.saves > p.minutes)
    .sort((a, b) => b.saves - b.minutes - (a.saves - a.minutes))[0] ?? null;

const isTest = ({ operation, struck }: Evidence): boolean => !struck && operation.kind !== 'found';

/**
 * Weighs a case and says what comes next: first the complaint's own measure as found, and again after every repair; then
 * repair, test, close or hand on. `told` hears how far the weighing is, 0 to 1. Errors as `weigh`.
 */
export const evaluateCase = (
  c: Case,
  progress: Progress,
  onProgress: (share: number) => void = () => undefined,
): Result<CaseEvaluation> => {
  const weighed = weigh(c, progress.evidence, (done, of) => onProgress((EVIDENCE_PART * done) / of));
  if (!weighed.ok) return weighed;
  const posterior = weighed.value;
  const { back, pending } = measuresNow(c.subject, progress);
  const { hazard, state, interventions, evidence, skipped } = progress;
  const losses = lossesOf(c, { complaint: progress.complaint, hazard, repairs: interventions.repairs, back });
  const not = [...current(progress).map((e) => e.operation), ...skipped];
  const asking = { hazard, state, interventions, not };
  const ranked = proposals(c, posterior, { asking, losses });
  onProgress(1);
  const inVain = repairsInVain(c.subject, progress);
  const judged = adviceOf({ c, posterior, losses, ranked, back, inVain, tests: evidence.filter(isTest).length });
  const said = { posterior, ranked, back, inVain, pending };
  const { stages } = c.subject.faultSimulator.suspect.model;
  const standing = standingStages(stages, interventions.repairs);
  if (
    !mayRun({ stages: standing, out: interventions.out, machineClass: c.subject.traits.machineClass, level: hazard })
  ) {
    return ok({
      ...said,
      advice: { kind: 'fitFirst', position: Math.max(0, essentialStage(stages)), doubtMinutes: judged.doubtMinutes },
    });
  }
  const again = judged.kind === 'escalate' && !back ? onceOff(c.subject, progress) : null;
  const due = pending ?? again ?? settingsFirst(c.subject, { judged, progress }) ?? lookedOnce(judged, progress);
  if (due === null) return ok({ ...said, advice: judged });
  const testing = (proposal: Proposal): Advice => ({ kind: 'test', proposal, doubtMinutes: judged.doubtMinutes });
  const look = pending !== null && state === 'open' ? lookWhileOpen(ranked) : null;
  if (look) return ok({ ...said, advice: testing(look) });
  const proposal = ranked.find((p) => operationKey(p.operation) === operationKey(due)) ?? {
    operation: due,
    bits: 0,
    saves: 0,
    minutes: priceOf(due, asking),
  };
  return ok({ ...said, advice: testing(proposal) });
};
