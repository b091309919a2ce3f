import { describe, expect, it } from 'vitest';
import { expectedOf, type CaseSubject } from '@/core/diagnose/expected';
import {
  bagWords,
  cleanSideWords,
  finestAt,
  handWords,
  lampWords,
  logistic,
  particleWords,
  settingWords,
  severityOf,
  weightWords,
} from '@/core/diagnose/expected-words';
import type { Fault, FaultKind, MachineTraits } from '@/core/diagnose/fault';
import { type Operation, operationKey } from '@/core/diagnose/operation';
import { type Expected, likelihood, wordShares } from '@/core/diagnose/outcome';
import { faultSimulatorOf, UNTOUCHED } from '@/core/diagnose/signature';
import type { MachineKind } from '@/core/machine/kinds';
import { templateParameters } from '@/core/path/pressure-profile';
import { CLEAN_STATE, modelOf, templateMachine } from '../../support/machines';

// What a technician sees, feels or hears, against the facts of the trade (common practice, no published source): a fault
// makes its own word the likelier one, and no look is ever certain.

const TRAITS: MachineTraits = { hasLamp: true, hasBrush: false, selectorM: null, machineClass: null };
const fault = (kind: FaultKind, position: number, severity = 0.8): Fault => ({ kind, position, severity });
const share = (e: Expected, word: string): number => {
  if (e.kind !== 'words') throw new Error('no words');
  return e.words[word] ?? 0;
};
const likeliest = (e: Expected): string => {
  if (e.kind !== 'words') throw new Error('no words');
  return Object.entries(e.words).sort((a, b) => b[1] - a[1])[0]?.[0] ?? '';
};
const sum = (e: Expected) => (e.kind === 'words' ? Object.values(e.words).reduce((a, b) => a + b, 0) : Number.NaN);

const subjectOf = (kind: MachineKind, traits: Partial<MachineTraits> = {}): CaseSubject => {
  const model = modelOf(templateMachine(kind));
  return {
    faultSimulator: faultSimulatorOf({ model, parameters: templateParameters(model, 12e-6), state: CLEAN_STATE }),
    traits: { ...TRAITS, ...traits },
    hoseM: model.hoseBoreM,
    nominalVolts: 230,
    calibrated: true,
    baselines: {},
  };
};
const seen = (subject: CaseSubject, operation: Operation, ...faults: readonly Fault[]) =>
  expectedOf(operation, faults, { interventions: UNTOUCHED, subject });
const at = (s: CaseSubject, kind: string) => s.faultSimulator.suspect.model.stages.findIndex((x) => x.kind === kind);

describe('shares of words', () => {
  it('sum to 1 and leave none out: 3 % goes to a slip, in equal parts', () => {
    const e = wordShares({ a: 3, b: 1, c: 0 });
    expect(sum(e)).toBeCloseTo(1, 12);
    expect(share(e, 'a')).toBeCloseTo(0.01 + 0.97 * 0.75, 12);
    expect(share(e, 'c')).toBeCloseTo(0.01, 12);
    // Negative weights are none; with nothing to go by all are alike.
    expect(share(wordShares({ a: -1, b: 1 }), 'a')).toBeCloseTo(0.015, 12);
    expect(share(wordShares({ a: 0, b: 0 }), 'a')).toBeCloseTo(0.5, 12);
  });

  it('a word nobody expected is a slip, not an impossibility', () => {
    expect(likelihood({ kind: 'word', word: 'purple' }, wordShares({ a: 1 }))).toBeCloseTo(0.002, 12);
    expect(likelihood({ kind: 'number', valueSi: 3 }, wordShares({ a: 1 }))).toBe(1);
    expect(likelihood({ kind: 'word', word: 'a' }, { kind: 'number', mean: 1, relative: 0.1, floor: 0 })).toBe(1);
  });

  it('the logistic function is a half at 0, and symmetric (standard definition)', () => {
    expect(logistic(0)).toBe(0.5);
    expect(logistic(Math.log(3))).toBeCloseTo(0.75, 12);
    expect(logistic(2) + logistic(-2)).toBeCloseTo(1, 12);
  });
});

describe('how severe the worst of some faults is', () => {
  const faults = [fault('torn', 2, 0.3), fault('torn', 3, 0.9), fault('blocked', 2, 0.6)];
  it.each([
    [['torn'], undefined, 0.9],
    [['torn'], 2, 0.3],
    [['torn', 'blocked'], 2, 0.6],
    [['missing'], undefined, 0],
    [['torn'], 7, 0],
  ] as const)('%s at %s: %s', (kinds, position, worst) => {
    expect(severityOf(faults, kinds, position)).toBe(worst);
  });
});

