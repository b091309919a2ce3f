import { describe, expect, it } from 'vitest';
import type { Medium } from '@/core/constants/media';
import { MACHINE_KINDS, type MachineKind } from '@/core/machine/kinds';
import { essentialStage, type PathStage } from '@/core/machine/essential';
import { fanTemplate } from '@/core/machine/stage-templates';
import { boreAreaM2, boreVelocityMs, flowFromCentreVelocityM3s } from '@/core/measure/bore-flow';
import { airPathOf, fanWith, type MachineModel } from '@/core/path/machine-path';
import { REFERENCE_AIR } from '@/core/path/model/air';
import { checkChain } from '@/core/path/model/check-element';
import { type Element, OPEN_PLACE } from '@/core/path/model/element';
import { type FanCurve, fanCoefficients, fanLiftPa, NOMINAL_DRIVE } from '@/core/path/model/fan';
import { templateParameters } from '@/core/path/pressure-profile';
import type { StageKind } from '@/core/path/stage-kinds';
import { isOverdue, isProbablyPast, mayBePast, mayBind } from '@/core/forecast/overdue';
import { chanceWord, inTenths } from '@/core/numeric/chance-word';
import { CLEAN_STATE, modelOf, stageOf, templateMachine } from '../../support/machines';

describe('a round bore', () => {
  it('27 mm is 572.6 mm2; 41.2 m3/h in it are 20 m/s (EN 60335-2-69 Annex AA)', () => {
    expect(boreAreaM2(0.027) * 1e6).toBeCloseTo(572.6, 1);
    expect(boreVelocityMs({ flowM3s: 41.2 / 3600, boreM: 0.027 })).toBeCloseTo(20, 1);
  });
  it.each([0, -0.027, Number.NaN])('of %s is refused', (boreM) => {
    expect(() => boreAreaM2(boreM)).toThrow(`bore ${boreM} m is not above 0`);
  });
  it('a profile factor is 0.5 to 1', () => {
    const flow = (profileFactor: number) =>
      flowFromCentreVelocityM3s({ centreVelocityMs: 10, boreM: 0.1, profileFactor });
    expect(flow(1)).toBeCloseTo(10 * Math.PI * 0.0025, 9);
    expect(flow(0.5)).toBeCloseTo(flow(1) / 2, 12);
    for (const bad of [0.49, 1.01, Number.NaN]) expect(() => flow(bad)).toThrow('is not 0.5 to 1');
  });
});

describe('a chain of elements and its leaks', () => {
  const load: Element = { kind: 'resistance', r1PaSM3: 1e4, r2PaS2M6: 0 };
  const check = (leaksM2: readonly number[], elements: readonly Element[] = [load, OPEN_PLACE]) =>
    checkChain({ elements, leaksM2 });

  it('has a leak, or none, at each node: one more than elements', () => {
    expect(check([0, 1e-6, 10])).toMatchObject({ ok: true });
    expect(check([0, 0])).toEqual({
      ok: false,
      failures: [{ code: 'path.leak', path: 'leaksM2', facts: { have: 2, need: 3 } }],
    });
    expect(check([0, 0, 0, 0])).toMatchObject({ failures: [{ facts: { have: 4, need: 3 } }] });
  });

  it('names the first leak that cannot be, by its node', () => {
    expect(check([-1e-6, 0, 11])).toEqual({
      ok: false,
      failures: [{ code: 'path.leak', path: 'leaksM2.0', facts: { value: -1e-6 } }],
    });
    expect(check([0, 0, 10.1])).toMatchObject({ failures: [{ path: 'leaksM2.2', facts: { value: 10.1 } }] });
    expect(check([0, Number.NaN, 0])).toMatchObject({ failures: [{ path: 'leaksM2.1' }] });
  });

  it('names the element that cannot be, by its place', () => {
    const wrong = check([0, 0, 0], [load, { kind: 'resistance', r1PaSM3: -5, r2PaS2M6: 0 }]);
    expect(wrong.ok ? '' : wrong.failures[0]?.path).toBe('elements.1.r1PaSM3');
  });

  it('an open place costs nothing', () => {
    expect(OPEN_PLACE).toEqual({ kind: 'resistance', r1PaSM3: 0, r2PaS2M6: 0 });
  });
});

