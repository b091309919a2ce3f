import { beforeEach, describe, expect, it } from 'vitest';
import { readChanges, readTyped, UpgradeQuery, writeChanges } from '@/contracts/upgrade';
import { classStanding } from '@/core/machine/machine';
import { GENERAL_STAGE } from '@/core/machine/stage-templates';
import { snapshotOf } from '@/core/machine/path-edit';
import type { UpgradeChange } from '@/core/upgrade/change';
import { bookedOf, phaseOf } from '@/core/upgrade/record';
import { sayProof } from '@/messages/upgrade';
import type { Db } from '@/server/db/connect';
import { findMachine } from '@/server/repositories/machines';
import { loadBench } from '@/server/services/measuring/bench';
import { recordTest } from '@/server/services/measuring/record-test';
import { editPath } from '@/server/services/yard/edit-path';
import { moneyOf } from '@/server/services/upgrade/upgrade-money';
import { planOf, tooSlowAfter } from '@/server/services/upgrade/upgrade-plan';
import { provenOf } from '@/server/services/upgrade/upgrade-proof';
import { upgradeRecord } from '@/server/services/upgrade/upgrade-record';
import { actOnUpgrade, planUpgrade, upgradesOf } from '@/server/services/upgrade/upgrades';
import type { Context } from '@/server/services/yard/user-action';
import { readings, testBody } from '../support/bodies';
import { demoContext, newId, NOW } from '../support/database';

// An upgrade from the plan to its proof, and back.

let context: Context & { readonly db: Db };
let minutes = 0;
beforeEach(async () => {
  const made = await demoContext();
  minutes = 0;
  // Every action a minute after the one before.
  context = { ...made, now: () => new Date(Date.parse(NOW) + 60_000 * (minutes += 1)).toISOString() };
});

const TAG = 'CR-02';
const NEW_STAGE = { id: null, partId: null, missing: false, doNotRemove: false };
const machineNow = async (tag = TAG) => {
  const machine = await findMachine(context.db, tag);
  if (!machine) throw new Error(`no ${tag}`);
  return machine;
};
const benchNow = async (tag = TAG) => {
  const { bench } = await loadBench(context, tag);
  if (!bench) throw new Error(`no ${tag}`);
  return bench;
};
const stageId = async (kind: string, tag = TAG) => (await machineNow(tag)).stages.find((s) => s.kind === kind)?.id ?? 0;
const plan = async (changes: readonly UpgradeChange[], tag = TAG) =>
  planUpgrade(context, tag, { clientId: newId(), by: 'MK', note: 'try it', changes: [...changes], price: 60 });
const act = async (action: 'book' | 'undo' | 'drop', tag = TAG) => {
  const upgrade = (await upgradesOf(context, (await machineNow(tag)).id)).at(-1);
  const done = await actOnUpgrade(context, tag, {
    clientId: newId(),
    by: 'MK',
    note: '',
    upgradeId: upgrade?.id ?? 0,
    action,
  });
  return done.ok ? 'done' : done.failures.map((f) => f.code).join();
};
const measure = async (litres: readonly number[], tag = TAG, isBaseline = false): Promise<string> => {
  const { hoseBoreM } = await machineNow(tag);
  const body = testBody({
    readings: readings('L/s', ...litres.map((l) => l.toFixed(2))),
    performedAt: context.now(),
    isBaseline,
    hoseBore: { typed: String(1000 * (hoseBoreM ?? 0.036)), unit: 'mm' },
  });
  const done = await recordTest(context, tag, body);
  return done.ok ? 'done' : done.failures.map((f) => `${f.code} ${f.path}`).join();
};
const last = async (tag = TAG) => {
  const upgrade = (await upgradesOf(context, (await machineNow(tag)).id)).at(-1);
  if (!upgrade) throw new Error('no upgrade');
  return upgrade;
};

describe('a plan', () => {
  it('in an address is read as it was written, and what is typed with its units', () => {
    const changes: readonly UpgradeChange[] = [
      { kind: 'medium', stageId: 12, medium: 'nanofibre', areaM2: 20.8 },
      { kind: 'separator', lossK: 6, inletBoreM: 0.05, share: 0.95 },
      { kind: 'takeOut', stageId: 3 },
    ];
    expect(readChanges(writeChanges(changes))).toEqual(changes);
    expect(readChanges('medium:x:y:z~bogus~hose:0.03')).toEqual([]);
    const typed = readTyped(UpgradeQuery.parse({ add: 'bag', areaM2: '7 ft2' }));
    expect(typed.ok && typed.value).toMatchObject({ kind: 'bag', areaM2: expect.closeTo(0.65032, 4) as number });
    const bad = readTyped(UpgradeQuery.parse({ add: 'separator', inletBoreM: '50 mm', lossK: '6', share: '150 %' }));
    expect(bad.ok ? [] : bad.failures.map((f) => [f.code, f.path])).toEqual([['upgrade.change', 'share']]);
  });

  it('needs a machine that was measured; a double click keeps one', async () => {
    const changes = [{ kind: 'hose' as const, boreM: 0.05, lengthM: 3 }];
    const never = await plan(changes, 'CR-16');
    expect(never.ok ? [] : never.failures.map((f) => f.code)).toEqual(['upgrade.measure-first']);
    const body = { clientId: newId(), by: 'MK', note: '', changes, price: null };
    expect((await planUpgrade(context, TAG, body)).ok).toBe(true);
    expect((await planUpgrade(context, TAG, body)).ok).toBe(true);
    expect(await upgradesOf(context, (await machineNow()).id)).toHaveLength(1);
  });
});

