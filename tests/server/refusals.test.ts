import { beforeEach, describe, expect, it } from 'vitest';
import type { EditPathBody } from '@/contracts/machine-edit';
import type { Result } from '@/core/failure/failure';
import { snapshotOf } from '@/core/machine/path-edit';
import type { Rule } from '@/core/interval/rules';
import type { Db } from '@/server/db/connect';
import { loadChanges } from '@/server/repositories/changes';
import { findMachine } from '@/server/repositories/machines';
import { loadParts } from '@/server/repositories/stock';
import { loadTests } from '@/server/repositories/tests';
import { countStock } from '@/server/services/stock/count-stock';
import { editPath, newMachine } from '@/server/services/yard/edit-path';
import { editRules } from '@/server/services/yard/edit-rules';
import { doInCase, openFaultCase } from '@/server/services/jobs/find-case';
import { doInJob, openJobOf, quickJob } from '@/server/services/jobs/guided-job';
import { recordIntegrity } from '@/server/services/jobs/integrity-check';
import { keepPhoto } from '@/server/services/jobs/job-photo';
import { lockPlan } from '@/server/services/plan/lock-plan';
import { loadBench } from '@/server/services/measuring/bench';
import { loadOutlook } from '@/server/services/plan/yard-outlook';
import { logAway, logLook, logUsage } from '@/server/services/yard/log-wear';
import { orderArrived, orderPart } from '@/server/services/stock/order-part';
import { correctChange, recordChange, withdrawChange } from '@/server/services/jobs/record-change';
import { correctTest, recordTest, withdrawTest } from '@/server/services/measuring/record-test';
import { startJob } from '@/server/services/jobs/start-job';
import { recordDecontaminated, recordExamination, stateDust } from '@/server/services/yard/state-dust';
import type { Context } from '@/server/services/yard/user-action';
import { changeBody, dustBody, testBody } from '../support/bodies';
import { demoContext, newId, NOW } from '../support/database';

// Every refusal names what is wrong beside its field, and leaves nothing behind.

let context: Context & { readonly db: Db };
beforeEach(async () => {
  context = await demoContext();
});

const who = () => ({ clientId: newId(), by: 'MK' });
const codes = (r: Result<unknown>) => (r.ok ? ['accepted'] : r.failures.map((f) => `${f.code} ${f.path}`.trim()));
const machineOf = async (tag: string) => (await findMachine(context.db, tag)) ?? Promise.reject(new Error(`no ${tag}`));
/** A machine as the editor sends it. */
const pathOf = async (tag: string): Promise<EditPathBody['path']> => {
  const { machine, stages } = snapshotOf(await machineOf(tag));
  return structuredClone<unknown>({ machine, stages: [...stages] }) as EditPathBody['path'];
};
const stageOf = async (tag: string, name: string) =>
  (await machineOf(tag)).stages.find((s) => s.name === name) ?? Promise.reject(new Error(`no ${name}`));
const actions = async () => (await context.db.selectFrom('user_action').selectAll().execute()).length;
const expectRefused = async (ask: () => Promise<Result<unknown>>, refused: readonly string[]) => {
  const before = await actions();
  expect(codes(await ask())).toEqual(refused);
  expect(await actions()).toBe(before);
};

const start = (over: object = {}) => ({
  ...who(),
  job: { kind: 'service' as const },
  dust: dustBody(),
  reason: 'date' as const,
  people: 1 as const,
  partInHand: false,
  ...over,
});
const PNG = Uint8Array.from(
  atob('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='),
  (c) => c.charCodeAt(0),
);

