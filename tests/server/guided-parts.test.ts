import { beforeEach, describe, expect, it } from 'vitest';
import { readFileSync } from 'node:fs';
import type { IntegrityBody } from '@/contracts/dust';
import type { JobActionBody, QuickJobBody, StartJobBody } from '@/contracts/job';
import { classStanding } from '@/core/machine/machine';
import { type JobEvent, jobState } from '@/core/procedure/job-log';
import { sayHeld } from '@/messages/job';
import type { Db } from '@/server/db/connect';
import { loadChanges } from '@/server/repositories/changes';
import { loadJobs } from '@/server/repositories/jobs';
import { findMachine } from '@/server/repositories/machines';
import { loadParts } from '@/server/repositories/stock';
import { doInJob, openJobOf, quickJob } from '@/server/services/jobs/guided-job';
import { recordIntegrity } from '@/server/services/jobs/integrity-check';
import { keepPhoto } from '@/server/services/jobs/job-photo';
import { MAX_PHOTO_BYTES } from '@/server/services/house/picture';
import { recordTest } from '@/server/services/measuring/record-test';
import { startJob } from '@/server/services/jobs/start-job';
import { loadStockDesk } from '@/server/services/stock/stock-desk';
import type { Context } from '@/server/services/yard/user-action';
import { dustBody, readings, testBody } from '../support/bodies';
import { said } from '../support/said';
import { demoContext, newId, NOW } from '../support/database';

let clock = NOW;
let context: Context & { readonly db: Db };
beforeEach(async () => {
  clock = NOW;
  context = { ...(await demoContext()), now: () => clock };
});
const pass = (minutes: number) => {
  clock = new Date(Date.parse(clock) + minutes * 60_000).toISOString();
};

const machine = async (tag: string) => (await findMachine(context.db, tag)) ?? Promise.reject(new Error(`no ${tag}`));
const positionOf = async (tag: string, name: string) => (await machine(tag)).stages.findIndex((s) => s.name === name);
const onHand = async (code: string) => (await loadParts(context.db)).find((p) => p.code === code)?.onHand ?? Number.NaN;
const start = (tag: string, job: StartJobBody['job'], over: Partial<StartJobBody> = {}) =>
  startJob(context, tag, {
    clientId: newId(),
    by: 'MK',
    dust: dustBody(),
    reason: 'gauge',
    people: 1,
    partInHand: false,
    job,
    ...over,
  });
const begin = async (tag: string, name: string, over: Partial<StartJobBody> = {}) => {
  const r = await start(tag, { kind: 'change', stage: await positionOf(tag, name), school: 'off' }, over);
  if (!r.ok) throw new Error(said(r));
  return r.value.id;
};
const act = (tag: string, jobId: number, event: JobEvent, over: Partial<JobActionBody> = {}) =>
  doInJob(context, tag, { clientId: newId(), by: 'MK', jobId, event, partCode: '', ...over });
const job = async (tag: string, id: number) =>
  (await loadJobs(context.db, (await machine(tag)).id)).find((j) => j.id === id) ?? Promise.reject(new Error('no job'));
const stateOf = async (tag: string, id: number) => jobState(await job(tag, id));
const finish = (tag: string, id: number) => act(tag, id, { kind: 'finished', wasteKg: null });

/** Walks on, a minute a step, until a step is next, or to the end; says what the last answer was. */
const walk = async (tag: string, id: number, until?: string) => {
  for (let i = 0; i < 70; i += 1) {
    const { at, steps } = await stateOf(tag, id);
    const step = steps[at];
    if (!step || (until !== undefined && [step.key, step.check, step.moves].includes(until as never))) return;
    pass(1);
    const done = await act(
      tag,
      id,
      step.check
        ? { kind: 'answered', step: at, right: true, note: '' }
        : step.key === 'screenCleanSide'
          ? { kind: 'leftOut', step: at, because: 'seen later' }
          : { kind: 'did', step: at },
    );
    if (!done.ok) throw new Error(`${step.key}: ${said(done)}`);
  }
};
/** What a whole swap job leaves: the light out, or on again and everything back; or both parts spent. */
const swap = async (tag: string, name: string, light: 'out' | 'back' | 'unseen') => {
  const id = await begin(tag, name);
  await walk(tag, id, 'lightOut');
  const { at } = await stateOf(tag, id);
  if (light === 'back') await act(tag, id, { kind: 'turnedBack', step: at });
  if (light === 'unseen')
    await act(tag, id, { kind: 'leftOut', step: at, because: 'still lit: the one before it is spent too' });
  await walk(tag, id, 'integrityTest');
  const end = await stateOf(tag, id);
  if (end.steps[end.at]) await act(tag, id, { kind: 'leftOut', step: end.at, because: 'no counter' });
  await walk(tag, id);
  expect(said(await finish(tag, id))).toBe('accepted');
};
const changesOf = async (tag: string) =>
  (await loadChanges(context.db, 'UTC', (await machine(tag)).id)).filter((c) => c.jobId !== null);

