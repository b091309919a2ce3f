import { PlainAnswer } from '@/contracts/action-answer';
import type { CaseAction, CaseActionBody, OpenCaseBody } from '@/contracts/find';
import { caseOfSetup } from '@/core/diagnose/case-setup';
import { subjectOf } from '@/core/diagnose/subject';
import { type CaseEvent, type CaseState, type Snapshot } from '@/core/diagnose/case-log';
import { openReasons } from '@/core/diagnose/closing';
import { measuresNow } from '@/core/diagnose/evaluate-case';
import { expectedOf, type CaseSubject } from '@/core/diagnose/expected';
import { operationsOf } from '@/core/diagnose/next-test';
import { notOffered, standingStages } from '@/core/diagnose/within';
import { entails } from '@/core/deed/entails';
import { schoolAllowed } from '@/core/diagnose/next-test';
import { type Operation, QUANTITY_OF, sameOperation } from '@/core/diagnose/operation';
import type { Outcome } from '@/core/diagnose/outcome';
import { weigh } from '@/core/diagnose/posterior';
import { UNTOUCHED } from '@/core/diagnose/signature';
import { at, fail, failure, ok, type Result } from '@/core/failure/failure';
import type { Machine, Stage } from '@/core/machine/machine';
import { inForce } from '@/core/record/records';
import { parseQuantity } from '@/core/units';
import type { Db } from '../../db/connect';
import { insertChange, loadChanges } from '../../repositories/changes';
import { insertCase, insertCaseEvent } from '../../repositories/cases';
import { findMachine } from '../../repositories/machines';
import { loadSite } from '../../repositories/site';
import { insertMovement } from '../../repositories/stock';
import { type FindPage, findOfTag } from './find-page';
import { insertSeatOpening } from '../../repositories/proofs';
import { refusedBy, stateBefore } from '../yard/state-dust';
import { type Context, runOnce } from '../yard/user-action';

/** Opens a case: the hazard question is answered first, and what only licensed people may open is refused. */
export const openFaultCase = async (
  { db, now }: Context,
  tag: string,
  body: OpenCaseBody,
): Promise<Result<{ readonly id: number }>> => {
  const openedAt = now();
  return runOnce(db, { kind: `open case ${tag}`, body, at: openedAt, answers: PlainAnswer }, async (tx) => {
    const found = await findOfTag({ db: tx, now }, tag);
    if (!found) return fail(failure('machine.unknown', '', { tag }));
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const { by, complaint, words, school } = body;
    const said = await stateBefore(tx, machine, { statement: body.dust, by, at: openedAt });
    if (!said.ok) return said;
    if (found.page.open) return fail(failure('case.open'));
    const { hazard, lastCollected } = said.value;
    if (!schoolAllowed(school, hazard)) return fail(failure('case.take-out', 'school'));
    return ok({
      id: await insertCase(tx, {
        machineId: found.machineId,
        openedAt,
        by,
        complaint,
        words,
        lastCollected,
        hazard,
        school,
      }),
    });
  });
};

interface Doing {
  readonly tx: Db;
  readonly at: string;
  readonly by: string;
  readonly machine: Machine;
  readonly machineId: number;
  readonly stages: readonly Stage[];
  readonly page: FindPage;
  readonly state: CaseState;
  readonly caseId: number;
  readonly openedAt: string;
  readonly words: string;
  readonly subject: CaseSubject;
  readonly timeZone: string;
}

const stageAt = ({ stages }: Doing, position: number): Result<Stage> => {
  const stage = stages[position];
  return stage ? ok(stage) : fail(failure('stage.unknown', 'action.position', { tag: 'This machine' }));
};

const readSeen = (
  operation: Operation,
  seen: Extract<CaseAction, { kind: 'saw' }>['seen'],
  subject: CaseSubject,
): Result<{ readonly outcome: Outcome; readonly typed: string }> => {
  const kind = QUANTITY_OF[operation.kind];
  if (kind === undefined) {
    if (seen.kind !== 'word') return fail(failure('detail.word', 'action.seen'));
    const expected = expectedOf(operation, [], { interventions: UNTOUCHED, subject });
    // "Something else" is kept in the log and weighs nothing.
    const known = expected.kind === 'words' && (seen.word in expected.words || seen.word === 'other');
    return known
      ? ok({ outcome: { kind: 'word', word: seen.word }, typed: '' })
      : fail(failure('case.no-word', 'action.seen'));
  }
  if (seen.kind !== 'typed') return fail(failure('readings.none', 'action.seen'));
  const read = at('action.seen', parseQuantity(seen.typed, kind, seen.unit));
  if (!read.ok) return read;
  const valueSi = kind === 'pressure' ? Math.abs(read.value.valueSi) : read.value.valueSi;
  return ok({
    outcome: { kind: 'number', valueSi },
    typed: `${seen.typed.trim()}${/[a-z%]/i.test(seen.typed) ? '' : ` ${seen.unit}`}`,
  });
};

