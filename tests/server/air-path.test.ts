import { MACHINE_KINDS } from '@/core/machine/kinds';
import { beforeEach, describe, expect, it } from 'vitest';
import { logEntries } from '@/view-models/log-entries';
import { filterCardOf, filterRows, passRows, penetrationChartOf } from '@/view-models/filter-page';
import { fanChartOf, parameterRows, readingRows } from '@/view-models/path-page';
import { boardTags } from '@/view-models/board-tags';
import type { EditPathBody, NewMachineBody } from '@/contracts/machine-edit';
import { addDays, dayAt } from '@/core/calendar/calendar-date';
import { classStanding } from '@/core/machine/machine';
import type { Result } from '@/core/failure/failure';
import { snapshotOf } from '@/core/machine/path-edit';
import { stageTemplate } from '@/core/machine/stage-templates';
import { oldPartOf } from '@/core/calibrate/change-load';
import { sayOldPart, sayPathBasis, sayToday } from '@/messages/air-path';
import { sayLabel } from '@/messages/filters';
import type { Db } from '@/server/db/connect';
import { replaceRules } from '@/server/repositories/rules';
import { findMachine } from '@/server/repositories/machines';
import { airPathOfBench } from '@/server/services/measuring/air-path';
import { type Bench, loadBench } from '@/server/services/measuring/bench';
import { checkMoment } from '@/server/services/measuring/check-moment';
import { correctTag, editPath, newMachine } from '@/server/services/yard/edit-path';
import { recordIntegrity } from '@/server/services/jobs/integrity-check';
import { recordChange } from '@/server/services/jobs/record-change';
import { recordTest } from '@/server/services/measuring/record-test';
import type { Context } from '@/server/services/yard/user-action';
import { loadYard, machineOnceTagged } from '@/server/services/yard/yard';
import { changeBody, dustBody, readings, testBody } from '../support/bodies';
import { demoContext, newId } from '../support/database';

let context: Context & { readonly db: Db };
beforeEach(async () => {
  context = await demoContext();
});

const bench = async (tag: string): Promise<Bench> => {
  const { bench: found } = await loadBench(context, tag);
  if (!found) throw new Error(`no ${tag}`);
  return found;
};
const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(result.failures.map((f) => `${f.code} at ${f.path}`).join());
  return result.value;
};
const codes = (result: Result<unknown>) =>
  result.ok ? ['accepted'] : result.failures.map((f) => `${f.code} ${f.path}`.trim());