describe('the swap of pre-filter and HEPA: net use (HANDBOOK 10; common practice, no published source)', () => {
  const net = async (walkIt: () => Promise<void>) => {
    const before = [await onHand('F-FUMEP'), await onHand('F-FUMEH')] as const;
    await walkIt();
    return [
      (await onHand('F-FUMEP')) - before[0],
      (await onHand('F-FUMEH')) - before[1],
      (await changesOf('CR-09')).length,
    ];
  };
  it('it was the pre-filter: one is used', async () =>
    expect(await net(() => swap('CR-09', 'pre-filter', 'out'))).toEqual([-1, 0, 1]));
  it('it was the HEPA: the ORIGINAL pre-filter went back, the new one to the shelf', async () =>
    expect(
      await net(async () => {
        await swap('CR-09', 'pre-filter', 'back');
        await swap('CR-09', 'HEPA', 'out');
      }),
    ).toEqual([0, -1, 1]));
  it('both were spent: one of each', async () =>
    expect(
      await net(async () => {
        await swap('CR-09', 'pre-filter', 'back');
        await swap('CR-09', 'HEPA', 'unseen');
        await swap('CR-09', 'pre-filter', 'out');
      }),
    ).toEqual([-1, -1, 2]));
  it('neither: nothing is used and nothing is in the file as changed', async () =>
    expect(
      await net(async () => {
        await swap('CR-09', 'pre-filter', 'back');
        await swap('CR-09', 'HEPA', 'back');
      }),
    ).toEqual([0, 0, 0]));
});

describe('a job that is given up at its end', () => {
  it('what came back to the shelf by itself is not returned a second time', async () => {
    const before = await onHand('F-FUMEP');
    const id = await begin('CR-09', 'pre-filter');
    await walk('CR-09', id, 'lightOut');
    await act('CR-09', id, { kind: 'turnedBack', step: (await stateOf('CR-09', id)).at });
    await walk('CR-09', id);
    expect(await onHand('F-FUMEP')).toBe(before);
    expect(said(await act('CR-09', id, { kind: 'abandoned', because: 'called away' }))).toBe('accepted');
    expect(await onHand('F-FUMEP')).toBe(before);
  });

  it('what is in the machine stays used', async () => {
    const before = await onHand('B-SHOP');
    const id = await begin('CR-02', 'paper bag');
    await walk('CR-02', id);
    expect(said(await act('CR-02', id, { kind: 'abandoned', because: 'called away' }))).toBe('accepted');
    expect(await onHand('B-SHOP')).toBe(before - 1);
  });
});