describe('a hand over the hose', () => {
  it.each([
    [0, 'none'],
    [0.35, 'weak'],
    [1, 'normal'],
    [1.7, 'strong'],
  ] as const)('at %s of the usual flow feels %s', (ratio, word) => {
    expect(likeliest(handWords(ratio))).toBe(word);
    expect(sum(handWords(ratio))).toBeCloseTo(1, 12);
  });

  it('cannot tell 10 to 20 % lost from the whole flow', () => {
    expect(share(handWords(0.85), 'normal') / share(handWords(1), 'normal')).toBeGreaterThan(0.9);
  });
});

describe('an opened bag compartment', () => {
  it('shows what is wrong with this bag, and nothing of another one', () => {
    expect(likeliest(bagWords([], 3))).toBe('clean');
    expect(likeliest(bagWords([fault('blocked', 3)], 3))).toBe('full');
    expect(likeliest(bagWords([fault('misseated', 3)], 3))).toBe('looseDirt');
    expect(likeliest(bagWords([fault('torn', 3)], 3))).toBe('torn');
    expect(likeliest(bagWords([fault('missing', 3, 1)], 3))).toBe('missing');
    expect(bagWords([fault('blocked', 4), fault('torn', 5)], 3)).toEqual(bagWords([], 3));
  });

  it('a tear leaves dirt beside the bag too, less surely than a bad seat', () => {
    const [none, tear, seat] = [[], [fault('torn', 3)], [fault('misseated', 3)]].map((f) =>
      share(bagWords(f, 3), 'looseDirt'),
    );
    expect(tear).toBeGreaterThan(none ?? 1);
    expect(seat).toBeGreaterThan(tear ?? 1);
  });

  it('the fuller, the surer; and a bag is never known to be torn or missing from nothing', () => {
    expect(share(bagWords([fault('blocked', 3, 0.9)], 3), 'full')).toBeGreaterThan(
      share(bagWords([fault('blocked', 3, 0.2)], 3), 'full'),
    );
    expect(share(bagWords([], 3), 'torn')).toBeCloseTo(0.03 / 5, 9);
    expect(share(bagWords([], 3), 'missing')).toBeCloseTo(0.03 / 5, 9);
  });
});

describe('the clean side of a filter', () => {
  it('dirt at the edge came past the seat, dirt in the middle through a tear', () => {
    expect(likeliest(cleanSideWords([], 4))).toBe('clean');
    expect(likeliest(cleanSideWords([fault('misseated', 4)], 4))).toBe('edge');
    expect(likeliest(cleanSideWords([fault('torn', 4)], 4))).toBe('middle');
    expect(likeliest(cleanSideWords([fault('missing', 4, 1)], 4))).toBe('missing');
    expect(likeliest(cleanSideWords([fault('reversed', 4, 1)], 4))).toBe('reversed');
    expect(cleanSideWords([fault('torn', 3)], 4)).toEqual(cleanSideWords([], 4));
  });
  it('still looks clean now and then with a fault, and dirty now and then without', () => {
    expect(share(cleanSideWords([fault('torn', 4)], 4), 'clean')).toBeGreaterThan(0.05);
    expect(share(cleanSideWords([], 4), 'edge')).toBeCloseTo(share(cleanSideWords([], 4), 'middle'), 12);
    expect(share(cleanSideWords([], 4), 'clean')).toBeGreaterThan(0.8);
  });
});

describe('the weight of a part, the setting of a machine', () => {
  it('a blocked filter is several times heavier, a new one near new', () => {
    expect(likeliest(weightWords([], 3))).toBe('nearNew');
    expect(likeliest(weightWords([fault('blocked', 3, 0.9)], 3))).toBe('severalTimes');
    expect(weightWords([fault('blocked', 2, 0.9)], 3)).toEqual(weightWords([], 3));
  });

  it('a wrong setting, selector or jammed brush is seen where the machine has one', () => {
    expect(settingWords([], TRAITS)).toEqual(wordShares({ right: 1, setting: 0 }));
    expect(likeliest(settingWords([fault('wrongSetting', 5)], TRAITS))).toBe('setting');
    const all = { ...TRAITS, selectorM: 0.027, hasBrush: true };
    expect(likeliest(settingWords([fault('wrongSelector', 5)], all))).toBe('selector');
    expect(likeliest(settingWords([fault('brushJammed', 0)], all))).toBe('brush');
    expect(share(settingWords([fault('brushJammed', 0)], TRAITS), 'brush')).toBe(0);
    expect(share(settingWords([fault('wrongSelector', 0)], TRAITS), 'selector')).toBe(0);
  });
});