/** Everything that can be asked of a machine. */
const asks: Readonly<Record<string, (tag: string) => Promise<Result<unknown>>>> = {
  'a test': (tag) => recordTest(context, tag, testBody()),
  'a corrected test': (tag) => correctTest(context, tag, { ...testBody(), supersedesId: 1, correctionReason: 'slip' }),
  'a withdrawn test': (tag) => withdrawTest(context, tag, { ...who(), supersedesId: 1, correctionReason: 'slip' }),
  'a change': (tag) => recordChange(context, tag, changeBody(1)),
  'a corrected change': (tag) =>
    correctChange(context, tag, { ...changeBody(1), supersedesId: 1, correctionReason: 'slip' }),
  'a withdrawn change': (tag) => withdrawChange(context, tag, { ...who(), supersedesId: 1, correctionReason: 'slip' }),
  hours: (tag) => logUsage(context, tag, { ...who(), day: '2026-11-23', hours: 2, dust: 'filler' }),
  'a look': (tag) => logLook(context, tag, { ...who(), day: '2026-11-23', stageId: 1, share: 0.5 }),
  'days away': (tag) => logAway(context, tag, { ...who(), from: '2026-11-25', to: '2026-11-26', why: 'hire' }),
  rules: (tag) => editRules(context, tag, { ...who(), stageId: 1, rules: [] }),
  'its dust': (tag) => stateDust(context, tag, { ...who(), dust: dustBody(), since: null }),
  'a decontamination': (tag) =>
    recordDecontaminated(context, tag, { ...who(), on: '2026-11-20', who: 'firm', paper: 'no 1' }),
  'an examination': (tag) =>
    recordExamination(context, tag, { ...who(), on: '2026-11-20', examiner: 'firm', found: 'fine' }),
  'a screening': (tag) =>
    recordIntegrity(context, tag, { ...who(), stageId: 1, test: 'smoke', passed: true, note: '' }),
  'a case': (tag) =>
    openFaultCase(context, tag, { ...who(), complaint: 'noSuction', words: '', dust: dustBody(), school: 'best' }),
  'an action in a case': (tag) =>
    doInCase(context, tag, { ...who(), caseId: 1, action: { kind: 'handOn', because: 'no time' } }),
  'the start of a job': (tag) => startJob(context, tag, start()),
  'a job on a sheet': (tag) => {
    const { clientId, by, job, dust, reason, partInHand } = start();
    const sheet = { clientId, by, job, dust, reason, partInHand };
    return quickJob(context, tag, { ...sheet, answers: [], wasteKg: null });
  },
  'a step of a job': (tag) =>
    doInJob(context, tag, { ...who(), jobId: 1, event: { kind: 'did', step: 0 }, partCode: '' }),
  'a photo': (tag) => keepPhoto(context, tag, { query: { ...who(), jobId: 1, step: 0 }, bytes: PNG }),
  'an edit': async (tag) => editPath(context, tag, { ...who(), note: '', seen: 0, path: await pathOf('CR-02') }),
  'its open job': (tag) => openJobOf(context, tag),
};

describe('a machine nobody knows', () => {
  it.each(Object.keys(asks))('refuses %s', async (name) => {
    await expectRefused(() => asks[name]?.('CR-99') ?? Promise.reject(new Error(name)), ['machine.unknown']);
  });

  it('and takes a tag as it is typed, in small letters', async () => {
    expect(codes(await recordTest(context, 'cr-04', testBody()))).toEqual(['accepted']);
    expect(codes(await openJobOf(context, 'cr-04'))).toEqual(['accepted']);
  });
});

describe('a machine with asbestos on record', () => {
  /** What stays possible: to say what is in it, to have it cleared, and to keep its file. */
  const ALLOWED = new Set([
    'days away',
    'rules',
    'its dust',
    'a decontamination',
    'an examination',
    'an edit',
    'its open job',
  ]);

  it.each(Object.keys(asks).filter((name) => !ALLOWED.has(name)))('takes no %s', async (name) => {
    await stateDust(context, 'CR-02', { ...who(), dust: dustBody('asbestos'), since: null });
    const said = codes(await (asks[name]?.('CR-02') ?? Promise.reject(new Error(name))));
    // What is not there to be done is refused for that.
    expect(said.join()).toMatch(/^(dust\.refused dust\.text|(test|change|case|job)\.unknown|photo\.|job\.refused)/);
    if (/^a (test|change|screening|look|case)$|^hours$|^the start|^a job on/.test(name))
      expect(said).toEqual(['dust.refused dust.text']);
  });

  it('has nothing due, and is in no plan', async () => {
    await stateDust(context, 'CR-02', { ...who(), dust: dustBody('asbestos'), since: null });
    const { yard } = await loadBench(context, 'CR-02');
    const status = yard.machines.find((m) => m.machine.tag === 'CR-02');
    expect([status?.due, status?.need.kind]).toEqual([[], 'refused']);
    expect((await loadOutlook(context)).machines.map((m) => m.machine.tag)).not.toContain('CR-02');
    // Only that machine is out: the yard goes on.
    expect(yard.machines.filter((m) => m.due.length > 0).length).toBeGreaterThan(5);
  });
});