describe('parts through a job', () => {
  it('a HEPA job reserves its wrap, takes both, and both changes are in the file with their reason', async () => {
    const before = [await onHand('F-HEPA'), await onHand('F-WRAP')] as const;
    const id = await begin('CR-07', 'HEPA', { reason: 'date' });
    const held = async () =>
      (await loadStockDesk(context)).lines.flatMap((l) => l.held.map((h) => `${l.part.code} ${h.state}`)).sort();
    expect(await held()).toEqual(['F-HEPA reserved', 'F-WRAP reserved']);
    // At the step that takes them, before it is done, they are still reserved.
    await walk('CR-07', id, 'takeNew');
    expect(await held()).toEqual(['F-HEPA reserved', 'F-WRAP reserved']);
    await walk('CR-07', id, 'bagOld');
    expect(await held()).toEqual(['F-HEPA out', 'F-WRAP out']);
    await walk('CR-07', id, 'integrityTest');
    expect([await onHand('F-HEPA'), await onHand('F-WRAP')]).toEqual([before[0] - 1, before[1] - 1]);
    expect((await changesOf('CR-07')).map((c) => [c.reason, c.quantity])).toEqual([
      ['date', 1],
      ['date', 1],
    ]);
  });

  it('what another job has reserved is not free; none on the shelf is said, and gone past only by saying so', async () => {
    const wraps = await onHand('F-WRAP');
    await begin('CR-07', 'HEPA');
    const parts = await loadParts(context.db);
    const wrap = parts.find((p) => p.code === 'F-WRAP');
    await context.db
      .insertInto('stock_movement')
      .values({
        part_id: wrap?.id ?? 0,
        quantity: 1 - wraps,
        reason: 'counted',
        at: NOW,
        by_initials: 'MK',
        change_id: null,
        note: '',
      })
      .execute();
    const hepa14 = { kind: 'change', stage: await positionOf('CR-14', 'HEPA'), school: 'off' } as const;
    expect(said(await start('CR-14', hepa14))).toBe('job.no-stock partInHand');
    expect(said(await start('CR-14', hepa14, { partInHand: true }))).toBe('accepted');
  });

  it('a wrong pack is refused with what would fit; the right one is taken, whatever the case of its letters', async () => {
    const id = await begin('CR-02', 'paper bag');
    await walk('CR-02', id, 'takeNew');
    const { at } = await stateOf('CR-02', id);
    expect(said(await act('CR-02', id, { kind: 'did', step: at }, { partCode: 'F-HEPA' }))).toMatch(
      /^part.wrong-for-stage .*B-SHOP$/,
    );
    expect(said(await act('CR-02', id, { kind: 'did', step: at }, { partCode: 'b-shop' }))).toBe('accepted');
  });

  it('what was measured in the two days before is its "as found"; an older test is not', async () => {
    const before = async () => {
      await walk('CR-02', await begin('CR-02', 'paper bag'), 'collarStraight');
      return (await changesOf('CR-02')).at(-1)?.beforeTestId ?? null;
    };
    const measured = await recordTest(
      context,
      'CR-02',
      testBody({ performedAt: NOW, hoseBore: { typed: '36', unit: 'mm' } }),
    );
    const testId = measured.ok ? measured.value.id : 0;
    pass(49 * 60);
    expect(await before()).toBeNull();
    context = { ...(await demoContext()), now: () => clock };
    clock = NOW;
    const again = await recordTest(
      context,
      'CR-02',
      testBody({ performedAt: NOW, hoseBore: { typed: '36', unit: 'mm' } }),
    );
    pass(47 * 60);
    expect(await before()).toBe(again.ok ? again.value.id : testId);
  });

  it('while the old part is held it is said where; put back, nothing is held any more', async () => {
    const id = await begin('CR-09', 'pre-filter');
    await walk('CR-09', id, 'lightOut');
    const lines = (await loadStockDesk(context)).lines.find((l) => l.part.code === 'F-FUMEP')?.held ?? [];
    expect(lines.map(sayHeld)).toEqual([
      `1 new, on trial or being fitted: CR-09, job ${id}`,
      `1 old one kept, bagged and tagged: CR-09, job ${id}`,
    ]);
    await act('CR-09', id, { kind: 'turnedBack', step: (await stateOf('CR-09', id)).at });
    await walk('CR-09', id);
    expect((await loadStockDesk(context)).lines.find((l) => l.part.code === 'F-FUMEP')?.held).toEqual([]);
  });
});

