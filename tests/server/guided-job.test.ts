import { beforeEach, describe, expect, it } from 'vitest';
import type { StartJobBody } from '@/contracts/job';
import type { Result } from '@/core/failure/failure';
import { doNotRun, type JobEvent, jobState } from '@/core/procedure/job-log';
import type { Db } from '@/server/db/connect';
import { loadChanges } from '@/server/repositories/changes';
import { loadJobs } from '@/server/repositories/jobs';
import { findMachine } from '@/server/repositories/machines';
import { loadYard } from '@/server/services/yard/yard';
import { loadParts } from '@/server/repositories/stock';
import { doInJob, openJobOf } from '@/server/services/jobs/guided-job';
import { withdrawChange } from '@/server/services/jobs/record-change';
import { startJob } from '@/server/services/jobs/start-job';
import type { Context } from '@/server/services/yard/user-action';
import { dustBody } from '../support/bodies';
import { demoContext, newId, NOW } from '../support/database';

let context: Context & { readonly db: Db };
beforeEach(async () => {
  context = await demoContext();
});

const codes = (r: Result<unknown>) =>
  r.ok
    ? ['accepted']
    : r.failures.map((f) =>
        `${f.code} ${String(f.facts['why'] ?? f.facts['holder'] ?? f.facts['stage'] ?? f.path)}`.trim(),
      );
const machine = async (tag: string) => {
  const found = await findMachine(context.db, tag);
  if (!found) throw new Error(`no ${tag}`);
  return found;
};
const stage = async (tag: string, name: string) => (await machine(tag)).stages.findIndex((s) => s.name === name);
const start = async (tag: string, job: StartJobBody['job'], over: Partial<StartJobBody> = {}) =>
  startJob(context, tag, {
    clientId: newId(),
    by: 'MK',
    dust: dustBody(),
    reason: 'fill',
    people: 1,
    partInHand: false,
    job,
    ...over,
  });
const begun = async (tag: string, name: string, school: 'off' | 'headAside' = 'off') => {
  const r = await start(tag, { kind: 'change', stage: await stage(tag, name), school });
  if (!r.ok) throw new Error(codes(r).join());
  return r.value.id;
};
const act = (tag: string, jobId: number, event: JobEvent, by = 'MK') =>
  doInJob(context, tag, { clientId: newId(), by, jobId, event, partCode: '' });
const record = async (tag: string, id: number) => {
  const job = (await loadJobs(context.db, (await machine(tag)).id)).find((j) => j.id === id);
  if (!job) throw new Error('no job');
  return job;
};
const onHand = async (code: string) => (await loadParts(context.db)).find((p) => p.code === code)?.onHand ?? Number.NaN;

/** Walks on until a step of a kind is next, or to the end. */
const walk = async (tag: string, id: number, until?: string) => {
  for (let i = 0; i < 60; i += 1) {
    const job = await record(tag, id);
    const { at } = jobState(job);
    const step = job.procedure.steps[at];
    if (!step || step.key === until) return;
    const done = await act(
      tag,
      id,
      step.check
        ? { kind: 'answered', step: at, right: true, note: '' }
        : step.key === 'screenCleanSide'
          ? { kind: 'leftOut', step: at, because: 'seen later' }
          : { kind: 'did', step: at },
    );
    if (!done.ok) throw new Error(codes(done).join());
  }
};

describe('the job under way on a machine', () => {
  const open = async (tag: string) => {
    const r = await openJobOf(context, tag);
    if (!r.ok) throw new Error(codes(r).join());
    return r.value;
  };

  it('is none where none is open, and the newest that is not ended', async () => {
    expect(await open('CR-02')).toMatchObject({ record: null, changeIds: [], now: NOW });
    const first = await begun('CR-02', 'paper bag');
    expect((await open('CR-02')).record?.id).toBe(first);
    await act('CR-02', first, { kind: 'abandoned', because: 'called away' });
    expect((await open('CR-02')).record).toBeNull();
    const second = await begun('CR-02', 'paper bag');
    expect((await open('CR-02')).record?.id).toBe(second);
  });

  it('names its own changes, no older ones, and those that still stand', async () => {
    const id = await begun('CR-02', 'paper bag');
    const before = (await loadChanges(context.db, 'UTC', (await machine('CR-02')).id)).length;
    expect(before).toBeGreaterThan(0);
    expect((await open('CR-02')).changeIds).toEqual([]);
    await walk('CR-02', id, 'disposeOld');
    const { changeIds } = await open('CR-02');
    expect(changeIds).toHaveLength(1);
    const filed = (await loadChanges(context.db, 'UTC', (await machine('CR-02')).id)).find(
      (c) => c.id === changeIds[0],
    );
    expect(filed).toMatchObject({ jobId: id, voided: false });
    const withdrawn = await withdrawChange(context, 'CR-02', {
      clientId: newId(),
      by: 'MK',
      supersedesId: changeIds[0] ?? 0,
      correctionReason: 'slip',
    });
    expect(withdrawn.ok).toBe(true);
    expect((await open('CR-02')).changeIds).toEqual([]);
  });

  it('says what a fine filter still has to pass, by the stages of the machine', async () => {
    const { integrity } = await open('CR-02');
    expect(integrity).toEqual([]);
    const hepa = await begun('CR-05', 'main filter');
    await walk('CR-05', hepa, 'integrityTest');
    const due = (await open('CR-05')).integrity;
    const filter = (await machine('CR-05')).stages.find((s) => s.name === 'main filter');
    expect(due.map((d) => d.stageId)).toContain(filter?.id);
    expect(due.find((d) => d.stageId === filter?.id)?.due).toEqual(expect.arrayContaining(['cleanSide', 'smoke']));
  });
});