describe('what does not belong to this machine, or is not there', () => {
  it('a stage', async () => {
    const foreign = await stageOf('CR-05', 'safety bag');
    const refused = ['stage.unknown stageId'];
    await expectRefused(() => recordChange(context, 'CR-04', changeBody(foreign.id)), refused);
    await expectRefused(() => editRules(context, 'CR-04', { ...who(), stageId: foreign.id, rules: [] }), refused);
    await expectRefused(
      () => logLook(context, 'CR-04', { ...who(), day: '2026-11-23', stageId: foreign.id, share: 0.5 }),
      refused,
    );
    await expectRefused(
      () => recordIntegrity(context, 'CR-04', { ...who(), stageId: foreign.id, test: 'smoke', passed: true, note: '' }),
      refused,
    );
    await expectRefused(
      () => lockPlan(context, { ...who(), locks: [{ stageId: 99_999, day: '2026-11-30' }] }),
      ['stage.unknown locks'],
    );
    const own = await stageOf('CR-04', 'fleece bag');
    await expectRefused(
      () =>
        lockPlan(context, {
          ...who(),
          locks: [
            { stageId: own.id, day: '2026-11-30' },
            { stageId: 99_999, day: null },
          ],
        }),
      ['stage.unknown locks'],
    );
  });

  it('a part, an order', async () => {
    const bag = await stageOf('CR-04', 'fleece bag');
    const other = (await loadParts(context.db)).find((p) => p.id !== bag.part?.id);
    await expectRefused(
      () => countStock(context, { ...who(), partId: 99_999, counted: 1, note: '' }),
      ['part.unknown partId'],
    );
    await expectRefused(
      () => orderPart(context, { ...who(), partId: 99_999, packs: 1, arrivesOn: '2026-12-01' }),
      ['part.unknown partId'],
    );
    await expectRefused(
      () => orderPart(context, { ...who(), partId: other?.id ?? 0, packs: 1, arrivesOn: '2026-11-23' }),
      ['order.past arrivesOn'],
    );
    await expectRefused(() => orderArrived(context, { ...who(), orderId: 99_999 }), ['order.unknown orderId']);
    await expectRefused(
      () => recordChange(context, 'CR-04', changeBody(bag.id, { partId: other?.id ?? 0 })),
      ['part.wrong-for-stage partId'],
    );
    const bare = (await machineOf('CR-04')).stages.find((s) => s.part === null && s.kind === 'fan');
    await expectRefused(
      () => recordChange(context, 'CR-04', changeBody(bare?.id ?? 0)),
      ['stage.not-changeable stageId'],
    );
  });

  it('a record that is superseded, withdrawn, of another machine or none', async () => {
    const [test] = await loadTests(context.db, (await machineOf('CR-04')).id);
    const [change] = await loadChanges(context.db, 'UTC', (await machineOf('CR-04')).id);
    const slip = { supersedesId: test?.id ?? 0, correctionReason: 'slip' };
    await expectRefused(
      () => correctTest(context, 'CR-05', { ...testBody({ hoseBore: null }), ...slip }),
      ['test.unknown supersedesId'],
    );
    await expectRefused(() => withdrawTest(context, 'CR-05', { ...who(), ...slip }), ['test.unknown supersedesId']);
    expect(codes(await withdrawTest(context, 'CR-04', { ...who(), ...slip }))).toEqual(['accepted']);
    await expectRefused(
      () => withdrawTest(context, 'CR-04', { ...who(), ...slip }),
      ['record.superseded supersedesId'],
    );
    await expectRefused(
      () => correctTest(context, 'CR-04', { ...testBody(), ...slip }),
      ['record.superseded supersedesId'],
    );
    const wrong = { supersedesId: change?.id ?? 0, correctionReason: 'slip' };
    await expectRefused(
      () => withdrawChange(context, 'CR-05', { ...who(), ...wrong }),
      ['change.unknown supersedesId'],
    );
    expect(codes(await withdrawChange(context, 'CR-04', { ...who(), ...wrong }))).toEqual(['accepted']);
    await expectRefused(
      () => withdrawChange(context, 'CR-04', { ...who(), ...wrong }),
      ['record.superseded supersedesId'],
    );
  });

  it('a test of another machine before a change; a change is taken with its own', async () => {
    const bag = await stageOf('CR-04', 'fleece bag');
    const [foreign] = await loadTests(context.db, (await machineOf('CR-05')).id);
    const own = (await loadTests(context.db, (await machineOf('CR-04')).id)).at(-1);
    const change = (beforeTestId: number | null) =>
      recordChange(context, 'CR-04', changeBody(bag.id, { partId: bag.part?.id ?? null, beforeTestId }));
    await expectRefused(() => change(foreign?.id ?? 0), ['test.wrong-machine beforeTestId']);
    expect(codes(await change(own?.id ?? 0))).toEqual(['accepted']);
  });

  it('a job, a step of it, a photo of it', async () => {
    await expectRefused(
      () => doInJob(context, 'CR-02', { ...who(), jobId: 99_999, event: { kind: 'did', step: 0 }, partCode: '' }),
      ['job.unknown jobId'],
    );
    await expectRefused(
      () => keepPhoto(context, 'CR-02', { query: { ...who(), jobId: 99_999, step: 0 }, bytes: PNG }),
      ['job.unknown jobId'],
    );
    await expectRefused(
      () =>
        keepPhoto(context, 'CR-02', {
          query: { ...who(), jobId: 1, step: 0 },
          bytes: new TextEncoder().encode('<html>'),
        }),
      ['photo.not-image photo'],
    );
    await expectRefused(
      () =>
        keepPhoto(context, 'CR-02', {
          query: { ...who(), jobId: 1, step: 0 },
          bytes: new Uint8Array(8 * 1024 * 1024 + 1),
        }),
      ['photo.too-large photo'],
    );
  });
});

