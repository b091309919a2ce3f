import { describe, expect, it } from 'vitest';
import type { SheetBody } from '@/contracts/sheet';
import type { SheetKind } from '@/core/sheet/fields';
import { guessColumns, unitInHeading } from '@/core/sheet/guess';
import { readDay } from '@/core/sheet/read';
import { openMigrated } from '@/server/db/connect';
import { loadBench } from '@/server/services/measuring/bench';
import { keepSite } from '@/server/services/yard/site-settings';
import { recentSheets, takeInSheet, undoSheet } from '@/server/services/house/take-in-sheet';
import { recordChange } from '@/server/services/jobs/record-change';
import { loadParts } from '@/server/repositories/stock';
import { planYard } from '@/server/services/plan/plan-yard';
import { loadRound } from '@/server/services/plan/round';
import { sayDue } from '@/messages/needs';
import { logEntries } from '@/view-models/log-entries';
import { changeBody } from '../support/bodies';
import { newId, NOW } from '../support/database';

const emptyYard = async () => {
  const context = { db: await openMigrated(':memory:'), now: () => NOW };
  await keepSite(context, {
    clientId: newId(),
    by: 'MK',
    name: 'Low Shed',
    timeZone: 'Pacific/Auckland',
    altitudeM: 0,
    ruleSet: 'eu_uk',
    thresholds: { warnLoss: 0.15, actLoss: 0.25 },
    weekdays: [1, 2, 3, 4, 5],
    closed: [],
    minutesADay: 120,
  });
  return context;
};

/** A sheet as somebody has it: a heading and rows, its columns guessed. */
const sheet = (kind: SheetKind, table: string, over: Partial<SheetBody> = {}): SheetBody => {
  const [headings = [], ...rows] = table
    .trim()
    .split('\n')
    .map((l) => l.split(',').map((c) => c.trim()));
  const columns = guessColumns(headings, kind).map((field, i) => ({
    field,
    unit: unitInHeading(headings[i] ?? '', 'flow') ?? unitInHeading(headings[i] ?? '', 'length'),
  }));
  const base = { clientId: newId(), by: 'mk', dryRun: false, name: 'old list.csv', order: 'dayFirst' as const };
  return { ...base, vouched: true, kind, columns, rows, ...over };
};
const codes = (r: Awaited<ReturnType<typeof takeInSheet>>) =>
  r.ok ? [] : r.failures.map((f) => `${f.path} ${f.code}`);
const value = <T>(
  r: { ok: true; value: T } | { ok: false; failures: readonly { code: string; path: string }[] },
): T => {
  if (!r.ok) throw new Error(r.failures.map((f) => `${f.path} ${f.code}`).join());
  return r.value;
};

const MACHINES = `
Asset no,Description,Type,Location,Material,Class,In service,Hose diameter (mm)
LS-01,Corner vac,shop vac,saw bay,softwood,,02.05.2023,38
LS-02,Blue one,M extractor,spray shop,filler dust,M,3/2/2024,27`;

describe('a day in a spreadsheet', () => {
  it('is read as it is written, and the other way round only where it is said so', () => {
    const read = (cell: string, order: 'dayFirst' | 'monthFirst' = 'dayFirst') => {
      const day = readDay(cell, order);
      return day.ok ? day.value : 'refused';
    };
    expect(
      ['2026-03-02', '2.3.2026', '02/03/26', '2 Mar 2026', 'March 2, 2026', '2026/3/2 00:00:00'].map((c) => read(c)),
    ).toEqual(Array.from({ length: 6 }, () => '2026-03-02'));
    expect(read('3/2/2026', 'monthFirst')).toBe('2026-03-02');
    // Serial 45000 is 15 March 2023 in every spreadsheet program's 1900 system (ECMA-376 18.17.4.1; the value from memory).
    expect(read('45000')).toBe('2023-03-15');
    expect(['31.02.2026', '13/14/2026', 'soon', '7', '2026-13-01', '2 Foo 2026'].map((c) => read(c))).toEqual(
      Array.from({ length: 6 }, () => 'refused'),
    );
  });
});

