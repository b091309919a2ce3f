import { bagOld, disposeOld, fitNew, isolate, machineStep, type MethodContext, runUp, seatChecks, step, takeNew } from './method';
import type { ProcedureId, Step } from './step';

// The methods of the trade in our own words, from the machine shut down to the machine run up. Containment is laid
// around them afterwards. Source: common practice, no published source.

type Method = (c: MethodContext) => readonly Step[];

const open = (c: MethodContext) => step(c, ['open', 'off'], { opens: 'lid', dusty: true });
const close = (c: MethodContext) => step(c, ['close', 'off'], { closes: 'lid' });
const latch = (c: MethodContext, run: 'off' | 'headAside' = 'off') => step(c, ['latch', run], { check: 'latchCount', because: 'seat' });

/** Off, opened, the old part out into a bag, the new one in, seen, closed. */
const offChange =
  (before: Method, looked: Method, extra: Parameters<typeof seatChecks>[2] = []): Method =>
  (c) => [...takeNew(c), isolate(), ...before(c), open(c), ...looked(c), bagOld(c, 'off'), step(c, ['lookInside', 'off'], { dusty: true, check: 'compartmentClean' }), fitNew(c, 'off'), ...seatChecks(c, 'off', extra), close(c), latch(c), disposeOld(c), ...runUp()];

const none: Method = () => [];

const plainBag: Method = offChange(none, (c) => [step(c, ['capOld', 'off'], { dusty: true })]);

const safetyBag: Method = (c) => [
  ...takeNew(c),
  isolate(),
  machineStep('plugInlet', 'off', { opens: 'inlet', caution: 'plugFirst', because: 'method' }),
  open(c),
  step(c, ['closeBreathers', 'off'], { dusty: true }),
  step(c, ['sealMouth', 'off'], { dusty: true }),
  step(c, ['tieOff', 'off'], { dusty: true }),
  bagOld(c, 'off'),
  fitNew(c, 'off'),
  ...seatChecks(c, 'off', ['breathersInside', 'contactClear']),
  close(c),
  latch(c),
  machineStep('unplugInlet', 'off', { closes: 'inlet' }),
  disposeOld(c),
  ...runUp(),
];

const endlessLiner: Method = (c) => [
  ...takeNew(c),
  isolate(),
  step(c, ['dropDust', 'off'], { opens: 'oldPart', dusty: true }),
  step(c, ['twistAndCut', 'off'], { dusty: true }),
  bagOld(c, 'off'),
  fitNew(c, 'off'),
  ...seatChecks(c, 'off', ['nothingPinched']),
  step(c, ['drawDown', 'off']),
  step(c, ['tieOff', 'off']),
  step(c, ['strapRim', 'off'], { closes: 'oldPart' }),
  disposeOld(c),
  ...runUp(),
];

/** Kept running: the air is drawn into the opening, and what comes loose with it. */
const cycloneBag: Method = (c) => [
  ...takeNew(c),
  machineStep('switchOn', 'running'),
  machineStep('breakSuction', 'running', { opens: 'inlet' }),
  step(c, ['open', 'running'], { opens: 'door', dusty: true }),
  machineStep('plugInlet', 'running', { closes: 'inlet' }),
  step(c, ['drawIntoBag', 'running'], { dusty: true }),
  bagOld(c, 'running'),
  fitNew(c, 'running'),
  ...seatChecks(c, 'running', ['nothingPinched']),
  step(c, ['close', 'running'], { closes: 'door' }),
  disposeOld(c, 'running'),
  ...runUp(),
];

const filterBags: Method = (c) => [
  ...takeNew(c),
  step(c, ['crackOpen', 'off'], { opens: 'lid' }),
  machineStep('switchOn', 'running'),
  step(c, ['drawIntoBag', 'running'], { dusty: true }),
  bagOld(c, 'running'),
  step(c, ['wipe', 'running'], { dusty: true }),
  fitNew(c, 'running'),
  ...seatChecks(c, 'running', ['bagCount']),
  step(c, ['close', 'running'], { closes: 'lid' }),
  disposeOld(c, 'running'),
  ...runUp(),
];

