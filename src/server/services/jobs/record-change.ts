import { ChangeAnswer } from '@/contracts/action-answer';
import type { CorrectChangeBody, RecordChangeBody, WithdrawBody } from '@/contracts/requests';
import { entails } from '@/core/deed/entails';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { isChangeable, type Machine, type Stage } from '@/core/machine/machine';
import type { ChangeRecord } from '@/core/record/records';
import { cleaningOf } from '@/core/procedure/choose';
import type { Db } from '../../db/connect';
import { insertChange, loadChanges } from '../../repositories/changes';
import { findMachine } from '../../repositories/machines';
import { loadSite } from '../../repositories/site';
import { insertMovement, loadParts } from '../../repositories/stock';
import { loadTests } from '../../repositories/tests';
import { checkMoment } from '../measuring/check-moment';
import { refusedBy } from '../yard/state-dust';
import { type Context, runOnce } from '../yard/user-action';

export interface ChangeRecorded {
  readonly id: number;
  /** Set when the ledger went below zero: taken all the same, to be settled by a count. */
  readonly short: { readonly partName: string; readonly onHand: number } | null;
}

interface Checked {
  readonly machine: Machine;
  readonly stage: Stage;
}

/** The stage a change is of, or why it cannot be changed so. */
export const checkStage = (
  machine: Machine,
  body: Pick<RecordChangeBody, 'stageId' | 'partId' | 'how'>,
): Result<Stage> => {
  const stage = machine.stages.find((s) => s.id === body.stageId);
  if (!stage) return fail(failure('stage.unknown', 'stageId', { tag: machine.tag }));
  if (!isChangeable(stage)) {
    return fail(failure('stage.not-changeable', 'stageId', { stage: stage.name }));
  }
  if (body.partId === null && stage.part && stage.spec.air.form === 'medium') {
    const { because } = cleaningOf(machine, stage);
    if (because) return fail(failure('part.not-cleanable', 'partId', { stage: stage.name, because }));
  }
  if (machine.hazard !== 'plain' && body.how === null) return fail(failure('change.how', 'how'));
  if (body.partId !== null && stage.part && body.partId !== stage.part.id) {
    return fail(failure('part.wrong-for-stage', 'partId', { stage: stage.name, fits: stage.part.name }));
  }
  return ok(stage);
};

const check = async (
  tx: Db,
  tag: string,
  { body, now }: { body: RecordChangeBody; now: string },
): Promise<Result<Checked>> => {
  const machine = await findMachine(tx, tag);
  if (!machine) return fail(failure('machine.unknown', '', { tag }));
  const refused = refusedBy(machine);
  if (refused) return refused;
  const { timeZone } = await loadSite(tx);
  const wrong = checkMoment({ performedAt: body.performedAt, now, machine, timeZone });
  const stage = checkStage(machine, body);
  if (wrong.length > 0 || !stage.ok) return fail(...wrong, ...(stage.ok ? [] : stage.failures));
  if (body.partId !== null && !(await loadParts(tx)).some((p) => p.id === body.partId))
    return fail(failure('part.unknown', 'partId'));
  if (body.beforeTestId !== null) {
    const tests = await loadTests(tx, machine.id);
    if (!tests.some((t) => t.id === body.beforeTestId)) return fail(failure('test.wrong-machine', 'beforeTestId'));
  }
  return ok({ machine, stage: stage.value });
};

const newChange = ({ machine, stage }: Checked, body: RecordChangeBody, now: string) => ({
  jobId: null,
  machineId: machine.id,
  stageId: stage.id,
  performedAt: new Date(body.performedAt).toISOString(),
  recordedAt: now,
  by: body.by,
  note: body.note,
  reason: body.reason,
  partId: body.partId,
  quantity: body.partId === null ? 0 : body.quantity,
  beforeTestId: body.beforeTestId,
  how: body.how,
});

const shortOf = async (tx: Db, partId: number | null): Promise<ChangeRecorded['short']> => {
  const part = (await loadParts(tx)).find((p) => p.id === partId);
  return part && part.onHand < 0 ? { partName: part.name, onHand: part.onHand } : null;
};