describe('a change that is made', () => {
  it('wants the test from before, goes into the path, is proven by the one afterwards, and undone leaves all as it was', async () => {
    const before = snapshotOf(await machineNow());
    expect(await measure([30, 30.2, 29.9, 30.1])).toBe('done');
    const main = await stageId('mainFilter');
    expect((await plan([{ kind: 'medium', stageId: main, medium: 'pleatedPolyester', areaM2: 6 }])).ok).toBe(true);
    expect(await act('book')).toBe('done');
    expect(await act('book')).toBe('upgrade.phase');
    const air = (await machineNow()).stages.find((s) => s.id === main)?.spec.air;
    expect(air?.form === 'medium' && air.areaM2).toBe(6);
    expect(provenOf(await benchNow(), await last())).toMatchObject({ after: null, proof: null });
    const { predicted } = await last();
    const up = [0, 0.2, -0.1, 0.1].map((d) => 30.05 * predicted.ratio.value + d);
    expect(await measure(up)).toBe('done');
    const proven = provenOf(await benchNow(), await last());
    expect(proven?.proof?.outcome).toBe('asPredicted');
    const record = await upgradeRecord(context);
    expect(record.lines[0]).toMatchObject({ tag: TAG, phase: 'booked', spentSince: 0 });
    expect(await act('undo')).toBe('done');
    expect(phaseOf(await last())).toBe('undone');
    expect(snapshotOf(await machineNow())).toEqual(before);
  });

  it('whose proof falls short is told apart from one nobody can tell, and from one that other things explain', async () => {
    const outcome = async (after: readonly number[], volts?: number) => {
      context = { ...(await demoContext()), now: context.now };
      expect(await measure([30, 30.2, 29.9, 30.1])).toBe('done');
      const main = await stageId('mainFilter');
      expect((await plan([{ kind: 'medium', stageId: main, medium: 'pleatedPolyester', areaM2: 6 }])).ok).toBe(true);
      expect(await act('book')).toBe('done');
      if (volts !== undefined) expect(volts).toBeGreaterThan(0);
      expect(await measure(after)).toBe('done');
      return provenOf(await benchNow(), await last())?.proof;
    };
    const none = await outcome([30, 30.3, 29.8, 30.1]);
    const worse = await outcome([25, 25.2, 24.9, 25.1]);
    expect(['less', 'cannotTell']).toContain(none?.outcome);
    expect(worse?.outcome).toBe('worse');
    expect(worse && sayProof(worse).detail).toMatch(/Undo it/);
    const noisy = await outcome([24, 38, 29, 33]);
    expect(noisy?.outcome).toBe('cannotTell');
    expect(noisy && sayProof(noisy).detail).toMatch(/readings before and after would|More readings will not help/);
  });

  it('takes the class of an M machine with it, and undone wants the seat screened before the class stands again', async () => {
    const tag = 'CR-04';
    expect(await measure([14.1, 14.2, 14.0], tag)).toBe('done');
    const main = await stageId('mainFilter', tag);
    const planned = await plan([{ kind: 'medium', stageId: main, medium: 'pleatedPolyester', areaM2: 2 }], tag);
    expect(planned.ok).toBe(true);
    expect(await act('book', tag)).toBe('done');
    expect(classStanding(await machineNow(tag)).gap?.because).toBe('foreign');
    expect(await act('undo', tag)).toBe('done');
    expect(classStanding(await machineNow(tag)).gap?.because).toBe('untested');
  });

  it('a HEPA put in behind and taken out again was reached past the main filter: its seat is screened anew', async () => {
    const tag = 'CR-04';
    expect(await measure([14.1, 14.2, 14.0], tag)).toBe('done');
    expect(classStanding(await machineNow(tag)).gap).toBe(null);
    expect((await plan([{ kind: 'hepa', areaM2: 0.9 }], tag)).ok).toBe(true);
    expect(await act('book', tag)).toBe('done');
    expect(await act('undo', tag)).toBe('done');
    expect(classStanding(await machineNow(tag)).gap?.because).toBe('untested');
  });

  it('a foam is taken out, measured and put back: missing meanwhile, and all as it was afterwards', async () => {
    // A foam behind the fan, as some makers fit one.
    const machine = await machineNow();
    const path = snapshotOf(machine);
    const fan = path.stages.findIndex((s) => s.kind === 'fan');
    const air = { form: 'medium', medium: 'foam', areaM2: 0.05, k1PaSM: null, inParallel: 1 } as const;
    const spec = { ...GENERAL_STAGE.exhaustFilter, air };
    const foamed = {
      ...path,
      stages: [
        ...path.stages.slice(0, fan + 1),
        { ...NEW_STAGE, kind: 'exhaustFilter' as const, name: 'exhaust foam', spec },
        ...path.stages.slice(fan + 1),
      ],
    };
    const fitted = { clientId: newId(), by: 'TO', note: '', seen: machine.editedThrough, path: foamed };
    expect((await editPath(context, TAG, fitted as never)).ok).toBe(true);
    // The old baseline was of another path: it has to be measured again before anything is predicted.
    const foam = await stageId('exhaustFilter');
    const early = await plan([{ kind: 'takeOut', stageId: foam }]);
    expect(early.ok ? [] : early.failures.map((f) => f.code)).toEqual(['upgrade.measure-first']);
    expect(await measure([38, 38.2, 37.9, 38.1], TAG, true)).toBe('done');
    const one = await plan([{ kind: 'takeOut', stageId: foam }]);
    expect(one.ok ? [] : one.failures.map((f) => f.code)).toEqual(['upgrade.measure-first', 'calibration.one-point']);
    const sealed = testBody({
      method: 'sealedSuction',
      place: 'inlet',
      readings: readings('kPa', '19.9', '20.1', '20.0'),
      hoseBore: null,
      isBaseline: true,
      performedAt: context.now(),
    });
    expect((await recordTest(context, TAG, sealed)).ok).toBe(true);
    const before = snapshotOf(await machineNow());
    expect((await plan([{ kind: 'takeOut', stageId: foam }])).ok).toBe(true);
    expect((await last()).predicted.ratio.value).toBeGreaterThan(1);
    expect(await act('book')).toBe('done');
    expect((await machineNow()).stages.find((s) => s.id === foam)?.missing).toBe(true);
    expect(await measure([38.1, 38, 38.2, 37.9])).toBe('done');
    expect(['less', 'cannotTell']).toContain(provenOf(await benchNow(), await last())?.proof?.outcome);
    expect(await act('undo')).toBe('done');
    expect(snapshotOf(await machineNow())).toEqual(before);
  });

  it('overtaken by another change is planned anew; one that something was built on is not undone over it', async () => {
    expect(await measure([30, 30.2, 29.9])).toBe('done');
    expect((await plan([{ kind: 'hose', boreM: 0.05, lengthM: 3 }])).ok).toBe(true);
    const edit = async (name: string) => {
      const machine = await machineNow();
      const path = snapshotOf(machine);
      const body = { clientId: newId(), by: 'TO', note: '', seen: machine.editedThrough };
      const edited = await editPath(context, TAG, {
        ...body,
        path: { ...path, machine: { ...path.machine, name } },
      } as never);
      expect(edited.ok).toBe(true);
    };
    await edit('Sanderling two');
    expect(await act('book')).toBe('upgrade.stale');
    expect(await measure([30, 30.2, 29.9])).toBe('done');
    expect((await plan([{ kind: 'hose', boreM: 0.05, lengthM: 3 }])).ok).toBe(true);
    expect(await act('book')).toBe('done');
    expect(bookedOf(await last())?.editId).not.toBe(null);
    await edit('Sanderling three');
    expect(await act('undo')).toBe('upgrade.stale');
    expect(await act('drop')).toBe('upgrade.phase');
  });
});