/** A test that this machine's path has and its dust allows now. */
const offered = ({ page, state }: Doing, operation: Operation): Result<true> => {
  const { model, traits } = page.setup;
  const { interventions, hazard } = state.progress;
  if (!operationsOf(model, traits).some((op) => sameOperation(op, operation))) return ok(true);
  // A part that is put out already was taken out in its own time: the reading with it out is refused all the same.
  const because = notOffered(operation, {
    stages: standingStages(model.stages, interventions.repairs),
    traits,
    level: hazard,
    out: interventions.out,
  });
  return because ? fail(failure('case.not-offered', 'action.operation', { because })) : ok(true);
};

const saw = (d: Doing, action: Extract<CaseAction, { kind: 'saw' }>): Result<readonly CaseEvent[]> => {
  // A trial part and what is found at a repair have actions of their own, which move shelf and machine with them.
  if (action.operation.kind === 'swap' || action.operation.kind === 'found')
    return fail(failure('case.trial', 'action.operation'));
  if ('position' in action.operation) {
    const stage = stageAt(d, action.operation.position);
    if (!stage.ok) return stage;
  }
  const allowed = offered(d, action.operation);
  if (!allowed.ok) return allowed;
  const read = readSeen(action.operation, action.seen, d.subject);
  if (!read.ok) return read;
  const event: CaseEvent = { kind: 'saw', operation: action.operation, ...read.value, note: action.note };
  if (action.correctsEventId === null) return ok([event]);
  const struck = strike(d, { eventId: action.correctsEventId, because: 'corrected' });
  return struck.ok ? ok([...struck.value, event]) : struck;
};

const strike = (
  { state }: Doing,
  { eventId, because }: { readonly eventId: number; readonly because: string },
): Result<readonly CaseEvent[]> => {
  const index = state.evidenceIds.indexOf(eventId);
  const held = state.progress.evidence[index];
  return held && !held.struck
    ? ok([{ kind: 'struck', eventId, because }])
    : fail(failure('case.event-unknown', 'action.eventId'));
};

/** A new part goes in on trial, or comes back: the ledger moves with it. */
const trial = async (
  d: Doing,
  action: Extract<CaseAction, { kind: 'trialIn' | 'trialBack' }>,
): Promise<Result<readonly CaseEvent[]>> => {
  const stage = stageAt(d, action.position);
  if (!stage.ok) return stage;
  const inNow = d.state.trials.includes(action.position);
  if (inNow !== (action.kind === 'trialBack')) return fail(failure('case.trial', 'action.position'));
  if (!stage.value.part) return fail(failure('case.no-part', 'action.position', { stage: stage.value.name }));
  // What holds the worst dust stays in its tied bag: the new part is kept.
  if (action.kind === 'trialBack' && d.state.progress.hazard === 'contained')
    return fail(failure('case.tied', 'action.position', { stage: stage.value.name }));
  const event: CaseEvent = { kind: action.kind, position: action.position };
  for (const { quantity } of entails(d.machine, { kind: 'found', event }).stock)
    await insertMovement(d.tx, {
      partId: stage.value.part.id,
      quantity,
      reason: quantity > 0 ? 'returned' : 'taken',
      at: d.at,
      by: d.by,
      of: { kind: 'case', id: d.caseId },
      note: quantity > 0 ? 'proved nothing, returned unspoilt' : 'on trial, the old one held',
    });
  return ok([event]);
};

/** The trial part stays: the change is recorded now; the part left the shelf when it went in. */
const keepTrial = async (d: Doing, position: number): Promise<Result<readonly CaseEvent[]>> => {
  const stage = stageAt(d, position);
  if (!stage.ok) return stage;
  if (!d.state.trials.includes(position)) return fail(failure('case.trial', 'action.position'));
  const changeId = await insertChange(d.tx, {
    machineId: d.machineId,
    stageId: stage.value.id,
    performedAt: d.at,
    recordedAt: d.at,
    by: d.by,
    note: `Proven in case ${d.caseId}; it left the stock when it went in on trial. The old one is disposed of.`,
    reason: 'test',
    partId: stage.value.part?.id ?? null,
    quantity: stage.value.part ? 1 : 0,
    beforeTestId: null,
    jobId: null,
    how: d.state.progress.hazard === 'plain' ? null : { by: d.by, how: `in case ${d.caseId}, as a trial` },
    supersedes: null,
  });
  return ok([{ kind: 'trialKept', position, changeId }]);
};

const repair = async (
  d: Doing,
  action: Extract<CaseAction, { kind: 'repair' }>,
): Promise<Result<readonly CaseEvent[]>> => {
  const stage = stageAt(d, action.repair.position);
  if (!stage.ok) return stage;
  if (action.changeId !== null) {
    const changes = inForce(await loadChanges(d.tx, d.timeZone, d.machineId));
    if (!changes.some((c) => c.id === action.changeId && c.stageId === stage.value.id && c.performedAt >= d.openedAt))
      return fail(failure('case.change', 'action.changeId'));
  }
  return ok([
    { kind: 'repaired', repair: action.repair, fault: action.fault, found: action.found, changeId: action.changeId },
  ]);
};

type CauseOfCase = Extract<CaseEvent, { kind: 'closed' }>['root'];