describe('a particle count at the exhaust', () => {
  const subject = subjectOf('mExtractor');
  const { model } = subject.faultSimulator.suspect;
  const finest = finestAt(model);

  it('asks after the finest filter that is there', () => {
    expect(model.stages[finest]?.kind).toBe('mainFilter');
    const without = { ...model, stages: model.stages.map((s, i) => (i === finest ? { ...s, missing: true } : s)) };
    expect(finestAt(without)).toBeLessThan(finest);
    expect(finestAt({ ...model, stages: [] })).toBe(-1);
  });

  it('is above with a tear, a gap or nothing there, and below on a sound machine', () => {
    expect(likeliest(particleWords([], model))).toBe('below');
    for (const kind of ['torn', 'misseated', 'missing'] as const)
      expect(likeliest(particleWords([fault(kind, finest)], model))).toBe('above');
    // A bag with a tear in front of a sound filter does not show behind it.
    expect(particleWords([fault('torn', finest - 1)], model)).toEqual(particleWords([], model));
  });

  it('the worse the hole, the surer; a leak shows only where it blows out', () => {
    const above = (severity: number) => share(particleWords([fault('torn', finest, severity)], model), 'above');
    expect(above(1)).toBeGreaterThan(above(0.2));
    const fan = model.stages.findIndex((s) => s.kind === 'fan');
    expect(particleWords([fault('leakingSeal', 1)], model)).toEqual(particleWords([], model));
    expect(likeliest(particleWords([fault('leakingSeal', fan + 1)], model))).toBe('above');
  });
});

describe('a low-flow light', () => {
  const lamp = (flowM3s: number, faults: readonly Fault[] = [], hoseM: number | null = 0.027, selectorM = 0.027) =>
    share(lampWords(faults, flowM3s, { traits: { ...TRAITS, selectorM }, hoseM }), 'lit');
  /** 20 m/s in a 27 mm hose: 11.45 L/s (EN 60335-2-69 Annex AA). */
  const LIMIT = 20 * (Math.PI / 4) * 0.027 ** 2;

  it('comes on half the time at 20 m/s, surely well below it, hardly above', () => {
    expect(lamp(LIMIT)).toBeCloseTo(0.5, 2);
    expect(lamp(0.6 * LIMIT)).toBeGreaterThan(0.9);
    expect(lamp(1.5 * LIMIT)).toBeLessThan(0.05);
  });

  it('set to a wider hose than is fitted it comes on too early', () => {
    expect(lamp(1.2 * LIMIT, [fault('wrongSelector', 0)])).toBeGreaterThan(lamp(1.2 * LIMIT) + 0.3);
    expect(lamp(1.2 * LIMIT, [], 0.027, 0.036)).toBeGreaterThan(0.9);
  });

  it('out of order it is lit most of the time whatever the flow; without a hose on record it says nothing', () => {
    expect(lamp(3 * LIMIT, [fault('indicatorOut', 0)])).toBeGreaterThan(0.7);
    expect(lamp(0.1 * LIMIT, [], null)).toBeCloseTo(0.5, 6);
  });
});