const tankBagHeadAside: Method = (c) => [
  ...takeNew(c),
  step(c, ['crackOpen', 'off'], { opens: 'head' }),
  machineStep('switchOn', 'headAside'),
  machineStep('setHeadAside', 'headAside'),
  step(c, ['drawIntoBag', 'headAside'], { dusty: true }),
  bagOld(c, 'headAside'),
  step(c, ['wipe', 'headAside'], { dusty: true }),
  fitNew(c, 'headAside'),
  ...seatChecks(c, 'headAside'),
  machineStep('headOn', 'headAside', { closes: 'head' }),
  // Latch first, then off: here the suction holds the head down while it is latched.
  latch(c, 'headAside'),
  machineStep('switchOff', 'off'),
  disposeOld(c),
  ...runUp(),
];

const tankBagSecondVacuum: Method = (c) => [
  ...takeNew(c),
  machineStep('connectSecond', 'off'),
  step(c, ['crackOpen', 'off'], { opens: 'head' }),
  machineStep('switchOn', 'headAside'),
  machineStep('setHeadAside', 'headAside'),
  machineStep('startSecond', 'secondVacuum'),
  step(c, ['drawIntoBag', 'secondVacuum'], { dusty: true }),
  bagOld(c, 'secondVacuum'),
  step(c, ['wipe', 'secondVacuum'], { dusty: true }),
  fitNew(c, 'secondVacuum'),
  ...seatChecks(c, 'secondVacuum'),
  machineStep('removeSecond', 'secondVacuum'),
  machineStep('stopSecond', 'headAside'),
  machineStep('headOn', 'headAside', { closes: 'head' }),
  // Off first, then latch: the other way round than with the head set aside alone.
  machineStep('switchOff', 'off'),
  latch(c),
  disposeOld(c),
  ...runUp(),
];

/** Only straight after a bag change, with the head still aside and running. */
const prefilterWrap: Method = (c) => [
  ...takeNew(c),
  step(c, ['crackOpen', 'off'], { opens: 'head' }),
  machineStep('switchOn', 'headAside'),
  machineStep('setHeadAside', 'headAside'),
  bagOld(c, 'headAside'),
  fitNew(c, 'headAside'),
  ...seatChecks(c, 'headAside', ['wrapAllRound']),
  machineStep('headOn', 'headAside', { closes: 'head' }),
  latch(c, 'headAside'),
  machineStep('switchOff', 'off'),
  disposeOld(c),
  ...runUp(),
];

const screwHepa: Method = (c) => [
  ...takeNew(c),
  isolate(),
  step(c, ['open', 'off'], { opens: 'head', dusty: true }),
  step(c, ['releaseFixings', 'off'], { opens: 'fixings', caution: 'leftHanded', dusty: true }),
  bagOld(c, 'off'),
  fitNew(c, 'off'),
  step(c, ['tightenFixings', 'off'], { closes: 'fixings' }),
  ...seatChecks(c, 'off', ['threadFlush', 'undersideClean']),
  step(c, ['close', 'off'], { closes: 'head' }),
  latch(c),
  disposeOld(c),
  machineStep('runAndListen', 'running', { because: 'proof' }),
  step(c, ['integrityTest', 'running'], { because: 'proof' }),
  machineStep('measureAfter', 'running', { because: 'proof' }),
];

const boltedMainFilter: Method = (c) => [
  ...takeNew(c),
  isolate(),
  machineStep('plugInlet', 'off', { opens: 'inlet', caution: 'plugFirst' }),
  open(c),
  step(c, ['releaseFixings', 'off'], { opens: 'fixings', dusty: true }),
  bagOld(c, 'off'),
  fitNew(c, 'off'),
  step(c, ['tightenFixings', 'off'], { closes: 'fixings' }),
  ...seatChecks(c, 'off', ['undersideClean']),
  close(c),
  latch(c),
  machineStep('unplugInlet', 'off', { closes: 'inlet' }),
  disposeOld(c),
  machineStep('runAndListen', 'running', { because: 'proof' }),
  step(c, ['integrityTest', 'running'], { because: 'proof' }),
  machineStep('measureAfter', 'running', { because: 'proof' }),
];

/** The old part is held until the light proves the new one. */
const stackedFilter: Method = (c) => [
  ...takeNew(c),
  isolate(),
  open(c),
  step(c, ['takeOut', 'off'], { dusty: true }),
  step(c, ['holdOld', 'off'], { moves: 'holdOld', dusty: true }),
  fitNew(c, 'off'),
  ...seatChecks(c, 'off', ['undersideClean']),
  close(c),
  latch(c),
  step(c, ['proveIndicator', 'running'], { because: 'proof' }),
  disposeOld(c, 'running'),
  machineStep('measureAfter', 'running', { because: 'proof' }),
];