const MOST_SAID = 5;

const snapshotOf = (d: Doing): Snapshot => {
  const weighed = weigh(
    caseOfSetup(d.page.setup, { complaint: d.state.progress.complaint, words: d.words }),
    d.state.progress.evidence,
  );
  return weighed.ok
    ? weighed.value.faults
        .slice(0, MOST_SAID)
        .map(({ kind, position, probability }) => ({ kind, position, probability }))
    : [];
};

/** A root cause that was the answer before on this machine. */
const cameBack = ({ page }: Doing, root: CauseOfCase): boolean =>
  root !== null &&
  page.earlier.some((c) =>
    c.events.some(
      ({ event }) => event.kind === 'closed' && event.root?.kind === root.kind && event.root.position === root.position,
    ),
  );

const close = (d: Doing, action: Extract<CaseAction, { kind: 'close' }>): Result<readonly CaseEvent[]> => {
  const { progress, trials } = d.state;
  const { back } = measuresNow(d.subject, progress);
  const { out } = progress.interventions;
  const reasons = [
    ...openReasons({
      complaintBack: back,
      rootCause: action.rootCause,
      leftOut: out.length,
      recordedMissing: out.filter((p) => d.stages[p]?.missing).length,
    }),
    ...(trials.length > 0 ? ['trialOpen'] : []),
    ...(cameBack(d, action.root) && action.followUp === '' ? ['noFollowUp'] : []),
  ];
  if (reasons.length > 0) return fail(failure('case.not-done', 'action', { reasons: reasons.join(' ') }));
  return ok([
    {
      kind: 'closed',
      rootCause: action.rootCause,
      root: action.root,
      followUp: action.followUp,
      snapshot: snapshotOf(d),
    },
  ]);
};

const eventsOf = async (d: Doing, action: CaseAction): Promise<Result<readonly CaseEvent[]>> => {
  switch (action.kind) {
    case 'saw':
      return saw(d, action);
    case 'strike':
      return strike(d, action);
    case 'skip':
      return ok([{ kind: 'skipped', operation: action.operation }]);
    case 'school':
      return schoolAllowed(action.school, d.state.progress.hazard)
        ? ok([{ kind: 'school', school: action.school }])
        : fail(failure('case.take-out', 'action.school'));
    case 'putBack':
      return d.state.progress.interventions.out.includes(action.position)
        ? ok([{ kind: 'putBack', position: action.position }])
        : fail(failure('case.not-out', 'action.position'));
    case 'trialIn':
    case 'trialBack':
      return trial(d, action);
    case 'trialKeep':
      return keepTrial(d, action.position);
    case 'repair':
      return repair(d, action);
    case 'close':
      return close(d, action);
    case 'handOn':
      return d.state.trials.length > 0
        ? fail(failure('case.not-done', 'action', { reasons: 'trialOpen' }))
        : ok([{ kind: 'handedOn', because: action.because, snapshot: snapshotOf(d) }]);
  }
};

/** Records every seat that a case opened and that must be screened again. */
const bookOpenings = async (
  { tx, machine, stages, at, by, caseId }: Doing,
  events: readonly CaseEvent[],
): Promise<void> => {
  for (const position of events.flatMap((event) => entails(machine, { kind: 'found', event }).suspends)) {
    const stage = stages[position];
    if (stage) await insertSeatOpening(tx, { stageId: stage.id, why: `case ${caseId}`, at, by });
  }
};

/** Records one action in the open case of a machine, with its stock and file entries, in one transaction. */
export const doInCase = async (
  { db, now }: Context,
  tag: string,
  body: CaseActionBody,
): Promise<Result<{ readonly id: number }>> => {
  const moment = now();
  return runOnce(db, { kind: `case ${tag}`, body, at: moment, answers: PlainAnswer }, async (tx) => {
    const found = await findOfTag({ db: tx, now }, tag);
    const machine = await findMachine(tx, tag);
    if (!found || !machine) return fail(failure('machine.unknown', '', { tag }));
    const { open, earlier } = found.page;
    if (open?.record.id !== body.caseId)
      return fail(failure(earlier.some((c) => c.id === body.caseId) ? 'case.ended' : 'case.unknown', 'caseId'));
    const refused = refusedBy(machine);
    // What only others may open is closed or handed on, and nothing else.
    if (refused && body.action.kind !== 'handOn') return refused;
    const { timeZone } = await loadSite(tx);
    const doing: Doing = {
      tx,
      machine,
      at: moment,
      by: body.by,
      machineId: machine.id,
      stages: machine.stages,
      page: found.page,
      state: open.state,
      caseId: open.record.id,
      openedAt: open.record.openedAt,
      words: open.record.words,
      subject: subjectOf(found.page.setup),
      timeZone,
    };
    const events = await eventsOf(doing, body.action);
    if (!events.ok) return events;
    await bookOpenings(doing, events.value);
    let id = 0;
    for (const event of events.value)
      id = await insertCaseEvent(tx, { caseId: body.caseId, at: moment, by: body.by, event });
    return ok({ id });
  });
};