describe('headings', () => {
  it('are guessed, each field once, and what fits nothing is left out', () => {
    expect(guessColumns(['Asset no', 'Location', 'Colour', 'Type', 'Name'], 'machines')).toEqual([
      'tag',
      'place',
      null,
      'kind',
      'name',
    ]);
    expect(guessColumns(['Qty', 'Part no', 'Description', 'Location'], 'parts')).toEqual([
      'onHand',
      'code',
      'name',
      'bin',
    ]);
    expect(guessColumns(['Date', 'Date', 'Machine'], 'hours')).toEqual(['day', null, 'tag']);
    expect(unitInHeading('Flow (cfm)', 'flow')).toBe('cfm');
    expect(unitInHeading('Flow, m3/h', 'flow')).toBe('m3/h');
    expect(unitInHeading('Flow (blue)', 'flow')).toBeNull();
  });
});

describe('a spreadsheet', () => {
  it('of machines brings them with their path, their day, their hose and the usual rules', async () => {
    const context = await emptyYard();
    const dry = sheet('machines', MACHINES, { dryRun: true });
    expect(value(await takeInSheet(context, dry)).rows).toBe(2);
    expect((await loadBench(context, 'LS-01')).bench).toBeNull();
    const body = sheet('machines', MACHINES);
    const first = value(await takeInSheet(context, body));
    // Sent twice it is one import.
    expect(value(await takeInSheet(context, body))).toEqual(first);
    const { bench } = await loadBench(context, 'LS-02');
    const machine = bench?.status.machine;
    expect(machine).toMatchObject({
      kind: 'mExtractor',
      machineClass: 'M',
      inServiceOn: '2024-02-03',
      hoseBoreM: 0.027,
    });
    expect(machine?.stages.find((s) => s.kind === 'bag')?.rules.length).toBeGreaterThan(0);
    expect(machine?.lastCollected).toBe('filler dust');
    expect(machine?.stages.map((s) => s.firstUsedOn)).toEqual(machine?.stages.map(() => '2024-02-03'));
  });

  it('takes a word that may be a worse dust for it: a machine is rather opened too carefully', async () => {
    const context = await emptyYard();
    const table = MACHINES.replace('softwood', 'old paint and lead');
    value(await takeInSheet(context, sheet('machines', table)));
    expect((await loadBench(context, 'LS-01')).bench?.status.machine.hazard).toBe('contained');
  });

  it('is taken in whole or not at all, and names every cell that is wrong', async () => {
    const context = await emptyYard();
    const table = `${MACHINES}
LS-02,Again,shop vac,here,softwood,,,
LS 04,Bad tag,shop vac,here,softwood,,,
LS-05,No kind,spaceship,here,softwood,,,
LS-06,Late,shop vac,here,softwood,,1.1.2031,
LS-07,,shop vac,here,softwood,,,9 km
`;
    expect(codes(await takeInSheet(context, sheet('machines', table)))).toEqual([
      'rows.2.tag sheet.twice',
      'rows.3.tag field.invalid',
      'rows.4.kind sheet.choice',
      'rows.5.firstUsedOn date.future',
      'rows.6.name sheet.needed',
      'rows.6.hoseBore quantity.unknown-unit',
    ]);
    expect(await context.db.selectFrom('machine').selectAll().execute()).toEqual([]);
    expect(await recentSheets(context)).toEqual([]);
    expect(codes(await takeInSheet(context, sheet('machines', 'Tag,Name\n,')))).toEqual(['rows sheet.empty']);
  });

  it('of parts, people, changes, tests and hours brings the past of a yard, each on its day', async () => {
    const context = await emptyYard();
    value(await takeInSheet(context, sheet('machines', MACHINES)));
    value(
      await takeInSheet(
        context,
        sheet('parts', 'Part no,Description,Qty,Price\nbag-1,Paper bag,12,1.50\nFIL-2,Main filter,2,40'),
      ),
    );
    const parts = await loadParts(context.db);
    expect(parts.map((p) => [p.code, p.onHand, p.price])).toEqual([
      ['BAG-1', 12, 1.5],
      ['FIL-2', 2, 40],
    ]);
    value(await takeInSheet(context, sheet('people', 'Initials,Name,Role\nxy,Xenia Y,viewer')));
    const changes = 'Date,Machine,What,Part,Reason\n1/6/2024,LS-01,bag,BAG-1,full\n24/11/2026,ls-01,Bag,BAG-1,full';
    value(await takeInSheet(context, sheet('changes', changes)));
    // A past change does not take from the shelf: what lies there now was counted now.
    expect((await loadParts(context.db)).map((p) => p.onHand)).toEqual([12, 2]);
    const tests =
      'Date,Machine,What,Flow (cfm),Baseline\n2/6/2024,LS-01,flow,112; 113; 111,yes\n20/11/2026,LS-01,flow,70 L/s,no';
    value(await takeInSheet(context, sheet('tests', tests)));
    value(await takeInSheet(context, sheet('hours', 'Date,Machine,Hours\n19/11/2026,LS-01,"2.5"'.replaceAll('"', ''))));
    const { bench } = await loadBench(context, 'LS-01');
    expect(bench?.changes.map((c) => [c.performedAt.slice(0, 10), c.quantity, c.by])).toEqual([
      ['2024-06-01', 1, 'MK'],
      // In Auckland the 24th is over; at this moment it is the 24th there, 23:00.
      ['2026-11-24', 1, 'MK'],
    ]);
    // Both are told for what they are: written down later than they were done.
    const log = bench ? logEntries(bench, 'metric') : [];
    expect(log.find((e) => e.day === '2024-06-01')?.text).toContain('Entered afterwards, on 2026-11-24.');
    expect(log.find((e) => e.day === '2026-11-24')?.text).not.toContain('afterwards');
    // 112 cfm is 0.05286 m3/s (1 cfm = 4.719474e-4 m3/s, NIST SP 811, B.8).
    expect(bench?.tests[0]?.test.readingsSi.map((v) => Number(v.toFixed(5)))).toEqual([0.05286, 0.05333, 0.05239]);
    expect(bench?.tests[0]?.isBaseline).toBe(true);
    expect(bench?.tests[1]?.test.readingsSi[0]).toBeCloseTo(0.07, 9);
    expect(bench?.status.machine.hours).toEqual([{ day: '2026-11-19', hours: 2.5, dust: '' }]);
  });

  it('of tests that nobody vouches for keeps them, and holds nothing against them', async () => {
    const context = await emptyYard();
    value(await takeInSheet(context, sheet('machines', MACHINES)));
    const table = 'Date,Machine,What,Readings\n2/6/2024,LS-01,flow,60 L/s';
    value(await takeInSheet(context, sheet('tests', table, { vouched: false })));
    const [test] = (await loadBench(context, 'LS-01')).bench?.tests ?? [];
    expect(test?.test.failedPreconditions).toContain('speedHigh');
  });

  it('says which machine, stage, part or meter is not there', async () => {
    const context = await emptyYard();
    value(await takeInSheet(context, sheet('machines', MACHINES)));
    const changes =
      'Date,Machine,What,Part\n1/6/2024,LS-99,bag,\n1/6/2024,LS-01,sock,\n1/6/2024,LS-01,bag,NONE\n1/1/2020,LS-01,bag,';
    expect(codes(await takeInSheet(context, sheet('changes', changes)))).toEqual([
      'rows.0.tag sheet.tag',
      'rows.1.stage sheet.stage',
      'rows.2.part sheet.part',
      'rows.3.day date.before-service',
    ]);
    const tests =
      'Date,Machine,What,Readings,Meter\n1/6/2024,LS-01,flow,12 bananas,\n1/6/2024,LS-01,flow,60 L/s,Old vane';
    expect(codes(await takeInSheet(context, sheet('tests', tests)))).toEqual([
      'rows.0.readings quantity.unknown-unit',
      'rows.1.meter sheet.meter',
    ]);
  });
});

