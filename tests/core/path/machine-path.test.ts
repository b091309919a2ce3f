import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS, type MachineKind } from '@/core/machine/kinds';
import { classStanding } from '@/core/machine/machine';
import { pathDifferences, reshapes, snapshotOf } from '@/core/machine/path-edit';
import { fanXY, systemXY } from '@/core/path/curves';
import { faceVelocity } from '@/core/path/face-velocity';
import { flowLamp, gaugeZone } from '@/core/path/indicator';
import { CLEAN, type MachineModel, type PathState } from '@/core/path/machine-path';
import { checkMachinePath } from '@/core/path/path-rules';
import { stageTemplate } from '@/core/machine/stage-templates';
import type { StageKind } from '@/core/path/stage-kinds';
import { type Entry, pressureProfile, templateParameters } from '@/core/path/pressure-profile';
import { CLEAN_STATE, modelOf, templateMachine } from '../../support/machines';

const KINDS = Object.keys(MACHINE_KINDS) as MachineKind[];
const hoseOf = (kind: MachineKind) =>
  kind.endsWith('Collector')
    ? { hoseBoreM: 0.15, hoseLengthM: 5 }
    : kind === 'centralUnit'
      ? { hoseBoreM: 0.05, hoseLengthM: 12 }
      : {};
const modelOfKind = (kind: MachineKind) => modelOf(templateMachine(kind, hoseOf(kind)));

const solve = (model: MachineModel, state: PathState = CLEAN_STATE, entry: Entry = { at: 'use' }) => {
  const s = pressureProfile({ model, parameters: templateParameters(model, 12e-6), state, entry });
  if (!s.ok) throw new Error(s.failures.map((f) => `${f.code} ${f.path}`).join());
  return s.value;
};

describe('every kind of machine, as laid out for a new record', () => {
  it.each(KINDS)('%s: its path can be, and moves air of the order its kind does', (kind) => {
    const model = modelOfKind(kind);
    expect(checkMachinePath(model, { wet: false })).toEqual({ ok: true, value: true });
    const { flowM3s } = MACHINE_KINDS[kind];
    const s = solve(model);
    expect(s.toolFlowM3s).toBeGreaterThan(0.4 * flowM3s[0]);
    expect(s.toolFlowM3s).toBeLessThan(flowM3s[1] * 1.05);
    // The staircase starts and ends in the room, and its steps add up to the lift.
    expect(s.nodesPa[0]).toBe(0);
    expect(Math.abs(s.nodesPa.at(-1) ?? 1)).toBeLessThan(0.01);
    expect(s.steps.filter((x) => x.dropPa > 0).reduce((sum, x) => sum + x.shareOfLift, 0)).toBeCloseTo(1, 4);
  });

  it('a Y carries each tool its own half, and the hose both', () => {
    const s = solve(modelOfKind('grinderExtractor'));
    expect(s.flowPerToolM3s).toBeCloseTo(s.toolFlowM3s / 2, 9);
    expect(s.steps[0]?.flowM3s).toBeCloseTo(s.flowPerToolM3s, 9);
    expect(s.steps[2]?.flowM3s).toBeCloseTo(s.toolFlowM3s, 6);
  });
});

