import { describe, expect, it } from 'vitest';
import { AS_NEW } from '@/core/path/as-new';
import { fromSi, toSi } from '@/core/units';
import { faceVelocity } from '@/core/path/face-velocity';
import { classStanding } from '@/core/machine/machine';
import { modelOfSnapshot, snapshotOf, type PathSnapshot } from '@/core/machine/path-edit';
import { templateParameters } from '@/core/path/pressure-profile';
import { SEAL_LEAK } from '@/core/constants/path';
import { upgradeSteps } from '@/core/upgrade/apply';
import type { UpgradeChange } from '@/core/upgrade/change';
import { cleanFigures, type UpgradeFigures, upgradeFigures } from '@/core/upgrade/gain';
import { lifeChanges } from '@/core/upgrade/life';
import { stageOf, templateMachine } from '../../support/machines';

const FT2 = toSi('area', 1, 'ft2');
const shop = templateMachine('shopVacuum', { machineClass: null });
const extractor = templateMachine('mExtractor');

const steps = (path: PathSnapshot, changes: readonly UpgradeChange[]) => {
  const made = upgradeSteps(path, changes, 'plain');
  if (!made.ok) throw new Error(made.failures.map((f) => f.code).join());
  return made.value;
};
const figures = (path: PathSnapshot, changes: readonly UpgradeChange[]): readonly UpgradeFigures[] => {
  const made = cleanFigures({
    steps: steps(path, changes),
    parameters: templateParameters(modelOfSnapshot(path), SEAL_LEAK.value),
    basis: { kind: 'template', why: null, observations: 0 },
    today: AS_NEW,
  });
  if (!made.ok) throw new Error(made.failures.map((f) => f.code).join());
  return made.value;
};
const gain = (path: PathSnapshot, changes: readonly UpgradeChange[]): number =>
  (figures(path, changes).at(-1)?.ratio.value ?? 0) - 1;
const refusal = (path: PathSnapshot, changes: readonly UpgradeChange[]) => {
  const made = upgradeSteps(path, changes, 'plain');
  return made.ok ? [] : made.failures.map((f) => [f.code, f.path]);
};

describe('a cloth bag for a canister (handbook of the trade, sections 7 and 14)', () => {
  it('224 against 7 ft2 at 570.8 and 486.5 cfm: 2.5 and 69.5 fpm, and 17.3 % more air', () => {
    const fpm = (cfm: number, ft2: number) => {
      const { velocityMs } = faceVelocity({
        flowM3s: toSi('flow', cfm, 'cfm'),
        areaM2: ft2 * FT2,
        medium: 'nanofibre',
        collector: true,
      });
      return fromSi('velocity', velocityMs, 'fpm');
    };
    expect(fpm(570.8, 224)).toBeCloseTo(2.5, 1);
    expect(fpm(486.5, 7)).toBeCloseTo(69.5, 1);
    expect(100 * (570.8 / 486.5 - 1)).toBeCloseTo(17.3, 1);
  });

  it('a finer medium of thirty times the area gives more air; of the same area it gives less', () => {
    const collector = snapshotOf(
      templateMachine('singleStageCollector', { machineClass: null, hoseBoreM: 0.125, hoseLengthM: 2 }),
    );
    const canister = collector.stages.findIndex((s) => s.kind === 'canister');
    const cloth: PathSnapshot = {
      ...collector,
      stages: collector.stages.map((s, i) =>
        i === canister
          ? {
              ...s,
              spec: {
                ...s.spec,
                air: { form: 'medium', medium: 'clothBag', areaM2: 0.65, k1PaSM: null, inParallel: 1 },
              },
            }
          : s,
      ),
    };
    const stageId = cloth.stages[canister]?.id ?? 0;
    const to = (areaM2: number): number => gain(cloth, [{ kind: 'medium', stageId, medium: 'nanofibre', areaM2 }]);
    expect(to(20.8)).toBeGreaterThan(0.05);
    expect(to(0.65)).toBeLessThan(0);
    // The gain is what the path says, and the interval holds it.
    const [, after] = figures(cloth, [{ kind: 'medium', stageId, medium: 'nanofibre', areaM2: 20.8 }]);
    expect(after?.ratio.low).toBeLessThan(after?.ratio.value ?? 0);
    expect(after?.ratio.high).toBeGreaterThan(after?.ratio.value ?? 0);
  });
});