describe('a spreadsheet taken back', () => {
  it('leaves nothing of it, while nothing hangs on it', async () => {
    const context = await emptyYard();
    const machines = value(await takeInSheet(context, sheet('machines', MACHINES)));
    const parts = value(await takeInSheet(context, sheet('parts', 'Code,Name,On the shelf\nB-1,Bag,5')));
    const changes = value(
      await takeInSheet(context, sheet('changes', 'Date,Machine,What,Part\n1/6/2024,LS-01,bag,B-1')),
    );
    const undo = (id: number) => undoSheet(context, { clientId: newId(), by: 'MK', id });
    const refused = await undo(machines.id);
    expect(refused.ok ? '' : refused.failures[0]?.code).toBe('import.built-on');
    // A part that a change on record took is kept too.
    expect((await undo(parts.id)).ok).toBe(false);
    expect((await loadBench(context, 'LS-01')).bench?.changes.length).toBe(1);
    expect((await loadParts(context.db)).map((p) => p.onHand)).toEqual([5]);
    for (const { id } of [changes, parts, machines]) expect((await undo(id)).ok).toBe(true);
    for (const table of [
      'machine',
      'stage',
      'rule',
      'part',
      'stage_change',
      'stock_movement',
      'stock_on_hand',
    ] as const)
      expect([table, await context.db.selectFrom(table).selectAll().execute()]).toEqual([table, []]);
    expect((await undo(machines.id)).ok).toBe(false);
    expect((await recentSheets(context)).every((i) => i.undone)).toBe(true);
    // What was taken back can come again.
    value(await takeInSheet(context, sheet('machines', MACHINES)));
  });

  it('is no way round the guard of the records: nothing else can delete one', async () => {
    const context = await emptyYard();
    value(await takeInSheet(context, sheet('machines', MACHINES)));
    value(await takeInSheet(context, sheet('hours', 'Date,Machine,Hours\n19/11/2026,LS-01,2')));
    await expect(context.db.deleteFrom('usage_entry').execute()).rejects.toThrow('kept');
    const bag = (await loadBench(context, 'LS-01')).bench?.status.machine.stages.find((s) => s.kind === 'bag');
    const change = { stageId: bag?.id ?? 0, reason: 'fill' as const, partId: null, quantity: 0, beforeTestId: null };
    value(
      await recordChange(context, 'LS-01', {
        ...change,
        clientId: newId(),
        by: 'MK',
        performedAt: NOW,
        note: '',
        how: { by: 'MK', how: 'outside, mask on' },
      }),
    );
    await expect(context.db.deleteFrom('stage_change').execute()).rejects.toThrow('append-only');
  });
});

