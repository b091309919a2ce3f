import {
  bagOld,
  close,
  disposeOld,
  fitNew,
  holdOld,
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
import { centralCan, collectorEmpty, endlessLiner, fullSet, linerSection } from './methods-fixed';
import { cycloneBag, filterBags, prefilterWrap, tankBagHeadAside, tankBagSecondVacuum } from './methods-running';
import { commissioning, decontamination, hosePlug, indicatorCheck, purge, service, wash } from './methods-whole';
import type { ProcedureId, Step } from './step';

// The methods of the trade in our own words, from the machine shut down to the machine run up. Containment is laid
// around them afterwards. Source: common practice, no published source.

/** Off, opened, the old part out into a bag, the new one in, seen, closed. */
const offChange =
  (before: Method, looked: Method, extra: Parameters<typeof seatChecks>[2] = []): Method =>
  (c) => [
    ...takeNew(c),
    isolate(c),
    ...before(c),
    open(c),
    ...looked(c),
    ...bagOld(c, 'off'),
    step(c, ['lookInside', 'off'], { dusty: true, check: 'compartmentClean' }),
    fitNew(c, 'off'),
    ...seatChecks(c, 'off', extra),
    close(c),
    latch(c),
    disposeOld(c),
    ...runUp(),
  ];

const none: Method = () => [];

const plainBag: Method = offChange(none, (c) => [step(c, ['capOld', 'off'], { dusty: true })]);

/** The breather holes are open and inside in use; their covers go on only for the removal. */
const safetyBag: Method = (c) => [
  ...takeNew(c),
  isolate(c),
  plugInlet(),
  open(c),
  step(c, ['closeBreathers', 'off'], { dusty: true }),
  step(c, ['sealMouth', 'off'], { dusty: true }),
  step(c, ['tieOff', 'off'], { dusty: true }),
  ...bagOld(c, 'off'),
  fitNew(c, 'off'),
  ...seatChecks(c, 'off', ['breathersInside', 'contactClear']),
  close(c),
  latch(c),
  unplugInlet(),
  disposeOld(c),
  ...runUp(),
];

/** Tightened only when arrow, gasket and seat have been seen. */
const screwed = (c: MethodContext, after: Parameters<typeof seatChecks>[2]): readonly Step[] => [
  fitNew(c, 'off'),
  ...seatChecks(c, 'off', ['undersideClean']),
  step(c, ['tightenFixings', 'off'], { closes: 'fixings' }),
  ...(after ?? []).map((check): Step => step(c, ['check', 'off'], { check, because: 'seat' })),
];

const proof = (c: MethodContext): readonly Step[] => [
  machineStep('runAndListen', 'running', { because: 'proof' }),
  machineStep('measureAfter', 'running', { because: 'proof' }),
  step(c, ['integrityTest', 'running'], { because: 'proof' }),
];

/** A new pre-filter always goes with it: taken, fitted over the new HEPA, and seen. */
const screwHepa: Method = (c) => [
  ...takeNew(c),
  ...c.with.flatMap(takeNew),
  isolate(c),
  step(c, ['open', 'off'], { opens: 'head', dusty: true }),
  ...c.with.flatMap((w) => bagOld(w, 'off')),
  step(c, ['releaseFixings', 'off'], { opens: 'fixings', caution: 'leftHanded', dusty: true }),
  ...bagOld(c, 'off'),
  ...screwed(c, ['threadFlush']),
  ...c.with.flatMap((w) => [fitNew(w, 'off'), ...seatChecks(w, 'off', ['wrapAllRound'])]),
  step(c, ['close', 'off'], { closes: 'head' }),
  latch(c),
  disposeOld(c),
  ...c.with.map((w) => disposeOld(w)),
  ...proof(c),
];

const boltedMainFilter: Method = (c) => [
  ...takeNew(c),
  isolate(c),
  plugInlet(),
  open(c),
  step(c, ['releaseFixings', 'off'], { opens: 'fixings', dusty: true }),
  ...bagOld(c, 'off'),
  ...screwed(c, []),
  close(c),
  latch(c),
  unplugInlet(),
  disposeOld(c),
  ...proof(c),
];

/** Whether something of the stack stands above: it comes off first, top down, and goes back in its order. */
const above = (c: MethodContext): boolean =>
  c.machine.stages.slice(0, c.position).some((s) => !s.missing && (s.kind === 'prefilter' || s.kind === 'hepa'));
const lifted = (c: MethodContext): readonly Step[] =>
  above(c) ? [step(c, ['liftAbove', 'off'], { dusty: true })] : [];
const put = (c: MethodContext): readonly Step[] => (above(c) ? [step(c, ['backAbove', 'off'], { dusty: true })] : []);

/** An air-driven machine has a gauge instead of a light. */
const indicated = ({ machine }: MethodContext): Step =>
  machineStep('proveIndicator', 'running', {
    check: machine.kind === 'pneumaticHepa' ? 'gaugeGreen' : 'lightOut',
    because: 'proof',
  });

/** The old part is held until the light proves the new one: see `turnBack` for when it does not. */
const stackedFilter: Method = (c) => [
  ...takeNew(c),
  isolate(c),
  open(c),
  ...lifted(c),
  step(c, ['takeOut', 'off'], { dusty: true }),
  ...holdOld(c),
  fitNew(c, 'off'),
  ...seatChecks(c, 'off', ['undersideClean']),
  ...put(c),
  close(c),
  latch(c),
  { ...indicated(c), stage: c.position },
  disposeOld(c, 'running'),
  machineStep('measureAfter', 'running', { because: 'proof' }),
];

/** The new part proved nothing: it comes out again unspoilt and the old one, which was held, goes back in. */
export const turnBack: Method = (c) => [
  isolate(c),
  open(c),
  ...lifted(c),
  step(c, ['takeOut', 'off'], { dusty: true }),
  step(c, ['putOldBack', 'off'], { moves: 'putOldBack', dusty: true }),
  ...seatChecks(c, 'off', ['undersideClean']),
  ...put(c),
  close(c),
  latch(c),
  step(c, ['returnNew', 'off'], { moves: 'returnNew', because: 'stock' }),
  machineStep('runAndListen', 'running', { because: 'proof' }),
];

const gasStage: Method = offChange(none, none, ['undersideClean']);
const plainFilter: Method = offChange(none, none);

export const METHODS_OF: Record<ProcedureId, Method> = {
  plainBag,
  safetyBag,
  endlessLiner,
  linerSection,
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
  decontamination,
};