describe('states and entries', () => {
  const model = modelOfKind('shopVacuum');
  const bag = model.stages.findIndex((s) => s.kind === 'bag');
  const loaded = (loadPaSM3: number): PathState => ({ ...CLEAN_STATE, stages: { [bag]: { ...CLEAN, loadPaSM3 } } });

  it('loading a stage makes its step taller and every flow smaller; taking it out does the reverse', () => {
    const [clean, full, out] = [
      solve(model),
      solve(model, loaded(2e5)),
      solve(model, { ...CLEAN_STATE, stages: { [bag]: { ...CLEAN, removed: true } } }),
    ];
    expect(full.steps[bag]?.dropPa).toBeGreaterThan(10 * (clean.steps[bag]?.dropPa ?? 0));
    full.steps.forEach((s, i) => expect(s.flowM3s).toBeLessThan(clean.steps[i]?.flowM3s ?? 0));
    expect(out.toolFlowM3s).toBeGreaterThan(clean.toolFlowM3s);
    expect(out.steps[bag]).toMatchObject({ faceVelocityMs: null });
  });

  it('a missing stage is open; the hose off at the inlet flows more; sealed there reads the suction and no tool flow', () => {
    const gone: MachineModel = {
      ...model,
      stages: model.stages.map((s, i) => (i === bag ? { ...s, missing: true } : s)),
    };
    expect(solve(gone).steps[bag]?.dropPa).toBeCloseTo(0, 9);
    const inlet = 2;
    const off = solve(model, CLEAN_STATE, { at: 'node', opening: { node: inlet, state: 'open' } });
    expect(off.toolFlowM3s).toBeGreaterThan(solve(model).toolFlowM3s);
    const shut = solve(model, CLEAN_STATE, { at: 'node', opening: { node: inlet, state: 'drawn', flowM3s: 0 } });
    expect(shut.toolFlowM3s).toBe(0);
    expect(-(shut.nodesPa[inlet] ?? 0)).toBeGreaterThan(0.9 * 17_000);
    expect(solve(model, CLEAN_STATE, { at: 'closedOutlet' }).outletFlowM3s).toBeCloseTo(0, 9);
  });

  it('the fan chart crosses where the machine works', () => {
    const parameters = templateParameters(model, 12e-6);
    const point = solve(model);
    const near = (curve: readonly (readonly [number, number])[]) =>
      Math.min(...curve.map(([q, p]) => Math.hypot(q / point.fanFlowM3s - 1, p / point.fanLiftPa - 1)));
    expect(near(fanXY(model, parameters))).toBeLessThan(0.05);
    expect(near(systemXY(model, parameters, CLEAN_STATE))).toBeLessThan(0.05);
  });
});

describe('gauges, lamps and face velocity', () => {
  it('a zone begins at its limit', () => {
    const gauge = { amberPa: 1500, redPa: 3000 };
    expect([1499, 1500, 2999, 3000].map((pa) => gaugeZone(pa, gauge))).toEqual(['green', 'amber', 'amber', 'red']);
  });

  it('EN 60335-2-69: a 36 mm hose on the 27 mm setting is warned of at 11.3 m/s', () => {
    const lamp = { selectorM: 0.027, belowMs: 20 };
    expect(flowLamp(lamp, { flowM3s: 0.02, hoseM: 0.036 }).warnsAtMs).toBeCloseTo(11.25, 2);
    expect(flowLamp(lamp, { flowM3s: 41.1 / 3600, hoseM: 0.027 }).lit).toBe(true);
    expect(flowLamp(lamp, { flowM3s: 41.3 / 3600, hoseM: 0.027 }).lit).toBe(false);
  });

  it('area to spare, usual, short of area: EPA gas-to-cloth ratios for shaken cloth, 2 to 4 ft/min', () => {
    const at = (fpm: number) =>
      faceVelocity({ flowM3s: fpm * 0.00508, areaM2: 1, medium: 'clothBag', collector: true }).verdict;
    expect([1.5, 3, 69.5].map(at)).toEqual(['easy', 'usual', 'high']);
    expect(() => faceVelocity({ flowM3s: 1, areaM2: 0, medium: 'clothBag', collector: true })).toThrow(RangeError);
  });
});

const pathOfKinds = (kinds: readonly StageKind[], over: Partial<MachineModel> = {}): MachineModel => ({
  stages: kinds.map((kind, i) => ({
    id: i,
    kind,
    name: `${kind} ${i}`,
    missing: false,
    spec: stageTemplate(kind, 'hepaTank'),
  })),
  hoseBoreM: 0.036,
  hoseLengthM: 3,
  ...over,
});