describe('five thousand rows', () => {
  it('are read and written in one go', async () => {
    const context = await emptyYard();
    const rows = Array.from({ length: 5000 }, (_, i) => `P-${i},Part ${i},${i % 50}`).join('\n');
    expect(value(await takeInSheet(context, sheet('parts', `Code,Name,Qty\n${rows}`))).rows).toBe(5000);
    value(await takeInSheet(context, sheet('machines', MACHINES)));
    const days = Array.from({ length: 1000 }, (_, i) => {
      const day = new Date(Date.parse('2024-02-03') + i * 86_400_000).toISOString().slice(0, 10);
      return ['LS-01', 'LS-02'].map((tag) => `${day},${tag},${(i % 8) + 0.5}`).join('\n');
    }).join('\n');
    expect(value(await takeInSheet(context, sheet('hours', `Date,Machine,Hours\n${days}`))).rows).toBe(2000);
  }, 120_000);
});

describe('a list of machines with the days they were bought', () => {
  it('floods neither the round nor the plan: what was never changed on record is looked at first', async () => {
    const context = await emptyYard();
    const rows = Array.from({ length: 12 }, (_, i) => `LS-${10 + i},Vac ${i},shop vac,saw bay,softwood,,02.05.2021,38`);
    const head = 'Asset no,Description,Type,Location,Material,Class,In service,Hose diameter (mm)';
    value(await takeInSheet(context, sheet('machines', [head, ...rows].join('\n'))));
    const round = await loadRound(context);
    expect(round.overdue).toEqual([]);
    expect(round.changeUnknown.length).toBeGreaterThanOrEqual(12);
    expect(round.changeUnknown.map((l) => sayDue(l.due)).every((s) => s.startsWith('Last change not known'))).toBe(
      true,
    );
    expect((await planYard(context)).made.problem.tasks.filter((t) => t.lastDay === 0)).toEqual([]);
    // A recorded change starts its timer.
    const bag = (await loadBench(context, 'LS-10')).bench?.status.machine.stages.find((s) => s.kind === 'bag');
    value(await recordChange(context, 'LS-10', changeBody(bag?.id ?? 0)));
    const after = await loadRound(context);
    expect(after.changeUnknown.some((l) => l.stage.id === bag?.id)).toBe(false);
  });
});