describe('what is put into a machine', () => {
  const path = snapshotOf(shop);
  it('goes where the trade puts it: bag in front, HEPA behind the filter, cyclone behind the hose', () => {
    const bare: PathSnapshot = { ...path, stages: path.stages.filter((s) => s.kind !== 'bag') };
    const three = steps(bare, [
      { kind: 'bag', areaM2: 0.25 },
      { kind: 'hepa', areaM2: 0.9 },
      { kind: 'separator', lossK: 6, inletBoreM: 0.05, share: 0.95 },
    ]);
    expect(three.at(-1)?.path.stages.map((s) => s.kind)).toEqual([
      'nozzle',
      'hose',
      'cyclone',
      'inlet',
      'bag',
      'mainFilter',
      'hepa',
      'fan',
      'exhaust',
    ]);
    // Each of them costs air, and none gives any.
    const flows = figures(bare, [
      { kind: 'bag', areaM2: 0.25 },
      { kind: 'hepa', areaM2: 0.9 },
      { kind: 'separator', lossK: 6, inletBoreM: 0.05, share: 0.95 },
    ]).map((f) => f.flow.value);
    expect([...flows].sort((a, b) => b - a)).toEqual(flows);
    expect(refusal(path, [{ kind: 'bag', areaM2: 0.25 }])).toEqual([['upgrade.no-place', 'changes.0']]);
  });

  it('a filter more in the way never gives air, loaded as the others may be: the leak stays where it was', () => {
    const at = path.stages.findIndex((s) => s.kind === 'mainFilter');
    const made = upgradeFigures({
      steps: steps(path, [{ kind: 'hepa', areaM2: 0.9 }]),
      parameters: { ...templateParameters(modelOfSnapshot(path), SEAL_LEAK.value), leakM2: 1e-4 },
      basis: { kind: 'template', why: null, observations: 0 },
      today: { ...AS_NEW, stages: { [at]: { loadPaSM3: 4e5, blockFactor: 1, removed: false } } },
    });
    expect(made.ok && made.value.at(-1)?.ratio.value).toBeLessThan(1);
  });

  it('a wider hose gives more air, sealing a leak gives the tool more, a container gives none', () => {
    expect(gain(path, [{ kind: 'hose', boreM: 0.05, lengthM: 3 }])).toBeGreaterThan(0);
    expect(gain(path, [{ kind: 'hose', boreM: 0.027, lengthM: 12 }])).toBeLessThan(0);
    expect(gain(path, [{ kind: 'seal', leakM2: 0 }])).toBeGreaterThan(0);
    // A new seal that is worse than the machine's own leak is not fitted worse than the old one.
    expect(gain(path, [{ kind: 'seal', leakM2: 0.005 }])).toBeCloseTo(0, 9);
    expect(gain(path, [{ kind: 'container', volumeM3: 0.02 }])).toBeCloseTo(0, 9);
  });

  it('another hose is a new part whose friction nobody knows: no narrow interval', () => {
    const wide = figures(path, [{ kind: 'hose', boreM: 0.05, lengthM: 6 }]).at(-1)?.ratio;
    expect((wide?.high ?? 1) / (wide?.low ?? 1)).toBeGreaterThan(1.04);
  });

  it('takes the class away from a machine that has one: a whole appliance was tested (EN 60335-2-69)', () => {
    const of = snapshotOf(extractor);
    const main = of.stages.find((s) => s.kind === 'mainFilter')?.id ?? 0;
    for (const change of [
      { kind: 'medium', stageId: main, medium: 'nanofibre', areaM2: 2 },
      { kind: 'hepa', areaM2: 1 },
      { kind: 'separator', lossK: 6, inletBoreM: 0.05, share: 0.9 },
      { kind: 'exhaust', lossK: 1, boreM: 0.05 },
      { kind: 'takeOut', stageId: of.stages.find((s) => s.kind === 'bag')?.id ?? 0 },
    ] as const) {
      const after = steps(of, [change]).at(-1)?.path.stages ?? [];
      const stages = after.map((s, i) => stageOf(s.id ?? -1 - i, { ...s, id: s.id ?? -1 - i, part: null }));
      expect([change.kind, classStanding({ ...extractor, stages }).label]).toEqual([change.kind, null]);
    }
  });

  it('nothing that must stay in comes out: no fine filter, no last one, nothing the maker forbids, nothing that is not there', () => {
    const idOf = (kind: string) => path.stages.find((s) => s.kind === kind)?.id ?? 0;
    const out = (of: PathSnapshot, stageId: number) => refusal(of, [{ kind: 'takeOut', stageId }])[0]?.[0] ?? 'may';
    expect(out(path, idOf('bag'))).toBe('may');
    const kept = { ...path, stages: path.stages.map((s) => ({ ...s, doNotRemove: s.kind === 'bag' })) };
    expect(out(kept, idOf('bag'))).toBe('upgrade.keep');
    expect(out(path, idOf('mainFilter'))).toBe('upgrade.keep');
    // With lead in it nothing that holds dust, or guards the room from it, comes out.
    for (const kind of ['bag', 'hose', 'mainFilter'])
      expect(upgradeSteps(path, [{ kind: 'takeOut', stageId: idOf(kind) }], 'contained')).toMatchObject({
        ok: false,
        failures: [{ code: 'upgrade.keep' }],
      });
    expect(upgradeSteps(path, [{ kind: 'takeOut', stageId: idOf('bag') }], 'controlled').ok).toBe(false);
    // The bag of a machine that has nothing finer behind it is its filter.
    const last = { ...path, stages: path.stages.filter((s) => s.kind !== 'mainFilter') };
    expect(out(last, idOf('bag'))).toBe('upgrade.keep');
    for (const stageId of [idOf('fan'), 4711]) expect(out(path, stageId)).toBe('upgrade.no-place');
    expect(refusal(path, [{ kind: 'medium', stageId: idOf('fan'), medium: 'foam', areaM2: 1 }])[0]?.[0]).toBe(
      'upgrade.no-place',
    );
  });
});