describe('what would hurt somebody is said', () => {
  const slow = async (tag: string, changes: readonly UpgradeChange[]) => {
    const made = planOf(await benchNow(tag), changes);
    if (!made.ok) throw new Error(made.failures.map((f) => f.code).join());
    return tooSlowAfter(made.value)?.kind ?? null;
  };

  it('a hose too wide for the 20 m/s of an H machine (EN 60335-2-69), a cyclone that lets chips settle (ACGIH: 18 m/s)', async () => {
    expect(await slow('CR-05', [{ kind: 'hose', boreM: 0.05, lengthM: 3 }])).toBe('class');
    expect(await slow('CR-05', [{ kind: 'hose', boreM: 0.036, lengthM: 3 }])).toBe(null);
    expect(await slow('CR-01', [{ kind: 'separator', lossK: 6, inletBoreM: 0.125, share: 0.9 }])).toBe('duct');
    // A shop vacuum is asked for no velocity.
    expect(await slow('CR-02', [{ kind: 'hose', boreM: 0.1, lengthM: 3 }])).toBe(null);
  });
});

describe('the money of it', () => {
  it('comes from the ledger, and says where it does not', async () => {
    const bench = await benchNow('CR-04');
    const made = planOf(bench, [{ kind: 'separator', lossK: 6, inletBoreM: 0.05, share: 0.9 }]);
    if (!made.ok) throw new Error(made.failures.map((f) => f.code).join());
    const money = moneyOf(bench, made.value, { price: 100, addedPerYear: 0, newPart: null });
    expect(money.stated).not.toContain('fleece bag');
    expect(money.payback.costAfter.middle).toBeLessThan(money.payback.costBefore.middle);
    expect(money.payback.years.middle).toBeGreaterThan(0);
    const dear = moneyOf(bench, made.value, { price: 100, addedPerYear: 1e6, newPart: null });
    expect(dear.payback.never).toBe(1);
  });
});
