import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Migrator, sql } from 'kysely';
import { beforeEach, describe, expect, it } from 'vitest';
import { boardTags } from '@/view-models/board-tags';
import { StoredSnapshotJson } from '@/contracts/machine-edit';
import { builtIn } from '@/core/dust/register';
import type { Result } from '@/core/failure/failure';
import { classStanding } from '@/core/machine/machine';
import { type Db, migrate, openDatabase } from '@/server/db/connect';
import { MIGRATIONS } from '@/server/db/migrations';
import { loadChanges } from '@/server/repositories/changes';
import { findMachine } from '@/server/repositories/machines';
import { loadBench } from '@/server/services/measuring/bench';
import { doInCase, openFaultCase } from '@/server/services/jobs/find-case';
import { doInJob, quickJob } from '@/server/services/jobs/guided-job';
import { planYard } from '@/server/services/plan/plan-yard';
import { recordChange } from '@/server/services/jobs/record-change';
import { startJob } from '@/server/services/jobs/start-job';
import { editDust, recordDecontaminated, recordExamination, stateDust } from '@/server/services/yard/state-dust';
import type { Context } from '@/server/services/yard/user-action';
import { type JobEvent, jobState } from '@/core/procedure/job-log';
import { provedBy } from '@/core/procedure/step';
import { recordIntegrity } from '@/server/services/jobs/integrity-check';
import { loadJobs } from '@/server/repositories/jobs';
import { changeBody, dustBody } from '../support/bodies';
import { demoContext, newId, NOW } from '../support/database';

let clock = NOW;
let context: Context & { readonly db: Db };
beforeEach(async () => {
  clock = NOW;
  context = { ...(await demoContext()), now: () => clock };
});

const said = (r: Result<unknown>) => (r.ok ? 'accepted' : `${r.failures[0]?.code} ${r.failures[0]?.path}`.trim());
const machine = async (tag: string) => (await findMachine(context.db, tag)) ?? Promise.reject(new Error(`no ${tag}`));
const stageOf = async (tag: string, name: string) =>
  (await machine(tag)).stages.find((s) => s.name === name) ?? Promise.reject(new Error(`no ${name}`));
const positionOf = async (tag: string, name: string) => (await machine(tag)).stages.findIndex((s) => s.name === name);
const openCase = (tag: string, dust = dustBody(), school: 'best' | 'takeOut' = 'best') =>
  openFaultCase(context, tag, { clientId: newId(), by: 'MK', complaint: 'noSuction', words: '', dust, school });
const begin = async (tag: string, stage: string, dust = dustBody()) =>
  startJob(context, tag, {
    clientId: newId(),
    by: 'MK',
    dust,
    reason: 'gauge',
    people: 1,
    partInHand: false,
    job: { kind: 'change', stage: await positionOf(tag, stage), school: 'off' },
  });
const state = (tag: string, text: string, over: object = {}) =>
  stateDust(context, tag, { clientId: newId(), by: 'MK', dust: dustBody(text, over), since: null });
const level = async (tag: string) => (await machine(tag)).hazard;
const CLEARED = { on: '2026-11-24', who: 'the licensed firm', paper: 'C-77' };