describe('the demo machines', () => {
  it('every measured one agrees with each of its baseline readings within its uncertainty, and says so', async () => {
    const { machines } = await loadYard(context);
    expect(machines.length).toBeGreaterThanOrEqual(11);
    for (const { machine } of machines) {
      const { view, modelled } = airPathOfBench(await bench(machine.tag));
      expect(view.failure, machine.tag).toBeNull();
      if (machine.tag === 'CR-16') {
        expect(sayPathBasis(view.basis, null).sentence).toContain('Estimated from typical figures');
        continue;
      }
      if (modelled.basis.kind !== 'calibrated') throw new Error(`${machine.tag} is not calibrated`);
      expect(modelled.basis.calibration.compared.length, machine.tag).toBeGreaterThanOrEqual(6);
      expect(
        modelled.basis.calibration.compared.filter((c) => !c.agrees).map((c) => c.observation.label),
        machine.tag,
      ).toEqual([]);
      expect(sayPathBasis(view.basis, null).sentence).toContain('agrees with all');
      expect(
        readingRows(modelled.basis.calibration.compared, 'us').every((r) => r.agrees && /\d/.test(r.measured)),
      ).toBe(true);
      expect(parameterRows(modelled.basis.calibration, 'metric').length).toBe(4);
    }
  });

  it('today explains the newest flow by what the filters carry, and a changed one is clean again', async () => {
    const before = airPathOfBench(await bench('CR-04'));
    const { today, asNew, now } = before.view;
    if (today.basis.kind !== 'flow') throw new Error(today.basis.kind);
    expect(today.basis.measuredM3s).toBeCloseTo(0.01, 3);
    expect(now?.flowPerToolM3s ?? 1).toBeLessThan((asNew?.flowPerToolM3s ?? 0) * 0.75);
    const machine = (await bench('CR-04')).status.machine;
    const bag = machine.stages.find((s) => s.name === 'fleece bag');
    value(await recordChange(context, 'CR-04', changeBody(bag?.id ?? 0, { partId: bag?.part?.id ?? null })));
    const after = airPathOfBench(await bench('CR-04')).view;
    expect(after.now?.steps[bag?.position ?? 0]?.dropPa ?? 1e9).toBeLessThan(
      0.1 * (now?.steps[bag?.position ?? 0]?.dropPa ?? 0),
    );
    expect(sayToday(after.today, 'metric')).toContain('Clean since: fleece bag');
  });

  it('a pressure read across one stage beats its share of the guess', async () => {
    const machine = (await bench('CR-04')).status.machine;
    const main = machine.stages.find((s) => s.name === 'main filter');
    const body = testBody({
      method: 'stageDp',
      place: 'toolEnd',
      readings: readings('kPa', '7.1', '7.2', '7.15'),
      detail: { kind: 'stage', stageId: main?.id ?? 0 },
    });
    value(await recordTest(context, 'CR-04', body));
    const { view } = airPathOfBench(await bench('CR-04'));
    expect(view.today.fromStageDp).toEqual(['main filter']);
    expect(view.now?.steps[main?.position ?? 0]?.dropPa).toBeCloseTo(7150, -2);
  });

  it('a change measured before and after says what the old part had cost', async () => {
    const b = await bench('CR-04');
    const { modelled } = airPathOfBench(b);
    const bag = b.status.machine.stages.find((s) => s.name === 'fleece bag');
    const flow = async (...typed: string[]) => {
      const { id } = value(await recordTest(context, 'CR-04', testBody({ readings: readings('L/s', ...typed) })));
      const record = (await bench('CR-04')).tests.find((t) => t.id === id);
      if (!record) throw new Error('not recorded');
      return record;
    };
    const [low, high] = [await flow('10.0', '10.1', '9.9'), await flow('13.4', '13.5', '13.3')];
    const of = (stageId: number) =>
      oldPartOf({ machine: b.status.machine, modelled, stageId, before: low, after: high });
    const old = of(bag?.id ?? 0);
    expect(old?.load.timesClean).toBeGreaterThan(50);
    expect(
      sayOldPart(
        'fleece bag',
        old ?? { load: { loadPaSM3: 0, resistancePaSM3: 1, timesClean: 1, asClean: true, dustKg: 0 }, dropPa: 0 },
        'metric',
      ),
    ).toMatch(/old fleece bag had \d+ times its clean resistance, [\d.]+ kPa/);
    // A hose has no medium, and a flow that did not rise says nothing of a load.
    expect(of(b.status.machine.stages.find((s) => s.name === 'hose')?.id ?? 0)).toBeNull();
    expect(
      oldPartOf({ machine: b.status.machine, modelled, stageId: bag?.id ?? 0, before: high, after: low }),
    ).toBeNull();
  });

  it('more flow than the clean path lets through is told, not explained away', async () => {
    const { view } = airPathOfBench(await bench('CR-14'));
    expect(view.today.basis).toMatchObject({ kind: 'easier', within: false });
    expect(sayToday(view.today, 'us')).toMatch(/more than the clean path allows.*filter is out, torn or not seated/);
  });

  it('the charts and the card have something to say of each', async () => {
    for (const { machine } of (await loadYard(context)).machines) {
      const b = await bench(machine.tag);
      const page = airPathOfBench(b);
      const fan = fanChartOf(page, 'metric');
      expect(fan.fan.length).toBeGreaterThan(20);
      expect(fan.points.map((p) => p.name)).toEqual(['as new', 'today']);
      const card = value(filterCardOf(machine, page));
      expect(filterRows(machine, page, card).length).toBeGreaterThan(0);
      expect(penetrationChartOf(card).curves.filter((c) => c.whole).length).toBe(1);
      expect(
        passRows(card)
          .rows.flatMap((r) => r.passes)
          .every((text) => /^(under )?[\d.]+ %$/.test(text)),
      ).toBe(true);
      const label = sayLabel(classStanding(machine), card.deserved);
      expect(label.mayNot.some((line) => line.includes('certified'))).toBe(true);
    }
  });

  it('a machine with its HEPA missing may not be called one, and the H extractor may be called H', async () => {
    const cardOf = async (tag: string) => {
      const b = await bench(tag);
      const card = value(filterCardOf(b.status.machine, airPathOfBench(b)));
      return { card, label: sayLabel(classStanding(b.status.machine), card.deserved) };
    };
    const greenshank = await cardOf('CR-14');
    expect(greenshank.label.may).toMatchObject({ tone: 'stop', mark: 'Withdrawn' });
    expect(greenshank.card.deserved.usHepa).toBe(false);
    const oystercatcher = await cardOf('CR-05');
    expect(oystercatcher.card.deserved.dustClass).toBe('H');
    expect(oystercatcher.label.may.sentence).toContain('You may call it H class');
  });
});