describe('integrity after the change', () => {
  const signed = (stageId: number) => ({ clientId: newId(), by: 'MK', stageId });
  const seen = (tag: string, stageId: number, test: 'cleanSide' | 'smoke', passed = true) =>
    recordIntegrity(context, tag, { ...signed(stageId), test, passed, note: '' });
  const judge = (tag: string, stageId: number) =>
    recordIntegrity(context, tag, { ...signed(stageId), test: 'particles', note: '' });
  const paper = (
    tag: string,
    stageId: number,
    percent: number,
    over: Partial<Extract<IntegrityBody, { test: 'penetration' }>> = {},
  ) =>
    recordIntegrity(context, tag, {
      ...signed(stageId),
      test: 'penetration',
      testedOn: clock.slice(0, 10),
      tester: 'the test firm',
      method: 'photometer',
      certificate: 'P-7',
      percent,
      nextDueOn: null,
      ...over,
    });
  const count = (tag: string, exhaust: string, room: string, sizeUm = 0.3) =>
    recordTest(
      context,
      tag,
      testBody({
        performedAt: clock,
        method: 'particles',
        place: 'outlet',
        hoseBore: null,
        detail: {
          kind: 'particles',
          sizeUm,
          flow: { typed: '2.83', unit: 'L/min' },
          exhaustTime: { typed: '60', unit: 's' },
          roomTime: { typed: '60', unit: 's' },
        },
        readings: readings('counts', exhaust, room),
      }),
    );

  it('suspended from the moment the new filter is in; 600 of 900 fails it; screened it waits for its penetration test, and only that brings the H back', async () => {
    const tag = 'CR-05';
    const stageId = (await machine(tag)).stages.find((s) => s.name === 'main filter')?.id ?? 0;
    expect(classStanding(await machine(tag)).label).toBe('H');
    const id = await begin(tag, 'main filter');
    await walk(tag, id, 'integrityTest');
    expect(classStanding(await machine(tag))).toMatchObject({ label: null, gap: { because: 'untested' } });
    const { at } = await stateOf(tag, id);
    expect(said(await act(tag, id, { kind: 'did', step: at }))).toBe('job.untested cleanSide,smoke,particles');
    await seen(tag, stageId, 'cleanSide');
    await seen(tag, stageId, 'smoke');
    expect(said(await judge(tag, stageId))).toBe('integrity.no-count test');
    expect(said(await count(tag, '600', '900'))).toBe('accepted');
    expect(said(await judge(tag, stageId))).toBe('accepted');
    expect(classStanding(await machine(tag))).toMatchObject({ label: null, gap: { because: 'failed' } });
    // Coarse particles screen nothing; nothing through of few in the room cannot tell; nothing of many screens.
    pass(2);
    await count(tag, '0', '90000', 5);
    expect(said(await judge(tag, stageId))).toBe('integrity.no-count test');
    pass(2);
    await count(tag, '0', '300');
    expect(said(await judge(tag, stageId))).toBe('integrity.not-shown test');
    pass(2);
    await count(tag, '0', '2547');
    expect(said(await judge(tag, stageId))).toBe('accepted');
    expect(said(await act(tag, id, { kind: 'did', step: at }))).toBe('accepted');
    expect(classStanding(await machine(tag))).toMatchObject({ label: null, gap: { because: 'unproven' } });
    pass(3 * 24 * 60);
    expect(said(await paper(tag, stageId, 0.2))).toBe('accepted');
    expect(classStanding(await machine(tag))).toMatchObject({ gap: { because: 'failed' } });
    pass(60);
    expect(said(await paper(tag, stageId, 0.003))).toBe('accepted');
    expect(classStanding(await machine(tag)).label).toBe('H');
  });

  it('asks only for what is due there', async () => {
    const bag = (await machine('CR-05')).stages.find((s) => s.kind === 'bag')?.id ?? 0;
    expect(said(await seen('CR-05', bag, 'smoke'))).toBe('integrity.not-due test');
    expect(said(await seen('CR-05', 99_999, 'smoke'))).toBe('stage.unknown stageId');
  });
});

describe('on one sheet', () => {
  const sheet = (stage: number, over: Partial<QuickJobBody> = {}): QuickJobBody => ({
    clientId: newId(),
    by: 'MK',
    job: { kind: 'change', stage, school: 'off' },
    dust: dustBody(),
    reason: 'fill',
    partInHand: false,
    answers: [],
    wasteKg: 0.9,
    ...over,
  });
  const right = { kind: 'right' } as const;

  it('a plain bag: every question answered, one record, one part, however often it is sent', async () => {
    const before = await onHand('B-SHOP');
    const body = sheet(await positionOf('CR-02', 'paper bag'), {
      answers: [right, { kind: 'leftOut', because: 'too dark' }, right, right],
    });
    const first = await quickJob(context, 'CR-02', body);
    expect(said(first)).toBe('accepted');
    expect(await quickJob(context, 'CR-02', body)).toEqual(first);
    expect(await onHand('B-SHOP')).toBe(before - 1);
    expect(await changesOf('CR-02')).toHaveLength(1);
    const state = await stateOf('CR-02', first.ok ? first.value.id : 0);
    expect([...state.leftOut.values()]).toEqual(['too dark']);
    expect(state.ended?.event).toEqual({ kind: 'finished', wasteKg: 0.9 });
  });

  it('leaves nothing behind when a question has no answer, and a contained change is walked', async () => {
    const before = await onHand('B-SHOP');
    const bag = await positionOf('CR-02', 'paper bag');
    expect(said(await quickJob(context, 'CR-02', sheet(bag, { answers: [right] })))).toBe('job.refused unfinished');
    expect(said(await quickJob(context, 'CR-02', sheet(bag, { dust: dustBody('lead paint') })))).toBe(
      'job.walk-it dust.text',
    );
    expect(await onHand('B-SHOP')).toBe(before);
    expect((await openJobOf(context, 'CR-02')).ok && (await loadJobs(context.db, (await machine('CR-02')).id))).toEqual(
      [],
    );
  });
});

