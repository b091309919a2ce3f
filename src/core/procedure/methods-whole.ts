import {
  bagOld,
  close,
  disposeOld,
  fitNew,
  isolate,
  latch,
  machineStep,
  type Method,
  type MethodContext,
  open,
  plugInlet,
  runUp,
  seatChecks,
  step,
  takeNew,
  unplugInlet,
} from './method';
import type { Step } from './step';

// What is done to a machine or a stage without one new part of its own. Source: common practice, no published source.

export const purge: Method = (c) => [
  machineStep('switchOn', 'running'),
  plugInlet('running'),
  step(c, ['pulse', 'running']),
  step(c, ['readGauge', 'running'], { because: 'proof' }),
  machineStep('switchOff', 'off'),
  unplugInlet(),
];

/** Cut off from its feed again before hands go to the hose after the run. */
export const hosePlug: Method = (c) => [
  isolate(c),
  step(c, ['takeOut', 'off'], { opens: 'inlet', dusty: true }),
  step(c, ['reverseHose', 'running'], { caution: 'sharp' }),
  isolate(c),
  step(c, ['lookThrough', 'off']),
  machineStep('stripNozzle', 'off', { dusty: true }),
  step(c, ['close', 'off'], { closes: 'inlet' }),
  ...runUp(),
];

const outOf = (c: MethodContext): readonly MethodContext[] => [c, ...c.with];

/** Both media out, the plug stays in, a note of what it held goes with it, and the spare that does its work is named. */
export const service: Method = (c) => [
  machineStep('nameSpare', 'off', { because: 'stock' }),
  isolate(c),
  machineStep('plugInlet', 'off', { caution: 'plugFirst' }),
  open(c),
  ...outOf(c).flatMap((x) => bagOld(x, 'off')),
  machineStep('decontaminate', 'off', { dusty: true, because: 'safety' }),
  close(c),
  latch(c),
  machineStep('wipeOutside', 'off', { because: 'safety' }),
  ...outOf(c).map((x) => disposeOld(x)),
  machineStep('decontaminationNote', 'off', { because: 'safety' }),
  machineStep('packMachine', 'off', { because: 'safety' }),
];

/** Fresh filters first, never on a plugged inlet, and the disc comes off at the end. */
export const indicatorCheck: Method = () => [
  machineStep('check', 'off', { check: 'filtersFresh', because: 'proof' }),
  machineStep('switchOn', 'running'),
  machineStep('discOn', 'running'),
  machineStep('proveIndicator', 'running', { check: 'lightOn', because: 'proof' }),
  machineStep('discOff', 'running'),
  machineStep('proveIndicator', 'running', { check: 'lightOut', because: 'proof' }),
  machineStep('switchOff', 'off'),
];

export const commissioning: Method = (c) => [
  isolate(c),
  machineStep('bondFirst', 'off', { check: 'bonded', because: 'safety' }),
  machineStep('check', 'off', { check: 'hoseLocked', because: 'seat' }),
  machineStep('check', 'off', { check: 'selectorRight', because: 'seat' }),
  ...seatChecks(c, 'off'),
  machineStep('runAndListen', 'running', { because: 'proof' }),
  machineStep('measureBaseline', 'running', { because: 'proof' }),
  machineStep('startTimer', 'running', { because: 'stock' }),
];

export const wash: Method = (c) => [
  isolate(c),
  open(c),
  step(c, ['takeOut', 'off'], { dusty: true, moves: 'holdOld' }),
  step(c, ['wash', 'off'], { caution: 'noBlowing' }),
  step(c, ['startDrying', 'off']),
  step(c, ['check', 'off'], { check: 'dry', because: 'seat' }),
  step(c, ['fitNew', 'off'], { moves: 'putOldBack', dusty: true }),
  ...seatChecks(c, 'off'),
  close(c),
  latch(c),
  ...runUp(),
];

/**
 * What alone clears a machine's dust: outside wiped, every filter that touched it out and away, inside wiped until
 * nothing is left, new filters in, and the proof of the one that carries the class.
 */
export const decontamination: Method = (c) => {
  const all = outOf(c);
  return [
    ...all.flatMap(takeNew),
    isolate(c),
    plugInlet(),
    machineStep('wipeOutside', 'off', { dusty: true, because: 'safety' }),
    open(c),
    ...all.flatMap((x) => bagOld(x, 'off')),
    machineStep('wipe', 'off', { dusty: true, caution: 'noBrushNoAir' }),
    machineStep('decontaminate', 'off', { dusty: true }),
    machineStep('check', 'off', { check: 'nothingLeft', because: 'proof' }),
    ...all.flatMap((x): readonly Step[] => [fitNew(x, 'off'), ...seatChecks(x, 'off')]),
    close(c),
    latch(c),
    unplugInlet(),
    ...all.map((x) => disposeOld(x)),
    ...runUp(),
  ];
};