describe('what was seen, and is not possible now', () => {
  it('1. an H machine in contained dust: no order takes the bag or the filter out and runs it', async () => {
    expect(said(await openCase('CR-05', dustBody('old primer'), 'takeOut'))).toBe('case.take-out school');
    const opened = await openCase('CR-05', dustBody('old primer'));
    const caseId = opened.ok ? opened.value.id : 0;
    for (const name of ['safety bag', 'main filter']) {
      const operation = { kind: 'takeOut', position: await positionOf('CR-05', name) } as const;
      const action = {
        kind: 'saw',
        operation,
        seen: { kind: 'typed', typed: '30', unit: 'L/s' },
        note: '',
        correctsEventId: null,
      } as const;
      expect(said(await doInCase(context, 'CR-05', { clientId: newId(), by: 'MK', caseId, action }))).toBe(
        'case.not-offered action.operation',
      );
    }
  });

  it('3. no HEPA, bag or H filter is "the same part, cleaned"; what may be cleaned after this dust is, and says so', async () => {
    const cleaned = async (tag: string, name: string) =>
      said(
        await recordChange(context, tag, changeBody((await stageOf(tag, name)).id, { partId: null, reason: 'gauge' })),
      );
    expect(await cleaned('CR-05', 'main filter')).toMatch(/not-cleanable/);
    expect(await cleaned('CR-07', 'HEPA')).toMatch(/not-cleanable/);
    expect(await cleaned('CR-02', 'paper bag')).toMatch(/not-cleanable/);
    expect(await cleaned('CR-12', 'pre-motor filter')).toBe('accepted');
  });

  it('4. every way in stops on what licensed people do: find, job, sheet, change; what was said stays on the machine', async () => {
    for (const text of ['Asbest', 'chrysotile', 'AIB', 'ACM', 'petrol', 'hot embers', 'zirconium'])
      expect([text, said(await openCase('CR-02', dustBody(text)))]).toEqual([text, 'dust.refused dust.text']);
    expect((await machine('CR-02')).dust.standing.refusal?.dust).toBe('asbestos');
    expect(said(await recordChange(context, 'CR-02', changeBody((await stageOf('CR-02', 'paper bag')).id)))).toMatch(
      /^dust\.refused/,
    );
    expect(said(await begin('CR-02', 'paper bag'))).toBe('dust.refused dust.text');
    // Retyping "house dust" opens nothing.
    expect(said(await openCase('CR-02', dustBody('house dust')))).toBe('dust.refused dust.text');
    // Near misses are no refusal.
    expect(said(await openCase('CR-09', dustBody('aluminum oxide paper')))).toBe('accepted');
  });

  it('5. lead, chromate, silica and boards are opened at their own level, whatever is asked for', async () => {
    for (const [tag, text, wanted] of [
      ['CR-02', 'lead paint, unknown', 'contained'],
      ['CR-18', 'zinc chromate', 'contained'],
      ['CR-16', 'MDF', 'controlled'],
    ] as const) {
      expect(said(await state(tag, text, { own: 'plain' }))).toBe('dust.reason dust.lowerBecause');
      expect(said(await state(tag, text))).toBe('accepted');
      expect([tag, await level(tag)]).toEqual([tag, wanted]);
    }
  });

  it('7. no sheet for contained work, nor for what carries a class', async () => {
    const sheet = async (tag: string, name: string, dust = dustBody()) =>
      said(
        await quickJob(context, tag, {
          clientId: newId(),
          by: 'MK',
          job: { kind: 'change', stage: await positionOf(tag, name), school: 'off' },
          dust,
          reason: 'fill',
          partInHand: false,
          answers: [],
          wasteKg: null,
        }),
      );
    expect(await sheet('CR-05', 'main filter')).toMatch(/^job\.walk-it/);
    expect(await sheet('CR-02', 'paper bag', dustBody('lead paint'))).toMatch(/^job\.walk-it/);
  });

  it('a change nobody walked through, on contained dust, says how; it is marked so, and suspends the class', async () => {
    const stage = await stageOf('CR-05', 'main filter');
    const body = (how: { by: string; how: string } | null) =>
      changeBody(stage.id, { partId: stage.part?.id ?? null, reason: 'gauge', how });
    expect(said(await recordChange(context, 'CR-05', body(null)))).toBe('change.how how');
    expect(classStanding(await machine('CR-05')).label).toBe('H');
    expect(said(await recordChange(context, 'CR-05', body({ by: 'AB', how: 'in the tent' })))).toBe('accepted');
    expect(classStanding(await machine('CR-05'))).toMatchObject({ label: null, gap: { because: 'untested' } });
    const changes = await loadChanges(context.db, 'Europe/London', (await machine('CR-05')).id);
    expect(changes.find((c) => c.stageId === stage.id && c.how?.how === 'in the tent')).toBeDefined();
  });
});

/** Walks a decontamination to its end, with its screening passed or left out. */
const decontaminate = async (tag: string, screening: 'prove' | 'leaveOut') => {
  const started = await startJob(context, tag, {
    clientId: newId(),
    by: 'MK',
    dust: dustBody('old primer'),
    reason: 'precaution',
    people: 1,
    partInHand: true,
    job: { kind: 'decontamination' },
  });
  if (!started.ok) throw new Error(said(started));
  const jobId = started.value.id;
  const act = async (event: JobEvent) => {
    const done = await doInJob(context, tag, { clientId: newId(), by: 'MK', jobId, event, partCode: '' });
    if (!done.ok) throw new Error(`${JSON.stringify(event)}: ${said(done)}`);
  };
  for (let i = 0; i < 200; i += 1) {
    const { stages, id } = await machine(tag);
    const { at, steps } = jobState((await loadJobs(context.db, id)).find((j) => j.id === jobId)!);
    const step = steps[at];
    if (!step) break;
    clock = new Date(Date.parse(clock) + 60_000).toISOString();
    const proves = provedBy(step);
    if (proves && screening === 'prove')
      for (const test of ['cleanSide', 'smoke'] as const)
        if (proves.includes(test))
          await recordIntegrity(context, tag, {
            clientId: newId(),
            by: 'MK',
            stageId: stages[step.stage ?? 0]?.id ?? 0,
            test,
            passed: true,
            note: '',
          });
    if (proves && screening === 'leaveOut') await act({ kind: 'leftOut', step: at, because: 'no time' });
    else if (step.check) await act({ kind: 'answered', step: at, right: true, note: '' });
    else await act({ kind: 'did', step: at });
  }
  await act({ kind: 'finished', wasteKg: null });
};