describe('days that cannot be', () => {
  it('hours, looks, examinations and decontaminations of tomorrow; a plan of yesterday; days away that run backwards', async () => {
    const bag = await stageOf('CR-04', 'fleece bag');
    const tomorrow = '2026-11-25';
    await expectRefused(
      () => logUsage(context, 'CR-04', { ...who(), day: tomorrow, hours: 2, dust: 'x' }),
      ['usage.future day'],
    );
    await expectRefused(
      () => logLook(context, 'CR-04', { ...who(), day: tomorrow, stageId: bag.id, share: 0.5 }),
      ['look.future day'],
    );
    await expectRefused(
      () => recordExamination(context, 'CR-04', { ...who(), on: tomorrow, examiner: 'firm', found: 'fine' }),
      ['examination.future on'],
    );
    await expectRefused(
      () => recordDecontaminated(context, 'CR-04', { ...who(), on: tomorrow, who: 'firm', paper: 'no 1' }),
      ['dust.since on'],
    );
    await expectRefused(
      () => stateDust(context, 'CR-04', { ...who(), dust: dustBody(), since: tomorrow }),
      ['dust.since since'],
    );
    await expectRefused(
      () => lockPlan(context, { ...who(), locks: [{ stageId: bag.id, day: '2026-11-23' }] }),
      ['plan.past locks'],
    );
    await expectRefused(
      () => logAway(context, 'CR-04', { ...who(), from: '2026-11-26', to: '2026-11-25', why: 'hire' }),
      ['away.backwards to'],
    );
    // Today is a day like any other for all of them.
    const day = NOW.slice(0, 10);
    expect(codes(await logUsage(context, 'CR-04', { ...who(), day, hours: 2, dust: 'x' }))).toEqual(['accepted']);
    expect(codes(await logLook(context, 'CR-04', { ...who(), day, stageId: bag.id, share: 0.5 }))).toEqual([
      'accepted',
    ]);
    expect(codes(await lockPlan(context, { ...who(), locks: [{ stageId: bag.id, day }] }))).toEqual(['accepted']);
    expect(codes(await logAway(context, 'CR-04', { ...who(), from: day, to: day, why: 'hire' }))).toEqual(['accepted']);
  });

  it('a fixed day is set free again, and the newest word for a stage counts', async () => {
    const bag = await stageOf('CR-04', 'fleece bag');
    const lock = (day: string | null) => lockPlan(context, { ...who(), locks: [{ stageId: bag.id, day }] });
    expect(codes(await lock('2026-12-04'))).toEqual(['accepted']);
    expect(codes(await lock(null))).toEqual(['accepted']);
    const rows = await context.db.selectFrom('plan_lock').selectAll().where('stage_id', '=', bag.id).execute();
    expect(rows.map((r) => [r.day, r.by_initials])).toEqual([
      ['2026-12-04', 'MK'],
      [null, 'MK'],
    ]);
  });
});