describe('today and clean are told apart', () => {
  it('a fresh filter in place of a loaded one is not what the change brings', () => {
    const path = snapshotOf(shop);
    const at = path.stages.findIndex((s) => s.kind === 'mainFilter');
    const stage = path.stages[at];
    if (stage?.spec.air.form !== 'medium') throw new Error('no filter');
    const { medium, areaM2 } = stage.spec.air;
    // The same filter again, a hair larger.
    const change = { kind: 'medium' as const, stageId: stage.id ?? 0, medium, areaM2: areaM2 * 1.001 };
    const loaded = { ...AS_NEW, stages: { [at]: { loadPaSM3: 2e5, blockFactor: 1, removed: false } } };
    const made = upgradeFigures({
      steps: steps(path, [change]),
      parameters: templateParameters(modelOfSnapshot(path), SEAL_LEAK.value),
      basis: { kind: 'template', why: null, observations: 0 },
      today: loaded,
    });
    if (!made.ok) throw new Error('no figures');
    const today = made.value.at(-1)?.ratio;
    expect(today?.value).toBeGreaterThan(1.05);
    // How loaded it was is known from one reading: no narrow interval can come of that.
    expect((today?.high ?? 1) / (today?.low ?? 1)).toBeGreaterThan(1.12);
    expect(Math.abs(gain(path, [change]))).toBeLessThan(0.001);
  });
});

describe('how long things last afterwards', () => {
  const life = (changes: readonly UpgradeChange[], machine = shop) => {
    const path = snapshotOf(machine);
    const all = steps(path, changes);
    const [before, after] = [all[0], all.at(-1)];
    if (!before || !after) throw new Error('no steps');
    const parameters = templateParameters(modelOfSnapshot(path), SEAL_LEAK.value);
    return lifeChanges({ machine, changes, before, after, parameters });
  };
  const main = shop.stages.find((s) => s.kind === 'mainFilter')?.id ?? 0;

  it('nine tenths taken before it: ten times as long and no more; never for what a date decides', () => {
    const cyclone = { kind: 'separator', lossK: 6, inletBoreM: 0.05, share: 0.9 } as const;
    expect(life([cyclone]).find((l) => l.stageId === main)).toMatchObject({ because: 'separator', factor: 10 });
    expect(life([{ ...cyclone, share: 0.5 }]).find((l) => l.stageId === main)?.factor).toBeCloseTo(2, 6);
    const dated = {
      ...shop,
      stages: shop.stages.map((s) =>
        s.id === main
          ? { ...s, rules: [{ id: 1, stageId: main, rule: { kind: 'calendarDays', days: 90 } as const, school: '' }] }
          : s,
      ),
    };
    expect(life([cyclone], dated).find((l) => l.stageId === main)).toMatchObject({ because: 'calendar', factor: 1 });
  });

  it('twice the area holds about four times the dust for the same loss of air (drag model: dp goes with m / A2)', () => {
    const stage = shop.stages.find((s) => s.id === main);
    if (stage?.spec.air.form !== 'medium') throw new Error('no filter');
    const { medium, areaM2 } = stage.spec.air;
    const twice = life([{ kind: 'medium', stageId: main, medium, areaM2: 2 * areaM2 }]).find((l) => l.stageId === main);
    expect(twice?.factor).toBeGreaterThan(3.4);
    expect(twice?.factor).toBeLessThan(4.2);
  });

  it('what goes out lasts no longer', () => {
    const bag = shop.stages.find((s) => s.kind === 'bag')?.id ?? 0;
    expect(life([{ kind: 'takeOut', stageId: bag }]).find((l) => l.stageId === bag)?.because).toBe('gone');
  });
});
