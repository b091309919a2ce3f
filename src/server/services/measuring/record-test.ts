import { TestAnswer } from '@/contracts/action-answer';
import type { CorrectTestBody, RecordTestBody, WithdrawBody } from '@/contracts/requests';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import type { Machine, MachinePlate } from '@/core/machine/machine';
import { type Question, questionReading } from '@/core/machine/plausible';
import { type Reduced, reduceAny } from '@/core/measure/reduce-any';
import { parseTestEntry, parseWheel, type ParsedTest } from '@/core/measure/test-entry';
import type { TestRecord, TestUse } from '@/core/record/records';
import type { Db } from '../../db/connect';
import { loadChanges } from '../../repositories/changes';
import { loadInstruments } from '../../repositories/instruments';
import { findMachine } from '../../repositories/machines';
import { loadSite } from '../../repositories/site';
import { insertTest, loadTests } from '../../repositories/tests';
import { checkMoment } from './check-moment';
import { refusedBy } from '../yard/state-dust';
import { type Context, runOnce } from '../yard/user-action';

export interface Recorded {
  readonly id: number;
  readonly questions: readonly Question[];
}

interface Checked {
  readonly machine: Machine;
  readonly parsed: ParsedTest;
  readonly questions: readonly Question[];
  readonly use: TestUse;
}

const questionsOf = (machine: MachinePlate, reduced: Reduced): readonly Question[] => {
  if (reduced.form !== 'series') return [];
  const { measurand, values } = reduced.series;
  return values.flatMap((valueSi) => questionReading({ kind: machine.kind, measurand, valueSi }) ?? []).slice(0, 1);
};

const check = async (
  tx: Db,
  tag: string,
  { body, now }: { body: RecordTestBody; now: string },
): Promise<Result<Checked>> => {
  const machine = await findMachine(tx, tag);
  if (!machine) return fail(failure('machine.unknown', '', { tag }));
  const refused = refusedBy(machine);
  if (refused) return refused;
  const site = await loadSite(tx);
  const instrument = (await loadInstruments(tx)).find((i) => i.id === body.instrumentId) ?? null;
  if (body.instrumentId !== null && !instrument) return fail(failure('instrument.unknown', 'instrumentId'));
  const wrong = checkMoment({ performedAt: body.performedAt, now, machine, timeZone: site.timeZone });
  const parsed = parseTestEntry(body, { altitudeM: site.altitudeM, instrument });
  if (wrong.length > 0 || !parsed.ok) return fail(...wrong, ...(parsed.ok ? [] : parsed.failures));
  if (body.afterChangeId !== null) {
    const changes = await loadChanges(tx, site.timeZone, machine.id);
    if (!changes.some((c) => c.id === body.afterChangeId)) return fail(failure('change.unknown', 'afterChangeId'));
  }
  const { detail } = parsed.value.test;
  if ('stageId' in detail && !machine.stages.some((s) => s.id === detail.stageId)) {
    return fail(failure('stage.unknown', 'detail.stageId', { tag: machine.tag }));
  }
  const wheel = body.wheel ? parseWheel(body.wheel) : ok(null);
  if (!wheel.ok) return wheel;
  const reduced = reduceAny(parsed.value.test);
  if (!reduced.ok) return reduced;
  const use: TestUse = { wheelM: wheel.value, ductLoad: body.ductLoad };
  return ok({ machine, parsed: parsed.value, use, questions: questionsOf(machine, reduced.value) });
};

const newTest = (checked: Checked, body: RecordTestBody, now: string) => ({
  machineId: checked.machine.id,
  performedAt: new Date(body.performedAt).toISOString(),
  recordedAt: now,
  by: body.by,
  note: body.note,
  parsed: checked.parsed,
  isBaseline: body.isBaseline,
  bagState: body.bagState,
  afterChangeId: body.afterChangeId,
  configuration: body.configuration,
  use: checked.use,
});

/** Records a test on a machine: readings as typed and in SI, in one transaction, once. */
export const recordTest = async (
  { db, now }: Context,
  tag: string,
  body: RecordTestBody,
): Promise<Result<Recorded>> => {
  const at = now();
  return runOnce(db, { kind: `test ${tag}`, body, at, answers: TestAnswer }, async (tx) => {
    const checked = await check(tx, tag, { body, now: at });
    if (!checked.ok) return checked;
    const id = await insertTest(tx, { ...newTest(checked.value, body, at), supersedes: null });
    return ok({ id, questions: checked.value.questions });
  });
};

const standingTest = async (tx: Db, supersedesId: number, machineId: number): Promise<Result<TestRecord>> => {
  const original = (await loadTests(tx, machineId)).find((t) => t.id === supersedesId);
  if (!original) return fail(failure('test.unknown', 'supersedesId'));
  return original.supersededById !== null || original.voided
    ? fail(failure('record.superseded', 'supersedesId'))
    : ok(original);
};

/** Corrects a test: the new record supersedes the old one, which stays readable. */
export const correctTest = async (
  { db, now }: Context,
  tag: string,
  body: CorrectTestBody,
): Promise<Result<Recorded>> => {
  const at = now();
  return runOnce(db, { kind: `correct test ${tag}`, body, at, answers: TestAnswer }, async (tx) => {
    const checked = await check(tx, tag, { body, now: at });
    if (!checked.ok) return checked;
    const original = await standingTest(tx, body.supersedesId, checked.value.machine.id);
    if (!original.ok) return original;
    const supersedes = { id: original.value.id, reason: body.correctionReason, voided: false };
    const id = await insertTest(tx, { ...newTest(checked.value, body, at), supersedes });
    return ok({ id, questions: checked.value.questions });
  });
};

/** Withdraws a test that never was, or was another machine's: a copy marked void supersedes it. */
export const withdrawTest = async (
  { db, now }: Context,
  tag: string,
  body: WithdrawBody,
): Promise<Result<Recorded>> => {
  const at = now();
  return runOnce(db, { kind: `withdraw test ${tag}`, body, at, answers: TestAnswer }, async (tx) => {
    const machine = await findMachine(tx, tag);
    if (!machine) return fail(failure('machine.unknown', '', { tag }));
    const original = await standingTest(tx, body.supersedesId, machine.id);
    if (!original.ok) return original;
    const { test, readings, ...record } = original.value;
    const id = await insertTest(tx, {
      ...record,
      recordedAt: at,
      by: body.by,
      parsed: { test, readings },
      supersedes: { id: record.id, reason: body.correctionReason, voided: true },
    });
    return ok({ id, questions: [] });
  });
};