interface Booking {
  readonly of: { readonly kind: 'change'; readonly id: number };
  readonly at: string;
  readonly by: string;
}

const take = async (
  tx: Db,
  { machine, stage, body }: Checked & { readonly body: RecordChangeBody },
  booking: Booking,
): Promise<void> => {
  if (body.partId === null) return;
  const deed = { kind: 'changed', stage: machine.stages.indexOf(stage), quantity: body.quantity } as const;
  for (const { quantity } of entails(machine, deed).stock)
    await insertMovement(tx, { ...booking, partId: body.partId, quantity, reason: 'taken', note: '' });
};

const giveBack = async (tx: Db, original: ChangeRecord, booking: Booking): Promise<void> => {
  if (original.partId === null || original.quantity === 0) return;
  const note = `record ${original.id} corrected`;
  await insertMovement(tx, {
    ...booking,
    partId: original.partId,
    quantity: original.quantity,
    reason: 'correction',
    note,
  });
};

/** Records a change of one stage and takes its part from stock, in one transaction, once. */
export const recordChange = async (
  { db, now }: Context,
  tag: string,
  body: RecordChangeBody,
): Promise<Result<ChangeRecorded>> => {
  const at = now();
  return runOnce(db, { kind: `change ${tag}`, body, at, answers: ChangeAnswer }, async (tx) => {
    const checked = await check(tx, tag, { body, now: at });
    if (!checked.ok) return checked;
    const id = await insertChange(tx, { ...newChange(checked.value, body, at), supersedes: null });
    await take(tx, { ...checked.value, body }, { of: { kind: 'change' as const, id }, at, by: body.by });
    return ok({ id, short: await shortOf(tx, body.partId) });
  });
};

const standingChange = async (tx: Db, supersedesId: number, machineId: number): Promise<Result<ChangeRecord>> => {
  const { timeZone } = await loadSite(tx);
  const original = (await loadChanges(tx, timeZone, machineId)).find((c) => c.id === supersedesId);
  if (!original) return fail(failure('change.unknown', 'supersedesId'));
  return original.supersededById !== null || original.voided
    ? fail(failure('record.superseded', 'supersedesId'))
    : ok(original);
};

/** Corrects a change: the new record supersedes the old one, and the ledger is put right by movements of its own. */
export const correctChange = async (
  { db, now }: Context,
  tag: string,
  body: CorrectChangeBody,
): Promise<Result<ChangeRecorded>> => {
  const at = now();
  return runOnce(db, { kind: `correct change ${tag}`, body, at, answers: ChangeAnswer }, async (tx) => {
    const checked = await check(tx, tag, { body, now: at });
    if (!checked.ok) return checked;
    const original = await standingChange(tx, body.supersedesId, checked.value.machine.id);
    if (!original.ok) return original;
    const supersedes = { id: original.value.id, reason: body.correctionReason, voided: false };
    const id = await insertChange(tx, {
      ...newChange(checked.value, body, at),
      jobId: original.value.jobId,
      supersedes,
    });
    const booking = { of: { kind: 'change' as const, id }, at, by: body.by };
    await giveBack(tx, original.value, booking);
    await take(tx, { ...checked.value, body }, booking);
    return ok({ id, short: await shortOf(tx, body.partId) });
  });
};

/** Withdraws a change that never was: a copy marked void supersedes it, and its part goes back to the ledger. */
export const withdrawChange = async (
  { db, now }: Context,
  tag: string,
  body: WithdrawBody,
): Promise<Result<ChangeRecorded>> => {
  const at = now();
  return runOnce(db, { kind: `withdraw change ${tag}`, body, at, answers: ChangeAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const original = await standingChange(tx, body.supersedesId, machine.id);
    if (!original.ok) return original;
    const supersedes = { id: original.value.id, reason: body.correctionReason, voided: true };
    const id = await insertChange(tx, { ...original.value, recordedAt: at, by: body.by, supersedes });
    await giveBack(tx, original.value, { of: { kind: 'change' as const, id }, at, by: body.by });
    return ok({ id, short: null });
  });
};