describe('looking, listening and smelling, machine by machine', () => {
  it('a slow fan does not labour; a blocked hose makes the motor labour; a missing bag lets it run free', () => {
    const s = subjectOf('shopVacuum');
    const hose = at(s, 'hose');
    const fan = at(s, 'fan');
    expect(likeliest(seen(s, { kind: 'listen' }))).toBe('normal');
    expect(likeliest(seen(s, { kind: 'listen' }, fault('blocked', hose, 0.86)))).toBe('blocked');
    expect(share(seen(s, { kind: 'listen' }, fault('weakFan', fan, 0.86)), 'blocked')).toBeLessThan(0.25);
    expect(likeliest(seen(s, { kind: 'listen' }, fault('bearings', fan, 1)))).toBe('grumble');
  });

  it('a rod stops in a blocked hose, smoke shows a leaking seal, gas is smelled through a spent cell', () => {
    const s = subjectOf('shopVacuum');
    const hose = at(s, 'hose');
    const rod: Operation = { kind: 'lookHose' };
    expect(likeliest(seen(s, rod, fault('blocked', hose, 0.86)))).toBe('blocked');
    expect(likeliest(seen(s, rod))).toBe('clear');
    expect(likeliest(seen(s, { kind: 'smoke' }, fault('leakingSeal', 2)))).toBe('leak');
    expect(likeliest(seen(s, { kind: 'smoke' }))).toBe('tight');
    const smoke = (kind: FaultKind) => share(seen(s, { kind: 'smoke' }, fault(kind, 2, 0.8)), 'leak');
    expect(smoke('leakingSeal')).toBeGreaterThan(smoke('hoseHoled'));
    expect(smoke('hoseHoled')).toBeGreaterThan(smoke('misseated'));
    expect(smoke('misseated')).toBeGreaterThan(share(seen(s, { kind: 'smoke' }), 'leak'));
    const fume = subjectOf('fumeExtractor');
    const gas = at(fume, 'gas');
    expect(likeliest(seen(fume, { kind: 'smell' }, fault('spentGas', gas, 1)))).toBe('smells');
    expect(likeliest(seen(fume, { kind: 'smell' }))).toBe('none');
  });

  it('the disc test fails with a light that is out of order or set to the wrong hose', () => {
    const s = subjectOf('mExtractor', { selectorM: 0.027 });
    expect(likeliest(seen(s, { kind: 'disc' }))).toBe('good');
    expect(likeliest(seen(s, { kind: 'disc' }, fault('indicatorOut', 0, 1)))).toBe('bad');
    expect(likeliest(seen(s, { kind: 'disc' }, fault('wrongSelector', 0, 1)))).toBe('bad');
  });

  it('dirt drops from a lifted nozzle the more flow is lost, and most where the nozzle itself is blocked', () => {
    const s = subjectOf('shopVacuum');
    const drop = (...faults: readonly Fault[]) => share(seen(s, { kind: 'lookNozzle' }, ...faults), 'dirtDropped');
    const bag = at(s, 'bag');
    expect(drop()).toBeLessThan(0.1);
    expect(drop(fault('blocked', bag, 0.86))).toBeGreaterThan(drop(fault('blocked', bag, 0.5)));
    expect(drop(fault('blocked', 0, 0.5))).toBeGreaterThan(drop(fault('blocked', bag, 0.5)));
  });

  it('a meter reads what the model says, brought to what the machine itself read when it was sound', () => {
    const s = subjectOf('shopVacuum');
    const flow: Operation = { kind: 'flow', place: 'hoseEnd' };
    const [plain, own] = [seen(s, flow), seen({ ...s, baselines: { [operationKey(flow)]: 0.03 } }, flow)];
    const modelled = s.faultSimulator.sound.air.flowM3s('hoseEnd');
    expect(plain).toMatchObject({ kind: 'number', mean: modelled, relative: 0.05 });
    expect(own).toMatchObject({ kind: 'number', mean: expect.closeTo(0.03, 9) as number });
    const half = seen({ ...s, baselines: { [operationKey(flow)]: 0.03 } }, flow, fault('blocked', at(s, 'hose'), 0.5));
    const was = seen(s, flow, fault('blocked', at(s, 'hose'), 0.5));
    if (half.kind !== 'number' || was.kind !== 'number') throw new Error('no number');
    expect(half.mean / 0.03).toBeCloseTo(was.mean / modelled, 9);
    // On typical figures the machine's own flow is known to about a fifth.
    const typical = seen({ ...s, calibrated: false }, flow);
    expect(typical).toMatchObject({ relative: Math.hypot(0.05, 0.2) });
    // Voltage is the meter's own, whatever is known of the machine; a fault of the supply lowers it.
    const volts = seen({ ...s, calibrated: false }, { kind: 'voltage' });
    expect(volts).toMatchObject({ kind: 'number', mean: 230, relative: 0.015 });
    const low = seen(s, { kind: 'voltage' }, fault('lowVoltage', at(s, 'fan'), 0.22));
    expect(low.kind === 'number' && low.mean < 220).toBe(true);
  });

  it('a pressure across a stage is told apart in pascals, a flow in shares', () => {
    const s = subjectOf('shopVacuum');
    const dp = seen(s, { kind: 'stageDp', position: at(s, 'bag') });
    expect(dp).toMatchObject({ kind: 'number', floor: 12, relative: 0.28 });
    const flow = seen(s, { kind: 'flow', place: 'inlet' });
    if (flow.kind !== 'number') throw new Error('no number');
    expect(flow.floor / flow.mean).toBeCloseTo(0.02, 6);
  });
});
