import { describe, expect, it } from 'vitest';
import { undressed, isolatedAgain } from '@/core/procedure/prove-order';
import { prove } from '@/core/procedure/prove';
import { assemble } from '@/core/procedure/assemble';
import type { ChangeSchool, Procedure, Step, StepKey } from '@/core/procedure/step';
import type { DustHazard } from '@/core/dust/level';
import { machineOfKind } from '../../support/jobs';

// The prover against orders written by hand, right and wrong: it must name the one thing that is wrong.

const tank = machineOfKind('hepaTank');
const bag = tank.stages.findIndex((s) => s.kind === 'bag');
const made = (school: ChangeSchool, hazard: DustHazard = 'contained'): Procedure => {
  const p = assemble(tank, { kind: 'change', stage: bag, school }, hazard);
  if (!p.ok) throw new Error(p.failures.map((f) => f.code).join());
  return p.value;
};
const kinds = (p: Procedure, hazard: DustHazard = 'contained') => [
  ...new Set(prove(p, tank, hazard).map((v) => v.kind)),
];
const without = (p: Procedure, key: StepKey): Procedure => ({ ...p, steps: p.steps.filter((s) => s.key !== key) });
const moved = (p: Procedure, key: StepKey, to: 'first' | StepKey): Procedure => {
  const step = p.steps.find((s) => s.key === key);
  if (!step) throw new Error(`no ${key}`);
  const rest = p.steps.filter((s) => s !== step);
  const at = to === 'first' ? 0 : rest.findIndex((s) => s.key === to) + 1;
  return { ...p, steps: [...rest.slice(0, at), step, ...rest.slice(at)] };
};

describe('a tank bag changed beside a second vacuum', () => {
  const sound = made('secondVacuum');

  it('as assembled nothing is wrong', () => {
    expect(kinds(sound)).toEqual([]);
  });

  it.each<[string, Procedure]>([
    ['the second vacuum never taken off', without(sound, 'removeSecond')],
    ['the second vacuum never stopped', without(sound, 'stopSecond')],
    ['taken off after the head is on', moved(sound, 'removeSecond', 'headOn')],
    ['stopped after the head is on', moved(sound, 'stopSecond', 'headOn')],
    ['no head put on at all', without(sound, 'headOn')],
  ])('%s: it is left on', (_what, p) => {
    expect(kinds(p)).toContain('secondLeftOn');
  });

  it('switched off after the latch, or never: the latches are in the wrong order', () => {
    expect(kinds(moved(sound, 'switchOff', 'latch'))).toContain('latchOrder');
    expect(kinds(without(sound, 'switchOff'))).toContain('latchOrder');
    expect(kinds(sound)).not.toContain('latchOrder');
  });

  it('without a second vacuum there is none to leave on', () => {
    const plain = made('headAside', 'plain');
    expect(kinds(plain, 'plain')).toEqual([]);
    expect(kinds(without(sound, 'connectSecond'))).not.toContain('secondLeftOn');
  });
});

describe('a tank bag with the head set aside, while it runs', () => {
  const sound = made('headAside');

  it('is latched before it is switched off: the other way round dust falls out', () => {
    expect(kinds(sound)).toEqual([]);
    expect(kinds(moved(sound, 'latch', 'switchOff'))).toContain('latchOrder');
    expect(kinds(without(sound, 'latch'))).toContain('latchOrder');
    const latch = sound.steps.findIndex((s) => s.key === 'latch');
    const off = sound.steps.findIndex((s) => s.key === 'switchOff');
    expect(latch).toBeGreaterThanOrEqual(0);
    expect(latch).toBeLessThan(off);
  });

  it('needs no latch where it is off from the start', () => {
    expect(kinds({ ...sound, school: 'off' })).not.toContain('latchOrder');
  });
});

describe('undressing', () => {
  const step = (key: StepKey, over: Partial<Step> = {}): Step => ({
    key,
    run: 'off',
    stage: null,
    because: 'method',
    ...over,
  });
  const steps = (...list: readonly (StepKey | Step)[]): Procedure => ({
    ...made('off'),
    steps: list.map((s) => (typeof s === 'string' ? step(s) : s)),
  });
  const dusty = step('wipe', { dusty: true });
  const DOFFED: readonly StepKey[] = [
    'wipeSuit',
    'offOvershoes',
    'offCoverall',
    'washHands',
    'offRespirator',
    'washFace',
    'freeArea',
  ];

  it('in its order, after the last dust, with the respirator put on before', () => {
    expect(undressed(steps('putOnRespirator', dusty, ...DOFFED), 'contained')).toEqual([]);
    const wrong = [{ kind: 'undressOrder' }];
    expect(undressed(steps('putOnRespirator', ...DOFFED, dusty), 'contained')).toEqual(wrong);
    expect(undressed(steps(dusty, ...DOFFED, 'putOnRespirator'), 'contained')).toEqual(wrong);
    const swapped = DOFFED.map((k): StepKey =>
      k === 'offCoverall' ? 'offRespirator' : k === 'offRespirator' ? 'offCoverall' : k,
    );
    expect(undressed(steps('putOnRespirator', dusty, ...swapped), 'contained')).toEqual(wrong);
  });

  it('names each step that is left out, and asks nothing where no dust is touched or the dust is plain', () => {
    expect(undressed(steps('putOnRespirator', dusty, ...DOFFED.filter((k) => k !== 'washFace')), 'contained')).toEqual([
      { kind: 'hazardStepMissing', step: 'washFace' },
    ]);
    expect(undressed(steps('latch'), 'contained')).toEqual([]);
    expect(undressed(steps(dusty), 'plain')).toEqual([]);
    expect(
      undressed(steps('putOnRespirator', dusty, 'offGloves', 'washHands', 'offRespirator', 'washFace'), 'controlled'),
    ).toEqual([]);
  });

  it('a machine is cut off by its own feed before hands go in, and again after each run', () => {
    const at = (list: readonly Step[]) => isolatedAgain({ ...made('off'), steps: list }, { kind: 'hepaTank' });
    const run = step('runAndListen', { run: 'running' });
    expect(at([step('isolate'), dusty])).toEqual([]);
    expect(at([dusty])).toEqual([{ kind: 'notIsolated', at: 0 }]);
    expect(at([step('isolate'), run, dusty])).toEqual([{ kind: 'notIsolated', at: 2 }]);
    expect(at([step('isolate'), run, step('isolate'), dusty])).toEqual([]);
    expect(at([step('isolateBreaker'), dusty])).toEqual([{ kind: 'wrongIsolation' }]);
    expect(isolatedAgain({ ...made('off'), school: 'running', steps: [dusty] }, { kind: 'hepaTank' })).toEqual([]);
  });
});