describe('impossible paths are named, with the stage', () => {
  const told = (model: MachineModel, wet = false) => {
    const checked = checkMachinePath(model, { wet });
    return checked.ok ? [] : checked.failures.map((f) => `${f.code} ${f.path}`);
  };

  it.each<[string, readonly StageKind[], string]>([
    ['the HEPA before the bag', ['nozzle', 'hose', 'hepa', 'bag', 'fan', 'exhaust'], 'path.hepa-first stages.2'],
    ['a gas stage before the HEPA', ['hood', 'gas', 'hepa', 'fan'], 'path.gas-first stages.1'],
    ['a tool behind the hose', ['hose', 'nozzle', 'fan'], 'path.mouth-late stages.1'],
    ['an exhaust filter before the fan', ['nozzle', 'exhaustFilter', 'fan'], 'path.exhaust-early stages.1'],
    ['a Y with nothing before it', ['wye', 'hose', 'fan'], 'path.wye-first stages.0'],
    ['two fans', ['nozzle', 'fan', 'fan'], 'path.two-fans '],
    ['no fan', ['nozzle', 'bag'], 'path.no-fan '],
    ['nothing', [], 'path.empty '],
  ])('%s', (_what, kinds, failure) => {
    expect(told(pathOfKinds(kinds))).toContain(failure);
  });

  it('paper in a wet set, two of one name, too many, and a hose nobody measured', () => {
    const dry = modelOf(templateMachine('shopVacuum'));
    expect(told(dry)).toEqual([]);
    expect(told(dry, true)).toEqual(expect.arrayContaining(['path.paper-wet stages.3']));
    const twice = { ...dry, stages: dry.stages.map((s) => (s.kind === 'bag' ? { ...s, name: 'Hose' } : s)) };
    expect(told(twice)).toEqual(['stage.name stages.3.name']);
    expect(told(pathOfKinds([...Array.from({ length: 17 }, (): StageKind => 'inlet'), 'fan']))).toEqual([
      'path.too-long stages',
    ]);
    expect(told({ ...dry, hoseBoreM: null })).toEqual(['path.bore stages.1.boreM']);
  });

  it('a HEPA behind the fan may follow a bag train before it: the order holds on each side', () => {
    expect(told(pathOfKinds(['nozzle', 'hose', 'bag', 'prefilter', 'fan', 'hepa', 'exhaust']))).toEqual([]);
  });
});

describe('editing a path', () => {
  const machine = templateMachine('hepaTank');
  const before = snapshotOf(machine);

  it('tells what changed, and whether the air runs another way', () => {
    const hepa = before.stages.findIndex((s) => s.kind === 'hepa');
    const missing = { ...before, stages: before.stages.map((s, i) => (i === hepa ? { ...s, missing: true } : s)) };
    expect(pathDifferences(before, missing)).toEqual([{ kind: 'missing', stage: 'hepa' }]);
    expect(reshapes(pathDifferences(before, missing))).toBe(false);
    const shorter = { ...before, stages: before.stages.filter((s) => s.kind !== 'prefilter') };
    expect(pathDifferences(before, shorter)).toEqual([{ kind: 'removed', stage: 'prefilter' }]);
    expect(reshapes(pathDifferences(before, shorter))).toBe(true);
    const longHose = { ...before, machine: { ...before.machine, hoseLengthM: 10 } };
    expect(reshapes(pathDifferences(before, longHose))).toBe(true);
    const larger = {
      ...before,
      stages: before.stages.map((s) =>
        s.kind === 'hepa' ? { ...s, spec: stageTemplate('hepa', 'fumeExtractor') } : s,
      ),
    };
    expect(pathDifferences(before, larger).map((d) => d.kind)).toContain('resized');
    expect(reshapes(pathDifferences(before, larger))).toBe(true);
    const swapped = {
      ...before,
      stages: [before.stages[1], before.stages[0], ...before.stages.slice(2)].flatMap((s) => (s ? [s] : [])),
    };
    expect(pathDifferences(before, swapped)).toEqual([{ kind: 'moved' }]);
    expect(pathDifferences(before, before)).toEqual([]);
  });

  it('a missing, foreign or reversed stage withdraws the class, the missing one told first', () => {
    const rated = { ...machine, machineClass: 'HEPA' as const };
    expect(classStanding(rated)).toMatchObject({ label: 'HEPA', gap: null });
    const spoiled = (change: (s: (typeof machine.stages)[number]) => (typeof machine.stages)[number]) =>
      classStanding({ ...rated, stages: rated.stages.map((s) => (s.kind === 'hepa' ? change(s) : s)) });
    expect(spoiled((s) => ({ ...s, missing: true }))).toMatchObject({
      label: null,
      onPlate: 'HEPA',
      gap: { because: 'missing' },
    });
    expect(spoiled((s) => ({ ...s, spec: { ...s.spec, fit: { ...s.spec.fit, foreign: true } } })).gap?.because).toBe(
      'foreign',
    );
    expect(
      spoiled((s) => ({ ...s, spec: { ...s.spec, fit: { ...s.spec.fit, orientation: 'againstFlow' } } })).gap?.because,
    ).toBe('reversed');
  });
});