const editBody = async (tag: string, over: Partial<EditPathBody> = {}): Promise<EditPathBody> => {
  const { machine } = (await bench(tag)).status;
  const { machine: fields, stages } = snapshotOf(machine);
  return {
    clientId: newId(),
    by: 'TO',
    note: 'seen at the bag change',
    seen: machine.editedThrough,
    path: { machine: { ...fields }, stages: [...stages] },
    ...over,
  };
};

describe('editing an air path', () => {
  it('a stage seen missing is recorded, the class is withdrawn everywhere, and a change of it brings both back', async () => {
    const body = await editBody('CR-07');
    body.path.stages = body.path.stages.map((s) => (s.name === 'HEPA' ? { ...s, missing: true } : s));
    value(await editPath(context, 'CR-07', body));
    const gone = await bench('CR-07');
    expect(gone.status.need).toMatchObject({ kind: 'missingStage', stageName: 'HEPA', because: 'missing' });
    expect(boardTags({ ...gone.yard, machines: [gone.status] }, 'metric')[0]).toMatchObject({
      classText: 'class withdrawn',
    });
    expect(logEntries(gone, 'metric')[0]).toMatchObject({
      title: 'Air path changed: HEPA found missing',
      by: 'TO',
      note: 'seen at the bag change',
    });
    // A change of before it was missed does not count; one after does.
    expect(gone.changes.length).toBeGreaterThan(0);
    const hepa = gone.status.machine.stages.find((s) => s.name === 'HEPA');
    const later = { ...context, now: () => '2026-11-24T11:00:00.000Z' };
    value(
      await recordChange(
        later,
        'CR-07',
        changeBody(hepa?.id ?? 0, { partId: hepa?.part?.id ?? null, performedAt: '2026-11-24T10:59:00.000Z' }),
      ),
    );
    expect(classStanding((await bench('CR-07')).status.machine)).toMatchObject({
      label: null,
      gap: { because: 'untested' },
    });
    // It is there again, and its class is said once it is proven.
    const signed = { by: 'TO', stageId: hepa?.id ?? 0 };
    for (const test of ['cleanSide', 'smoke'] as const)
      value(await recordIntegrity(later, 'CR-07', { clientId: newId(), ...signed, test, passed: true, note: '' }));
    value(
      await recordIntegrity(later, 'CR-07', {
        clientId: newId(),
        ...signed,
        test: 'penetration',
        testedOn: '2026-11-24',
        tester: 'the test firm',
        method: 'photometer',
        certificate: 'P-1',
        percent: 0.01,
        nextDueOn: null,
      }),
    );
    expect(classStanding((await bench('CR-07')).status.machine)).toMatchObject({ label: 'HEPA', gap: null });
  });

  it('adds, moves and takes off stages in one go; what was taken off stays named in the file', async () => {
    const body = await editBody('CR-02');
    const cartridge = body.path.stages.find((s) => s.name === 'cartridge');
    const foam = {
      id: null,
      kind: 'foam' as const,
      name: 'foam',
      partId: null,
      missing: false,
      doNotRemove: true,
      spec: stageTemplate('foam', 'shopVacuum'),
    };
    body.path.stages = body.path.stages.flatMap((s) => (s.name === 'cartridge' ? [foam] : [s]));
    value(await editPath(context, 'CR-02', body));
    const after = await bench('CR-02');
    expect(after.status.machine.stages.map((s) => s.name)).toEqual([
      'nozzle',
      'hose',
      'inlet',
      'paper bag',
      'foam',
      'fan',
      'exhaust',
    ]);
    expect(after.status.machine.stages.map((s) => s.position)).toEqual([0, 1, 2, 3, 4, 5, 6]);
    expect(after.status.machine.retired).toEqual([{ id: cartridge?.id, name: 'cartridge' }]);
    expect(logEntries(after, 'metric').some((e) => e.title.startsWith('Cartridge changed'))).toBe(true);
    // The air runs through something else now: the old baselines no longer speak.
    expect(airPathOfBench(after).view.basis).toEqual({ kind: 'template', why: null });
  });

  it('refuses an impossible path, a stale editor, an unknown part, a stranger, and no change at all', async () => {
    const wrong = async (change: (b: EditPathBody) => void) => {
      const body = await editBody('CR-07');
      change(body);
      return codes(await editPath(context, 'CR-07', body));
    };
    const swap = (b: EditPathBody) => {
      const [bag, hepa] = ['tank bag', 'HEPA'].map((n) => b.path.stages.findIndex((s) => s.name === n));
      const list = [...b.path.stages];
      const [first, second] = [list[bag ?? 0], list[hepa ?? 0]];
      if (first && second) [list[bag ?? 0], list[hepa ?? 0]] = [second, first];
      b.path.stages = list;
    };
    expect(await wrong(swap)).toEqual(['path.hepa-first path.stages.3']);
    expect(await wrong((b) => void (b.seen = 99))).toEqual(['edit.stale seen']);
    expect(await wrong((b) => void (b.path.stages = b.path.stages.map((s) => ({ ...s, partId: 999 }))))).toContain(
      'part.unknown path.stages.0.partId',
    );
    expect(
      await wrong((b) => void (b.path.stages = b.path.stages.map((s) => (s.name === 'hose' ? { ...s, id: 1 } : s)))),
    ).toEqual(['stage.unknown path.stages.1']);
    expect(await wrong((b) => void (b.path.stages = b.path.stages.filter((s) => s.name !== 'tank bag')))).toEqual([
      'stage.used path.stages',
    ]);
    expect(await wrong(() => undefined)).toEqual(['edit.nothing']);
    // A stage that another one is changed "only with" cannot go either, as one that is counted cannot.
    const stages = (await bench('CR-07')).status.machine.stages;
    const [wrap, hepa] = ['pre-filter wrap', 'HEPA'].map((n) => stages.find((s) => s.name === n)?.id ?? 0);
    await replaceRules(context.db, hepa ?? 0, [
      { rule: { kind: 'together', stageId: wrap ?? 0, stageName: 'pre-filter wrap', how: 'onlyWith' }, school: '' },
    ]);
    expect(
      await wrong((b) => void (b.path.stages = b.path.stages.filter((s) => s.name !== 'pre-filter wrap'))),
    ).toEqual(['stage.used path.stages']);
    expect((await bench('CR-07')).pathEdits).toEqual([]);
  });

  it('makes one record of a double click, keeps it for good, and nothing of a failed one', async () => {
    const body = await editBody('CR-09');
    body.path.machine.place = 'moved to the loft';
    const [first, second] = [
      value(await editPath(context, 'CR-09', body)),
      value(await editPath(context, 'CR-09', body)),
    ];
    expect(second.id).toBe(first.id);
    await expect(context.db.deleteFrom('path_edit').execute()).rejects.toThrow('kept');
    await expect(context.db.updateTable('path_edit').set({ note: 'x' }).execute()).rejects.toThrow('kept');
    // A place says nothing of the air: the baselines go on speaking.
    expect(airPathOfBench(await bench('CR-09')).view.basis.kind).toBe('calibrated');
  });
});