describe('rules that cannot be', () => {
  it('counting a stage of another machine or itself, and a ring of "only after"', async () => {
    const [bag, wrap, hepa] = await Promise.all(
      ['tank bag', 'pre-filter wrap', 'HEPA'].map((name) => stageOf('CR-07', name)),
    );
    const foreign = await stageOf('CR-05', 'safety bag');
    if (!bag || !wrap || !hepa) throw new Error('no stages');
    const rules = (stageId: number, ...list: readonly Rule[]) =>
      editRules(context, 'CR-07', { ...who(), stageId, rules: list.map((rule) => ({ rule, school: '' })) });
    const after = (id: number, name: string): Rule => ({
      kind: 'together',
      stageId: id,
      stageName: name,
      how: 'rightAfter',
    });
    const counted = (id: number): Rule => ({
      kind: 'countOfChanges',
      countedStageId: id,
      countedStageName: 'bag',
      count: 5,
    });
    await expectRefused(() => rules(wrap.id, { kind: 'indicator' }, counted(foreign.id)), ['stage.unknown rules.1']);
    await expectRefused(() => rules(wrap.id, counted(wrap.id)), ['stage.unknown rules.0']);
    await expectRefused(() => rules(wrap.id, after(foreign.id, 'bag')), ['stage.unknown rules.0']);
    expect(codes(await rules(wrap.id, after(hepa.id, 'HEPA')))).toEqual(['accepted']);
    await expectRefused(() => rules(hepa.id, after(wrap.id, 'wrap')), ['rule.circular rules']);
    expect(codes(await rules(wrap.id))).toEqual(['accepted']);
    expect((await stageOf('CR-07', 'pre-filter wrap')).rules).toEqual([]);
  });
});

describe('a machine that is there already, an edit that comes too late', () => {
  it('a tag is taken whatever the letters; the first editor wins', async () => {
    const path = await pathOf('CR-02');
    const fresh = { ...path, stages: path.stages.map((s) => ({ ...s, id: null })) };
    await expectRefused(
      () =>
        newMachine(context, {
          ...who(),
          note: '',
          tag: 'cr-02',
          kind: 'shopVacuum',
          firstUsedOn: null,
          dust: dustBody(),
          path: fresh,
        }),
      ['machine.tag-taken tag'],
    );
    const { editedThrough } = await machineOf('CR-02');
    const renamed = { ...path, machine: { ...path.machine, name: 'Godwit' } };
    expect(codes(await editPath(context, 'CR-02', { ...who(), note: '', seen: editedThrough, path: renamed }))).toEqual(
      ['accepted'],
    );
    await expectRefused(
      () => editPath(context, 'CR-02', { ...who(), note: '', seen: editedThrough, path: renamed }),
      ['edit.stale seen'],
    );
    expect((await machineOf('CR-02')).name).toBe('Godwit');
  });
});