describe('the fan of a new record', () => {
  const FAN: Record<MachineKind, FanCurve['kind']> = {
    shopVacuum: 'universal',
    mExtractor: 'universal',
    hExtractor: 'universal',
    hepaTank: 'universal',
    grinderExtractor: 'universal',
    pneumaticHepa: 'pneumatic',
    singleStageCollector: 'centrifugal',
    cycloneCollector: 'centrifugal',
    fumeExtractor: 'centrifugal',
    floorCleaner: 'universal',
    centralUnit: 'universal',
  };
  it.each(Object.keys(FAN) as MachineKind[])('%s: of its kind, between its typical figures', (kind) => {
    const fan = fanTemplate(kind);
    const { suctionPa, flowM3s } = MACHINE_KINDS[kind];
    expect(fan.kind).toBe(FAN[kind]);
    expect(fan.p0Pa).toBeCloseTo((suctionPa[0] + suctionPa[1]) / 2, 9);
    expect(fan.kind === 'points' ? 0 : fan.qMaxM3s / ((flowM3s[0] + flowM3s[1]) / 2)).toBeCloseTo(1.25, 9);
  });
});

describe('a measured fan stretched to what was fitted', () => {
  const measured: FanCurve = {
    kind: 'points',
    p0Pa: 20_000,
    bPaSM3: 100_000,
    cPaS2M6: 4_000_000,
    rangeM3s: [0.005, 0.05],
  };
  const lift = (curve: FanCurve, flow: number) => {
    const made = fanCoefficients(curve, NOMINAL_DRIVE, REFERENCE_AIR);
    if (!made.ok) throw new Error('no fan');
    return fanLiftPa(made.value, flow);
  };

  it('keeps its shape: the same share of lift at the same share of flow', () => {
    const stretched = fanWith(measured, { p0Pa: 24_000, qMaxM3s: 0.04, leakM2: 0, pathScale: 1 });
    if (stretched.kind !== 'points') throw new Error('another curve');
    expect(stretched.rangeM3s[0]).toBeCloseTo(0.004, 12);
    expect(stretched.rangeM3s[1]).toBe(0.04);
    for (const share of [0.2, 0.5, 0.9])
      expect(lift(stretched, share * 0.04) / 24_000).toBeCloseTo(lift(measured, share * 0.05) / 20_000, 6);
  });
  it('a curve of a kind takes both figures as they are', () => {
    const fan = fanTemplate('shopVacuum');
    expect(fanWith(fan, { p0Pa: 1, qMaxM3s: 2, leakM2: 0, pathScale: 1 })).toMatchObject({ p0Pa: 1, qMaxM3s: 2 });
  });
});

describe('the air path of a machine', () => {
  const path = (model: MachineModel, over = {}) =>
    airPathOf(model, templateParameters(model, 12e-6), { ...CLEAN_STATE, ...over });

  it('without a Y it is one trunk with no mouths, its leak at the seal', () => {
    const model = modelOf(templateMachine('shopVacuum'));
    const p = path(model, { leaksM2: { 1: 5e-6 } });
    if (!p.ok) throw new Error('no path');
    expect(p.value.mouths).toEqual([]);
    expect(p.value.trunk.elements).toHaveLength(model.stages.length);
    expect(p.value.trunk.leaksM2).toHaveLength(model.stages.length + 1);
    expect(p.value.trunk.leaksM2.reduce((a, b) => a + b, 0)).toBeCloseTo(17e-6, 12);
    expect(p.value.trunk.leaksM2[1]).toBeCloseTo(5e-6, 12);
  });

  it('what lies before a Y is there once a way; the leak at the Y is counted once, in the trunk', () => {
    const kinds: readonly StageKind[] = ['nozzle', 'hose', 'wye', 'inlet', 'bag', 'fan', 'exhaust'];
    const machine = templateMachine('shopVacuum');
    const model = modelOf({
      ...machine,
      stages: kinds.map((kind, i) => stageOf(i + 1, { kind, name: kind, position: i })),
    });
    const at = kinds.indexOf('wye');
    const p = path(model, { leaksM2: { 1: 3e-6, [at]: 7e-6, [at + 1]: 9e-6 } });
    if (!p.ok) throw new Error(p.failures.map((f) => `${f.code} ${f.path}`).join());
    expect(p.value.mouths).toHaveLength(2);
    const total = (leaks: readonly number[] = []) => leaks.reduce((a, b) => a + b, 0);
    expect(total(p.value.mouths[0]?.leaksM2)).toBeCloseTo(3e-6, 12);
    expect(p.value.mouths[0]?.leaksM2).toHaveLength((p.value.mouths[0]?.elements.length ?? 0) + 1);
    expect(total(p.value.trunk.leaksM2)).toBeCloseTo(7e-6 + 9e-6 + 12e-6, 12);
    expect(p.value.mouths[1]).toEqual(p.value.mouths[0]);
  });

  it('of nothing is refused', () => {
    expect(path({ stages: [], hoseBoreM: null, hoseLengthM: null })).toMatchObject({
      failures: [{ code: 'path.empty' }],
    });
  });
});

