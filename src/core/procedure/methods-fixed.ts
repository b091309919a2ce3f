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

// Liners, collectors, the central unit and the floor cleaner's full set. Source: common practice, no published source.

/** The dust is dropped into the section first: run, inlet closed, pulse, wait, off, cut off from its feed. */
const dropped = (c: MethodContext): readonly Step[] => [
  machineStep('switchOn', 'running'),
  plugInlet('running'),
  step(c, ['pulse', 'running']),
  machineStep('letSettle', 'running'),
  machineStep('switchOff', 'off'),
  isolate(c),
];

/** Twisted, two ties, cut between: one section leaves, the film above it stays closed. */
const section = (c: MethodContext): readonly Step[] => [
  step(c, ['twistAndCut', 'off'], { opens: 'oldPart', dusty: true }),
  ...bagOld(c, 'off'),
];

/** A cassette is used by the section; it is changed when no film is left for the next. */
export const endlessLiner: Method = (c) => [
  ...takeNew(c),
  ...dropped(c),
  ...section(c),
  fitNew(c, 'off'),
  ...seatChecks(c, 'off', ['nothingPinched']),
  step(c, ['drawDown', 'off']),
  step(c, ['tieOff', 'off']),
  step(c, ['strapRim', 'off'], { closes: 'oldPart' }),
  unplugInlet(),
  disposeOld(c),
  ...runUp(),
];

export const linerSection: Method = (c) => [
  ...dropped(c),
  ...section(c),
  step(c, ['wipe', 'off'], { dusty: true, caution: 'noBrushNoAir' }),
  step(c, ['drawDown', 'off']),
  step(c, ['tieOff', 'off'], { closes: 'oldPart' }),
  unplugInlet(),
  disposeOld(c),
  ...runUp(),
];

/** Off, gates shut, flaps, time to settle; only then the bag. Wood: embers are looked and smelled for before it is emptied. */
export const collectorEmpty: Method = (c) => [
  ...takeNew(c),
  isolate(c),
  machineStep('closeGates', 'off'),
  machineStep('cleanCanister', 'off', { caution: 'noBlowing' }),
  machineStep('letSettle', 'off'),
  step(c, ['lookForEmbers', 'off'], { check: 'noEmbers', caution: 'sparks', because: 'safety' }),
  step(c, ['open', 'off'], { opens: 'oldPart', caution: 'bandClamp', dusty: true }),
  step(c, ['emptyInto', 'off'], { dusty: true }),
  ...bagOld(c, 'off'),
  fitNew(c, 'off'),
  ...seatChecks(c, 'off'),
  step(c, ['close', 'off'], { closes: 'oldPart' }),
  disposeOld(c),
  machineStep('openGates', 'off'),
  machineStep('runAndListen', 'running', { because: 'proof' }),
  step(c, ['check', 'running'], { check: 'ringTight', because: 'seat' }),
  machineStep('measureAfter', 'running', { because: 'proof' }),
];

/** Hands under the can, off its notches by a twist; the weighted inner filter stays where it is. */
export const centralCan: Method = (c) => [
  ...takeNew(c),
  isolate(c),
  step(c, ['open', 'off'], { opens: 'can', caution: 'hotSeal', dusty: true }),
  ...bagOld(c, 'off'),
  step(c, ['lookInside', 'off'], { dusty: true, caution: 'innerFilter', check: 'compartmentClean' }),
  fitNew(c, 'off'),
  ...seatChecks(c, 'off', ['seamRear', 'tabFlush']),
  step(c, ['close', 'off'], { closes: 'can', caution: 'bearWeight' }),
  latch(c),
  disposeOld(c),
  ...runUp(),
];

/** Bag, filters and brush roll of a floor cleaner, all in one opening: the bag capped before anything moves. */
export const fullSet: Method = (c) => {
  const all = [c, ...c.with].filter((x) => x.stage.part !== null);
  const rinsed = [c, ...c.with].filter((x) => x.stage.part === null);
  return [
    ...all.flatMap(takeNew),
    isolate(c),
    open(c),
    step(c, ['capOld', 'off'], { dusty: true }),
    ...all.flatMap((x) => bagOld(x, 'off')),
    step(c, ['lookInside', 'off'], { dusty: true, check: 'compartmentClean' }),
    ...rinsed.map((x): Step => step(x, ['check', 'off'], { check: 'preMotorClean', because: 'seat' })),
    ...all.flatMap((x) => [fitNew(x, 'off'), ...seatChecks(x, 'off')]),
    close(c),
    latch(c),
    machineStep('cutHair', 'off', { caution: 'bristles' }),
    machineStep('check', 'off', { check: 'bristlesFree', because: 'seat' }),
    machineStep('check', 'off', { check: 'spinsFree', because: 'seat' }),
    ...all.map((x) => disposeOld(x)),
    ...runUp(),
  ];
};