describe('what else a job keeps', () => {
  it('photos: a picture by its bytes, kept with its step; what is none, or too large, is refused', async () => {
    const id = await begin('CR-02', 'paper bag');
    const png = new Uint8Array(readFileSync('docs/screenshots/bench.png'));
    const keep = (bytes: Uint8Array, step = 1) =>
      keepPhoto(context, 'CR-02', { query: { clientId: newId(), by: 'MK', jobId: id, step }, bytes });
    expect(said(await keep(png))).toBe('accepted');
    expect((await job('CR-02', id)).events.at(-1)?.event).toMatchObject({ kind: 'photo', step: 1 });
    expect(said(await keep(new TextEncoder().encode('<svg onload=alert(1)>')))).toBe('photo.not-image photo');
    // The same picture with a width of nothing: bytes 16 to 19 of a PNG (ISO/IEC 15948, 11.2.2 IHDR).
    expect(said(await keep(png.map((b, i) => (i >= 16 && i < 20 ? 0 : b))))).toBe('photo.not-image photo');
    expect(said(await keep(new Uint8Array(MAX_PHOTO_BYTES + 1)))).toBe('photo.too-large photo');
    // A picture that claims to be larger than any camera's, one with a page hidden behind it, and one cut short.
    const sized = (width: number, height: number) =>
      png.map((b, i) => (i >= 16 && i < 24 ? ((i < 20 ? width : height) >>> (8 * (3 - ((i - 16) % 4)))) & 255 : b));
    expect(said(await keep(sized(2 ** 31 - 1, 2 ** 31 - 1)))).toBe('photo.not-image photo');
    expect(said(await keep(sized(60_000, 60_000)))).toBe('photo.not-image photo');
    expect(said(await keep(Uint8Array.from([...png, ...new TextEncoder().encode('<script>alert(1)</script>')])))).toBe(
      'photo.not-image photo',
    );
    expect(said(await keep(png.slice(0, -9)))).toBe('photo.not-image photo');
    // The same id with another picture of equal size is another request; a line without a picture is no evidence.
    const query = { clientId: newId(), by: 'MK', jobId: id, step: 1 };
    expect(said(await keepPhoto(context, 'CR-02', { query, bytes: png }))).toBe('accepted');
    const other = png.map((b, i) => (i === 40 ? b ^ 1 : b));
    expect(said(await keepPhoto(context, 'CR-02', { query, bytes: other }))).toBe('action.reused clientId');
    expect(said(await act('CR-02', id, { kind: 'photo', step: 1, photoId: 1 }))).toBe('photo.unknown event');
    expect(said(await keep(png, 150))).toBe('job.refused notNext');
  });

  it('a clock that is set back does not turn the log round', async () => {
    const id = await begin('CR-02', 'paper bag');
    await act('CR-02', id, { kind: 'did', step: 1 });
    pass(-600);
    expect(said(await act('CR-02', id, { kind: 'did', step: 2 }))).toBe('accepted');
    const times = (await job('CR-02', id)).events.map((e) => e.at);
    expect(times).toEqual([...times].sort());
  });

  it('commissioning starts the timers at first use, of what was never changed', async () => {
    const r = await start('CR-16', { kind: 'commissioning' });
    if (!r.ok) throw new Error(said(r));
    await walk('CR-16', r.value.id);
    expect((await machine('CR-16')).stages.every((s) => s.firstUsedOn === NOW.slice(0, 10))).toBe(true);
  });

  it('the demo holds a rinsed filter that dries: answered too early it is refused, in time it is accepted', async () => {
    const open = await openJobOf(context, 'CR-12');
    const record = open.ok ? open.value.record : null;
    const { at, driesUntil } = jobState(record as never);
    const dry = { kind: 'answered', step: at, right: true, note: '' } as const;
    expect(said(await act('CR-12', record?.id ?? 0, dry, { by: 'TO' }))).toBe('job.refused wet');
    clock = driesUntil ?? NOW;
    expect(said(await act('CR-12', record?.id ?? 0, dry, { by: 'TO' }))).toBe('accepted');
  });
});