describe('the filter that holds the dust back (EN 60335-2-69, essential filter)', () => {
  const stage = (kind: StageKind, medium: Medium | null, missing = false): PathStage => {
    const made = stageOf(1, { kind, name: kind });
    const air =
      medium === null ? { form: 'none' as const } : { form: 'medium' as const, medium, areaM2: 1, inParallel: 1 };
    return { kind, missing, spec: { ...made.spec, air } as PathStage['spec'] };
  };
  it('the HEPA, else the main filter, else the last filter, there or missing', () => {
    const bag = stage('bag', 'fleeceBag');
    const main = stage('mainFilter', 'pleatedPolyester');
    const hepa = stage('hepa', 'hepaGlass', true);
    expect(essentialStage([bag, main, hepa])).toBe(2);
    expect(essentialStage([hepa, main, bag])).toBe(0);
    expect(essentialStage([bag, main, stage('exhaustFilter', 'fineDustFleece')])).toBe(1);
    expect(essentialStage([bag, stage('prefilter', 'clothBag')])).toBe(1);
    expect(essentialStage([stage('hose', null)])).toBe(-1);
    expect(essentialStage([])).toBe(-1);
  });
  it.each<[Medium, boolean]>([
    ['fleeceBag', true],
    ['clothBag', true],
    ['paperBag', true],
    ['pleatedPolyester', true],
    ['fineDustFleece', true],
    ['nanofibre', true],
    ['hepaGlass', true],
    ['mesh', false],
    ['foam', false],
    ['carbonBed', false],
  ])('%s holds fine dust: %s', (medium, holds) => {
    expect(essentialStage([stage('prefilter', medium)])).toBe(holds ? 0 : -1);
  });
});

describe('how a chance of being overdue is said', () => {
  it('from 99 % on for sure, up to 1 % hardly, in between with its figure', () => {
    expect([1, 0.99, 0.989, 0.5, 0.011, 0.01, 0].map(chanceWord)).toEqual([
      'surely',
      'surely',
      'figure',
      'figure',
      'figure',
      'hardly',
      'hardly',
    ]);
    expect(chanceWord(Number.NaN)).toBe('figure');
    // Tenths never claim certainty.
    expect([0.03, 0.5, 0.97].map(inTenths)).toEqual([1, 5, 9]);
  });
  it('a rule is named from 5 % on, a limit may be past above 5 %', () => {
    expect([0.049, 0.05, 0.5].map(mayBind)).toEqual([false, true, true]);
    expect([0.049, 0.05, 0.051].map(mayBePast)).toEqual([false, false, true]);
    expect([mayBind(Number.NaN), mayBePast(Number.NaN)]).toEqual([false, false]);
  });
  it('probably past is what is past in nine cases of ten; overdue is what somebody saw past on an earlier day and is most likely still in', () => {
    expect(isProbablyPast([-9, -8, -4, -0.1, 3])).toBe(true);
    expect(isProbablyPast([-9, -8, -4, 0, 3])).toBe(false);
    expect(isOverdue({ seenPast: null, overdue: 1 })).toBe(false);
    expect(isOverdue({ seenPast: { daysAgo: 0 }, overdue: 1 })).toBe(false);
    expect([0.84, 0.85].map((overdue) => isOverdue({ seenPast: { daysAgo: 1 }, overdue }))).toEqual([false, true]);
  });
});