describe('what a machine has collected', () => {
  it('a double click is one line; a likeness wants its yes or no; a date ahead is refused', async () => {
    const body = { clientId: newId(), by: 'MK', dust: dustBody('antifouling'), since: null };
    const before = (await machine('CR-16')).dust.collected.length;
    expect(await stateDust(context, 'CR-16', body)).toEqual(await stateDust(context, 'CR-16', body));
    expect((await machine('CR-16')).dust.collected).toHaveLength(before + 1);
    expect(said(await state('CR-16', 'asbetos rope'))).toBe('dust.confirm dust.text');
    expect(
      said(
        await stateDust(context, 'CR-16', {
          clientId: newId(),
          by: 'MK',
          dust: dustBody('sawdust'),
          since: '2027-01-01',
        }),
      ),
    ).toBe('dust.since since');
  });

  it("only a recorded decontamination clears it: a contractor's with his paper, or its own job walked to the end", async () => {
    expect(await level('CR-05')).toBe('contained');
    await state('CR-05', 'house dust');
    expect(await level('CR-05')).toBe('contained');
    expect(
      said(await recordDecontaminated(context, 'CR-05', { clientId: newId(), by: 'MK', ...CLEARED, paper: '' })),
    ).toBe('dust.contractor paper');
    clock = '2026-11-24T18:00:00.000Z';
    expect(said(await recordDecontaminated(context, 'CR-05', { clientId: newId(), by: 'MK', ...CLEARED }))).toBe(
      'accepted',
    );
    expect([await level('CR-05'), (await machine('CR-05')).dust.last?.paper]).toEqual([
      'plain',
      'the licensed firm, C-77',
    ]);
    // The next dirty day counts again.
    clock = '2026-11-25T08:00:00.000Z';
    await state('CR-05', 'old primer');
    expect(await level('CR-05')).toBe('contained');
    // Left out what proves the new filter: nothing is cleared, however far it was walked.
    await decontaminate('CR-05', 'leaveOut');
    expect(await level('CR-05')).toBe('contained');
    clock = '2026-11-26T08:00:00.000Z';
    await state('CR-02', 'old primer');
    expect(await level('CR-02')).toBe('contained');
    await decontaminate('CR-02', 'prove');
    expect([await level('CR-02'), (await machine('CR-02')).dust.last?.how]).toEqual(['plain', 'job']);
  });

  it("a refusal is cleared by the licensed firm's paper only", async () => {
    await state('CR-02', 'asbestos cord');
    expect(
      said(
        await startJob(context, 'CR-02', {
          clientId: newId(),
          by: 'MK',
          dust: dustBody(),
          reason: 'precaution',
          people: 1,
          partInHand: false,
          job: { kind: 'decontamination' },
        }),
      ),
    ).toBe('dust.refused dust.text');
    clock = '2026-11-24T19:00:00.000Z';
    await recordDecontaminated(context, 'CR-02', { clientId: newId(), by: 'MK', ...CLEARED });
    expect((await machine('CR-02')).dust.standing.refusal).toBeNull();
  });

  it('the board puts a refused machine before all else', async () => {
    await state('CR-02', 'chrysotile');
    const { yard } = await loadBench(context, 'CR-02');
    expect(yard.machines[0]).toMatchObject({ machine: { tag: 'CR-02' }, need: { kind: 'refused' } });
    const flags = new Map(boardTags(yard, 'metric').map((t) => [t.tag, t.flag ?? '']));
    expect([flags.get('CR-05'), flags.get('CR-12')?.includes('contained')]).toEqual(['contained', false]);
  });
});

