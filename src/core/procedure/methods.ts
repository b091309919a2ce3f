import { bagOld, close, disposeOld, fitNew, isolate, latch, machineStep, open, runUp, seatChecks, step, takeNew, type Method } from './method';
import { cycloneBag, filterBags, tankBagHeadAside, tankBagSecondVacuum, prefilterWrap } from './methods-running';
import { commissioning, hosePlug, indicatorCheck, purge, service, wash } from './methods-whole';
import type { ProcedureId } from './step';

// The methods of the trade in our own words, from the machine shut down to the machine run up. Containment is laid
// around them afterwards. Source: common practice, no published source.

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

/** A new pre-filter always goes with it: taken, fitted over the new HEPA, and seen. */
const screwHepa: Method = (c) => [
  ...takeNew(c),
  ...c.with.flatMap(takeNew),
  isolate(),
  step(c, ['open', 'off'], { opens: 'head', dusty: true }),
  ...c.with.map((w) => bagOld(w, 'off')),
  step(c, ['releaseFixings', 'off'], { opens: 'fixings', caution: 'leftHanded', dusty: true }),
  bagOld(c, 'off'),
  fitNew(c, 'off'),
  step(c, ['tightenFixings', 'off'], { closes: 'fixings' }),
  ...seatChecks(c, 'off', ['threadFlush', 'undersideClean']),
  ...c.with.flatMap((w) => [fitNew(w, 'off'), ...seatChecks(w, 'off', ['wrapAllRound'])]),
  step(c, ['close', 'off'], { closes: 'head' }),
  latch(c),
  disposeOld(c),
  ...c.with.map((w) => disposeOld(w)),
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

/** The old part is held until the light proves the new one: see `turnBack` for when it does not. */
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
  step(c, ['proveIndicator', 'running'], { check: 'lightOut', because: 'proof' }),
  disposeOld(c, 'running'),
  machineStep('measureAfter', 'running', { because: 'proof' }),
];

/** The new part proved nothing: it comes out again unspoilt and the old one, which was held, goes back in. */
export const turnBack: Method = (c) => [
  isolate(),
  open(c),
  step(c, ['takeOut', 'off'], { dusty: true }),
  step(c, ['putOldBack', 'off'], { moves: 'putOldBack', dusty: true }),
  ...seatChecks(c, 'off', ['undersideClean']),
  close(c),
  latch(c),
  step(c, ['returnNew', 'off'], { moves: 'returnNew', because: 'stock' }),
  machineStep('runAndListen', 'running', { because: 'proof' }),
];

const gasStage: Method = offChange(none, none, ['undersideClean']);

const collectorEmpty: Method = (c) => [
  ...takeNew(c),
  isolate(),
  step(c, ['open', 'off'], { opens: 'oldPart', caution: 'bandClamp', dusty: true }),
  step(c, ['emptyInto', 'off'], { dusty: true }),
  bagOld(c, 'off'),
  machineStep('cleanCanister', 'off', { dusty: true, caution: 'noBlowing' }),
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

/** Bag, filters and brush roll of a floor cleaner, all in one opening. */
const fullSet: Method = (c) => {
  const all = [c, ...c.with];
  return [
    ...all.flatMap(takeNew),
    isolate(),
    open(c),
    ...all.map((x) => bagOld(x, 'off')),
    step(c, ['lookInside', 'off'], { dusty: true, check: 'compartmentClean' }),
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
  fullSet,
};