describe('a guided change', () => {
  it('starts with the hazard, one at a time, and only when it may be done', async () => {
    const bag = { kind: 'change', stage: await stage('CR-02', 'paper bag'), school: 'off' } as const;
    // It stays refused, whatever is typed next.
    const other = { kind: 'change', stage: await stage('CR-16', 'paper bag'), school: 'off' } as const;
    expect(codes(await start('CR-16', other, { dust: dustBody('asbestos') }))).toEqual(['dust.refused dust.text']);
    expect(codes(await start('CR-16', other))).toEqual(['dust.refused dust.text']);
    expect(codes(await start('CR-99', bag))).toEqual(['machine.unknown']);
    expect(codes(await start('CR-02', { ...bag, school: 'running' }))).toEqual(['procedure.school paper bag']);
    expect(codes(await start('CR-02', bag))).toEqual(['accepted']);
    expect(codes(await start('CR-02', bag, { by: 'TO' }))).toEqual(['job.open MK']);
    // A pre-filter wrap goes in only right after a bag.
    const wrap = { kind: 'change', stage: await stage('CR-07', 'pre-filter wrap'), school: 'headAside' } as const;
    expect(codes(await start('CR-07', wrap))).toEqual(['job.not-yet tank bag']);
    const tank = await begun('CR-07', 'tank bag', 'headAside');
    await walk('CR-07', tank);
    await act('CR-07', tank, { kind: 'finished', wasteKg: null });
    expect(codes(await start('CR-07', wrap))).toEqual(['accepted']);
  });

  it('walked to its end it takes one part from stock, stands in the file, and was "do not run" while it was open', async () => {
    const before = await onHand('B-SHOP');
    const id = await begun('CR-02', 'paper bag');
    await walk('CR-02', id, 'bagOld');
    expect(doNotRun(jobState(await record('CR-02', id)))).toBe(true);
    expect(await onHand('B-SHOP')).toBe(before - 1);
    expect(codes(await act('CR-02', id, { kind: 'finished', wasteKg: null }))).toEqual(['job.refused unfinished']);
    // Back before the shelf and done again: the part is taken once.
    await act('CR-02', id, { kind: 'back', step: 1 });
    await walk('CR-02', id);
    expect(codes(await act('CR-02', id, { kind: 'finished', wasteKg: null }))).toEqual(['accepted']);
    expect(await onHand('B-SHOP')).toBe(before - 1);
    const { id: machineId } = await machine('CR-02');
    expect((await loadChanges(context.db, 'UTC', machineId)).at(-1)).toMatchObject({
      quantity: 1,
      note: `Guided, job ${id}.`,
    });
    expect(codes(await act('CR-02', id, { kind: 'back', step: 0 }))).toEqual(['job.refused ended']);
  });

  it('given up before the new part is in, it goes back to the shelf; never while the machine stands open', async () => {
    const before = await onHand('B-SHOP');
    const id = await begun('CR-02', 'paper bag');
    await walk('CR-02', id, 'open');
    expect(codes(await act('CR-02', id, { kind: 'abandoned', because: 'called away' }))).toEqual(['accepted']);
    expect(await onHand('B-SHOP')).toBe(before);
    const again = await begun('CR-02', 'paper bag');
    await walk('CR-02', again, 'bagOld');
    expect(codes(await act('CR-02', again, { kind: 'abandoned', because: 'fire alarm' }))).toEqual([
      'job.refused openStill',
    ]);
  });

  it('a machine that stands open is first on the board, whatever else is due', async () => {
    const first = async () => (await loadYard(context)).machines[0]?.machine.tag;
    expect(await first()).not.toBe('CR-02');
    const id = await begun('CR-02', 'paper bag');
    await walk('CR-02', id, 'bagOld');
    expect(await first()).toBe('CR-02');
  });

  it('two tablets: the second is told who has it, and may take it over; a check left out is in the file with its reason', async () => {
    const id = await begun('CR-04', 'fleece bag');
    expect(codes(await act('CR-04', id, { kind: 'did', step: 0 }, 'TO'))).toEqual(['job.refused notHolder']);
    expect(codes(await act('CR-04', id, { kind: 'tookOver' }, 'TO'))).toEqual(['accepted']);
    expect(codes(await act('CR-04', id, { kind: 'did', step: 0 }))).toEqual(['job.refused notHolder']);
    await act('CR-04', id, { kind: 'tookOver' });
    const job = await record('CR-04', id);
    const collar = job.procedure.steps.findIndex((s) => s.check === 'collarStraight');
    for (let i = 0; i < collar; i += 1)
      await act(
        'CR-04',
        id,
        job.procedure.steps[i]?.check ? { kind: 'answered', step: i, right: true, note: '' } : { kind: 'did', step: i },
      );
    await act('CR-04', id, { kind: 'leftOut', step: collar, because: 'no light in the bay' });
    await walk('CR-04', id);
    await act('CR-04', id, { kind: 'finished', wasteKg: null });
    expect([...jobState(await record('CR-04', id)).leftOut.values()]).toEqual(['no light in the bay']);
  });
});