describe('the register on record', () => {
  it('an edit raises a shipped dust and never lowers it; an own dust is matched from then on, also after it is gone', async () => {
    const general = builtIn('general')!;
    expect(
      said(await editDust(context, { clientId: newId(), by: 'MK', dust: { ...builtIn('lead')!, level: 'plain' } })),
    ).toBe('dust.lower dust.level');
    const own = {
      ...general,
      key: 'ownKiln',
      name: 'kiln dust',
      synonyms: ['kiln dust'],
      level: 'controlled' as const,
    };
    expect(said(await editDust(context, { clientId: newId(), by: 'MK', dust: own }))).toBe('accepted');
    await state('CR-16', 'kiln dust', { confirmed: ['ownKiln'] });
    const of = async () => (await machine('CR-16')).dust.collected.find((c) => c.text === 'kiln dust')?.standing.level;
    expect(await of()).toBe('controlled');
    await editDust(context, {
      clientId: newId(),
      by: 'MK',
      dust: { ...own, name: 'oven dust', synonyms: ['oven dust'] },
    });
    expect(await of()).toBe('controlled');
    await editDust(context, { clientId: newId(), by: 'MK', dust: { ...own, retired: true } });
    expect(await of()).toBe('controlled');
  });

  it('a machine of an older version keeps its words as its first statement, raised where the register says more; an old edit is still read', async () => {
    const db = openDatabase(join(mkdtempSync(join(tmpdir(), 'moorwind-dust-')), 'old.sqlite'));
    const old = new Migrator({ db, provider: { getMigrations: () => Promise.resolve(MIGRATIONS) } });
    await old.migrateTo(
      Object.keys(MIGRATIONS)
        .filter((n) => n < '011')
        .at(-1)!,
    );
    for (const [tag, words, hazard] of [
      ['T-1', 'old primer', 'plain'],
      ['T-2', 'house dust', 'contained'],
      ['T-3', '', 'plain'],
    ]) {
      await sql`insert into machine (tag, name, kind, maker, place, last_collected, hazard, has_brush, in_service_on) values (${tag}, 'Old', 'shopVacuum', 'Maker B', 'here', ${words}, ${hazard}, 0, '2025-01-01')`.execute(
        db,
      );
    }
    await migrate(db);
    const seen = await Promise.all(
      ['T-1', 'T-2', 'T-3'].map(async (tag) => {
        const m = await findMachine(db, tag);
        return [m?.lastCollected, m?.hazard, m?.dust.collected.length];
      }),
    );
    expect(seen.map(([words, hazard, n]) => [String(words).includes('old primer') || words, hazard, n])).toEqual([
      [true, 'contained', 1],
      [seen[1]?.[0], 'contained', 1],
      [seen[2]?.[0], 'plain', 0],
    ]);
    await db.destroy();
    const edit = StoredSnapshotJson.safeParse({
      machine: { lastCollected: 'old primer', hazard: 'contained' },
      stages: [],
    });
    expect(
      edit.success ? [] : edit.error.issues.filter((i) => /lastCollected|hazard|unrecognized/i.test(JSON.stringify(i))),
    ).toEqual([]);
  });
});

describe('examinations', () => {
  it('are on record with who and what was found, are a rule of their own, and are due again by the plan', async () => {
    const due = async () =>
      (await loadBench(context, 'CR-05')).bench?.status.due.filter((d) => d.binding.rule.kind === 'examination') ?? [];
    const before = await due();
    expect(before.length).toBeGreaterThan(0);
    expect(
      said(
        await recordExamination(context, 'CR-05', {
          clientId: newId(),
          by: 'MK',
          on: '2027-01-01',
          examiner: 'the test firm',
          found: 'sound',
        }),
      ),
    ).toBe('examination.future on');
    expect(
      said(
        await recordExamination(context, 'CR-05', {
          clientId: newId(),
          by: 'MK',
          on: '2026-11-24',
          examiner: 'the test firm',
          found: 'sound',
        }),
      ),
    ).toBe('accepted');
    expect((await machine('CR-05')).examinations.at(-1)).toMatchObject({ examiner: 'the test firm', found: 'sound' });
    const after = await due();
    expect(after[0]?.daysLeft ?? 0).toBeGreaterThan(before[0]?.daysLeft ?? 0);
    // UK COSHH reg. 9: at least every 14 months (from memory of the source).
    expect(after[0]?.daysLeft ?? 999).toBeLessThanOrEqual(14 * 31);
    const { input } = await planYard(context);
    expect(input.machines.flatMap((m) => m.stages).filter((s) => s.name === 'examination').length).toBeGreaterThan(0);
  });
});