const gasStage: Method = offChange(none, none, ['undersideClean']);

const purge: Method = (c) => [
  machineStep('switchOn', 'running'),
  machineStep('plugInlet', 'running', { opens: 'inlet' }),
  step(c, ['pulse', 'running']),
  step(c, ['readGauge', 'running'], { because: 'proof' }),
  machineStep('unplugInlet', 'running', { closes: 'inlet' }),
];

const wash: Method = (c) => [
  isolate(),
  open(c),
  step(c, ['takeOut', 'off'], { dusty: true, moves: 'holdOld' }),
  step(c, ['wash', 'off'], { caution: 'noBlowing' }),
  step(c, ['startDrying', 'off'], { check: 'dry', because: 'seat' }),
  step(c, ['fitNew', 'off'], { moves: 'putOldBack', dusty: true }),
  ...seatChecks(c, 'off'),
  close(c),
  latch(c),
  ...runUp(),
];

const collectorEmpty: Method = (c) => [
  ...takeNew(c),
  isolate(),
  step(c, ['open', 'off'], { opens: 'oldPart', caution: 'bandClamp', dusty: true }),
  step(c, ['emptyInto', 'off'], { dusty: true }),
  bagOld(c, 'off'),
  fitNew(c, 'off'),
  ...seatChecks(c, 'off'),
  step(c, ['close', 'off'], { closes: 'oldPart' }),
  disposeOld(c),
  machineStep('runAndListen', 'running', { because: 'proof' }),
  step(c, ['check', 'running'], { check: 'ringTight', because: 'seat' }),
  machineStep('measureAfter', 'running', { because: 'proof' }),
];

const centralCan: Method = (c) => [
  ...takeNew(c),
  isolate(),
  step(c, ['open', 'off'], { opens: 'can', caution: 'hotSeal', dusty: true }),
  bagOld(c, 'off'),
  fitNew(c, 'off'),
  ...seatChecks(c, 'off'),
  step(c, ['close', 'off'], { closes: 'can', caution: 'bearWeight' }),
  latch(c),
  disposeOld(c),
  ...runUp(),
];

const plainFilter: Method = offChange(none, none);

const hosePlug: Method = (c) => [
  isolate(),
  step(c, ['takeOut', 'off'], { opens: 'inlet', dusty: true }),
  step(c, ['reverseHose', 'running'], { caution: 'sharp' }),
  step(c, ['lookThrough', 'off']),
  step(c, ['close', 'off'], { closes: 'inlet' }),
  ...runUp(),
];

const service: Method = (c) => [
  isolate(),
  step(c, ['open', 'off'], { opens: 'lid', dusty: true }),
  step(c, ['takeOut', 'off'], { dusty: true, moves: 'bagOld' }),
  machineStep('decontaminate', 'off', { dusty: true, because: 'safety' }),
  step(c, ['close', 'off'], { closes: 'lid' }),
  disposeOld(c),
  machineStep('packMachine', 'off', { because: 'safety' }),
];

const indicatorCheck: Method = () => [machineStep('switchOn', 'running'), machineStep('discOn', 'running', { opens: 'inlet' }), machineStep('proveIndicator', 'running', { closes: 'inlet', because: 'proof' })];

const commissioning: Method = (c) => [
  isolate(),
  machineStep('bondFirst', 'off', { check: 'bonded', because: 'safety' }),
  machineStep('check', 'off', { check: 'hoseLocked', because: 'seat' }),
  machineStep('check', 'off', { check: 'selectorRight', because: 'seat' }),
  ...seatChecks(c, 'off'),
  machineStep('runAndListen', 'running', { because: 'proof' }),
  machineStep('measureBaseline', 'running', { because: 'proof' }),
  machineStep('startTimer', 'running', { because: 'stock' }),
];

export const METHODS_OF: Record<ProcedureId, Method> = {
  plainBag,
  safetyBag,
  endlessLiner,
  cycloneBag,
  filterBags,
  tankBagHeadAside,
  tankBagSecondVacuum,
  prefilterWrap,
  screwHepa,
  boltedMainFilter,
  stackedFilter,
  gasStage,
  purge,
  wash,
  collectorEmpty,
  centralCan,
  plainFilter,
  hosePlug,
  service,
  indicatorCheck,
  commissioning,
};
