import { describe, expect, it } from 'vitest';
import { contain, containAgain, opensContainer } from '@/core/procedure/containment';
import type { Step, StepKey } from '@/core/procedure/step';

// What is laid around a method of our own making, hand-written and not one of the shipped ones.

const step = (key: StepKey, over: Partial<Step> = {}): Step => ({
  key,
  run: 'off',
  stage: null,
  because: 'method',
  ...over,
});
const CHANGE: readonly Step[] = [
  step('open', { opens: 'lid' }),
  step('takeOut', { moves: 'bagOld', dusty: true, stage: 2 }),
  step('fitNew', { moves: 'fitNew', stage: 2 }),
  step('close', { closes: 'lid' }),
  step('latch'),
  step('disposeOld', { moves: 'disposeOld', stage: 2 }),
];
const keys = (steps: readonly Step[]) => steps.map((s) => s.key);
const before = (steps: readonly Step[], a: StepKey, b: StepKey) => {
  const [x, y] = [keys(steps).indexOf(a), keys(steps).lastIndexOf(b)];
  return x >= 0 && y >= 0 && x < y;
};

describe('what is laid around a change, by the level of its dust', () => {
  it('plain: only the question what it has collected', () => {
    expect(keys(contain(CHANGE, 'plain'))).toEqual(['askHazard', ...keys(CHANGE)]);
    expect(containAgain(CHANGE, 'plain')).toEqual(CHANGE);
  });

  it('controlled: mask on before the lid, the old bag tied, a wipe before the new one, off in its order', () => {
    const steps = contain(CHANGE, 'controlled');
    expect(keys(steps)).toEqual([
      'askHazard',
      'putOnRespirator',
      'open',
      'takeOut',
      'tieBag',
      'wipe',
      'fitNew',
      'close',
      'latch',
      'wipesIntoWaste',
      'disposeOld',
      'offGloves',
      'washHands',
      'offRespirator',
      'washFace',
    ]);
    expect(steps.find((s) => s.key === 'tieBag')).toMatchObject({ stage: 2, because: 'controlled', dusty: true });
  });

  it('contained: area, coverall and respirator before anything opens, inlet plugged, all packed before it is undressed', () => {
    const steps = contain(CHANGE, 'contained');
    expect(keys(steps)).toEqual([
      'askHazard',
      'restrictArea',
      'putOnCoverall',
      'putOnRespirator',
      'plugInlet',
      'open',
      'takeOut',
      'tieBag',
      'wipeBag',
      'wipe',
      'decontaminate',
      'fitNew',
      'close',
      'latch',
      'unplugInlet',
      'wipesIntoWaste',
      'secondBag',
      'labelWaste',
      'disposeOld',
      'wipeSuit',
      'offOvershoes',
      'offCoverall',
      'washHands',
      'offRespirator',
      'washFace',
      'freeArea',
    ]);
    expect(steps.find((s) => s.key === 'offRespirator')?.caution).toBe('respiratorLast');
    expect(steps.find((s) => s.key === 'tieBag')?.because).toBe('contained');
  });

  it('dressed already, a second opening of the same job is not asked nor dressed again, and undressed at its end', () => {
    const again = keys(containAgain(CHANGE, 'contained'));
    expect(again[0]).toBe('plugInlet');
    expect(again).not.toContain('putOnRespirator');
    expect(again.slice(-7)).toEqual([
      'wipeSuit',
      'offOvershoes',
      'offCoverall',
      'washHands',
      'offRespirator',
      'washFace',
      'freeArea',
    ]);
  });

  it('work that touches no dust is done in no mask, at any level', () => {
    const look = [step('latch')];
    expect(keys(contain(look, 'contained'))).toEqual(['askHazard', 'latch']);
    expect(keys(contain([step('takeOut', { dusty: true })], 'controlled'))).toContain('putOnRespirator');
  });

  it('a machine that still runs is switched off before anything is taken off', () => {
    const running = CHANGE.map((s) => ({ ...s, run: 'running' as const }));
    const steps = contain(running, 'contained');
    expect(before(steps, 'switchOff', 'wipeSuit')).toBe(true);
    expect(steps.at(-8)).toMatchObject({ key: 'switchOff', run: 'off', because: 'contained' });
    // The plug goes in in the state the machine is in; out only when it is off.
    expect(keys(contain(CHANGE, 'contained'))).not.toContain('switchOff');
  });

  it('the plug takes the state of what comes before it, and is left out where the inlet is held already or stays shut', () => {
    const later = [step('switchOn', { run: 'running' }), ...CHANGE.map((s) => ({ ...s, run: 'running' as const }))];
    const plug = contain(later, 'contained').find((s) => s.key === 'plugInlet');
    expect(plug).toMatchObject({ run: 'running', because: 'contained' });
    expect(contain(CHANGE, 'contained').find((s) => s.key === 'plugInlet')).toMatchObject({ run: 'off' });
    for (const held of ['connectSecond', 'breakSuction'] as const)
      expect(keys(contain([step(held), ...CHANGE], 'contained'))).not.toContain('plugInlet');
    const wiped = [step('takeOut', { dusty: true, opens: 'inlet' })];
    expect(keys(contain(wiped, 'contained'))).not.toContain('plugInlet');
    expect(keys(contain(wiped, 'contained'))).toContain('capHose');
    expect(keys(contain(wiped, 'controlled'))).not.toContain('capHose');
  });

  it('a part that is held for a trial is tied and wiped too; one put back asks for the wipe before it', () => {
    const trial = [
      step('open', { opens: 'lid' }),
      step('takeOut', { moves: 'holdOld', dusty: true, stage: 1 }),
      step('fitNew', { moves: 'putOldBack', stage: 1 }),
    ];
    const steps = keys(contain(trial, 'contained'));
    expect(steps.slice(steps.indexOf('takeOut'), steps.indexOf('fitNew') + 1)).toEqual([
      'takeOut',
      'tieBag',
      'wipeBag',
      'wipe',
      'decontaminate',
      'fitNew',
    ]);
  });

  it('a method that wipes by itself is not told to twice, and without a wipe there are no wipes to throw away', () => {
    const own = [CHANGE[0], CHANGE[1], step('wipe'), ...CHANGE.slice(2)].filter((s) => s !== undefined);
    expect(keys(contain(own, 'controlled')).filter((k) => k === 'wipe')).toHaveLength(1);
    const bare = [step('open', { opens: 'lid' }), step('disposeOld', { moves: 'disposeOld' })];
    expect(keys(contain(bare, 'controlled'))).not.toContain('wipesIntoWaste');
    expect(keys(contain(bare, 'contained'))).toContain('labelWaste');
  });

  it('only an inlet is no container', () => {
    expect(opensContainer([step('takeOut', { opens: 'inlet' })])).toBe(false);
    for (const opens of ['lid', 'door', 'head', 'fixings', 'can', 'oldPart', 'disposalBag'] as const)
      expect(opensContainer([step('takeOut', { opens })])).toBe(true);
    expect(opensContainer([])).toBe(false);
  });
});