describe('a new machine', () => {
  const body = (over: Partial<NewMachineBody> = {}): NewMachineBody => ({
    clientId: newId(),
    by: 'MK',
    note: '',
    tag: 'cr-30',
    kind: 'hepaTank',
    firstUsedOn: null,
    dust: dustBody('nothing yet'),
    path: {
      machine: {
        name: 'Godwit',
        maker: 'Maker C',
        place: 'loft',
        machineClass: 'HEPA',
        hasBrush: false,
        wetSet: false,
        hoseBoreM: 0.032,
        hoseLengthM: 3,
        hoseSelectorM: null,
        nominalVolts: 230,
      },
      stages: MACHINE_KINDS.hepaTank.path.map((kind) => ({
        id: null,
        kind,
        name: kind,
        partId: null,
        missing: false,
        doNotRemove: false,
        spec: stageTemplate(kind, 'hepaTank'),
      })),
    },
    ...over,
  });

  it('is entered with its path, drawn from typical figures, and asks for a baseline', async () => {
    expect(value(await newMachine(context, body())).tag).toBe('CR-30');
    const b = await bench('CR-30');
    expect(b.status.need).toMatchObject({ kind: 'measureAgain', because: 'never' });
    expect(airPathOfBench(b).view.now?.toolFlowM3s).toBeGreaterThan(0.02);
    expect(codes(await newMachine(context, body()))).toEqual(['machine.tag-taken tag']);
  });

  it('has the usual rules of its stages unless somebody chose otherwise: never due is a choice, not a surprise', async () => {
    value(await newMachine(context, body({ tag: 'CR-35' })));
    const kinds = async (tag: string) =>
      Object.fromEntries(
        (await bench(tag)).status.machine.stages.map((s) => [s.kind, s.rules.map(({ rule }) => rule.kind)]),
      );
    const usual = await kinds('CR-35');
    expect(usual['bag']).toEqual(['fill', 'calendarDays']);
    expect(usual['hepa']).toEqual(['calendarDays']);
    expect(usual['hose']).toEqual([]);
    const { stages } = body().path;
    const rules = stages.map((s) =>
      s.kind === 'bag' ? [] : s.kind === 'hepa' ? [{ rule: { kind: 'indicator' } as const, school: 'mine' }] : null,
    );
    value(await newMachine(context, body({ tag: 'CR-36', rules })));
    expect(await kinds('CR-36')).toEqual({ ...usual, bag: [], hepa: ['indicator'] });
    // A stage that is put in later has its own; those that stand keep theirs.
    const { machine } = (await bench('CR-36')).status;
    const path = snapshotOf(machine);
    const foam = { id: null, kind: 'foam', name: 'foam', partId: null, missing: false, doNotRemove: false } as const;
    const spec = stageTemplate('foam', 'hepaTank');
    const at = path.stages.findIndex((s) => s.kind === 'prefilter');
    const withFoam = { ...path, stages: path.stages.toSpliced(at, 0, { ...foam, spec }) };
    const edit = { clientId: newId(), by: 'MK', note: '', seen: machine.editedThrough, path: withFoam };
    value(await editPath(context, 'CR-36', edit));
    expect(await kinds('CR-36')).toEqual({
      ...usual,
      bag: [],
      hepa: ['indicator'],
      foam: ['sight', 'calendarDays'],
    });
  });

  it('may have been in use for years: its timers run from then, and work of those days can be recorded', async () => {
    const tomorrow = addDays(dayAt(context.now(), 'Europe/London'), 1);
    expect(codes(await newMachine(context, body({ tag: 'CR-32', firstUsedOn: tomorrow })))).toEqual([
      'date.future firstUsedOn',
    ]);
    value(await newMachine(context, body({ tag: 'CR-32', firstUsedOn: '2022-03-01' })));
    const { machine } = (await bench('CR-32')).status;
    expect(machine.inServiceOn).toBe('2022-03-01');
    expect(machine.stages.map((s) => s.firstUsedOn)).toEqual(machine.stages.map(() => '2022-03-01'));
    const moment = (day: string) =>
      checkMoment({ performedAt: `${day}T10:00:00.000Z`, now: context.now(), machine, timeZone: 'Europe/London' });
    expect(moment('2022-03-01')).toEqual([]);
    expect(moment('2022-02-28').map((f) => f.code)).toEqual(['date.before-service']);
  });

  it('with a wrong tag gets the right one; the old one goes on finding it and is given to no other', async () => {
    value(await newMachine(context, body({ tag: 'CR-33' })));
    const wrong = { clientId: newId(), by: 'MK', tag: 'cr-34' };
    const [first, again] = [await correctTag(context, 'CR-33', wrong), await correctTag(context, 'CR-33', wrong)];
    expect(value(first).tag).toBe('CR-34');
    expect(again).toEqual(first);
    expect((await bench('CR-34')).status.machine.name).toBe('Godwit');
    // A page that was open under the old tag goes on recording on the same machine.
    expect((await findMachine(context.db, 'cr-33'))?.tag).toBe('CR-34');
    expect(await machineOnceTagged(context, 'cr-33')).toBe('CR-34');
    expect(await machineOnceTagged(context, 'CR-34')).toBeNull();
    expect(codes(await newMachine(context, body({ tag: 'CR-33' })))).toEqual(['machine.tag-taken tag']);
    const retagged = (tag: string) => correctTag(context, 'CR-34', { clientId: newId(), by: 'MK', tag });
    expect(codes(await retagged('CR-01'))).toEqual(['machine.tag-taken tag']);
    // Back to what it was is no theft.
    expect(value(await retagged('CR-33')).tag).toBe('CR-33');
  });

  it('refuses a path that cannot be', async () => {
    const b = body();
    b.path.stages = b.path.stages.filter((s) => s.kind !== 'fan');
    expect(codes(await newMachine(context, b))).toEqual(['path.no-fan path']);
  });
});
