import {
  bagOld,
  close,
  closeInlet,
  fitting,
  guarded,
  isolate,
  latch,
  lifted,
  backAbove,
  lightShows,
  gaugeShows,
  lookInside,
  machineStep,
  type Method,
  type MethodContext,
  open,
  openInlet,
  removal,
  restore,
  seatChecks,
  settled,
  step,
  stopped,
  takeNew,
  tightened,
  undone,
  unstopped,
  wiped,
  contained,
} from './method';
import { commissioning, decontamination, fullSet, hosePlug, indicatorCheck, service } from './methods-whole';
import { cycloneBag, filterBags, prefilterWrap, tankBagHeadAside, tankBagSecondVacuum } from './methods-running';
import type { ProcedureId, Step } from './step';

// The methods of the trade in our own words, from the shelf to the closed machine. Running, measuring, testing and
// waste follow; protective clothing comes before and after. Source: common practice, no published source.

/** Off, opened, the old part out, the compartment seen and wiped, the new part in and seen, closed and latched. */
const offChange: Method = (c) => [
  takeNew(c),
  isolate(c),
  ...settled(c),
  ...stopped(c),
  open(c),
  ...removal(c, 'off'),
  lookInside(c, 'off'),
  ...wiped(c, 'off'),
  ...fitting(c, 'off'),
  close(c),
  latch(c),
  ...unstopped(c),
];

/** A screw-on HEPA always gets a new pre-filter: the wrap comes off first and goes on last, over the new HEPA. */
const screwHepa: Method = (c) => [
  takeNew(c),
  ...c.with.map(takeNew),
  isolate(c),
  ...stopped(c),
  open(c),
  ...c.with.flatMap((w) => removal(w, 'off')),
  ...removal(c, 'off'),
  ...wiped(c, 'off'),
  ...fitting(c, 'off'),
  ...c.with.flatMap((w) => fitting(w, 'off')),
  close(c),
  latch(c),
  ...unstopped(c),
];

/** Whether the machine's own light or gauge proves the part, and its bag may be opened again: never in the worst dust. */
export const heldUntilProven = (c: MethodContext): boolean => !contained(c) && (lightShows(c) || gaugeShows(c));

const indicated = (c: MethodContext): readonly Step[] =>
  lightShows(c) || gaugeShows(c)
    ? [
        restore(c),
        step(c, ['proveIndicator', 'running'], { check: lightShows(c) ? 'lightOut' : 'gaugeGreen', because: 'proof' }),
      ]
    : [];

/** The old part is held until light or gauge proves the new one: see `turnBack` for when it does not. */
const stackedFilter: Method = (c) => [
  takeNew(c),
  isolate(c),
  ...stopped(c),
  open(c),
  ...removal(c, 'off', heldUntilProven(c)),
  ...wiped(c, 'off'),
  ...fitting(c, 'off'),
  close(c),
  latch(c),
  ...unstopped(c),
  ...indicated(c),
];

/** The new part proved nothing: it comes out again unspoilt and the old one, which was held, goes back in. */
export const turnBack: Method = (c) => [
  machineStep('switchOff', 'off'),
  isolate(c),
  open(c),
  ...lifted(c),
  step(c, ['takeOut', 'off'], { dusty: true }),
  ...wiped(c, 'off'),
  step(c, ['putOldBack', 'off'], { moves: 'putOldBack', dusty: true }),
  ...seatChecks(c, 'off'),
  ...backAbove(c),
  close(c),
  latch(c),
  step(c, ['returnNew', 'off'], { moves: 'returnNew', because: 'stock' }),
];

/** The dust is dropped into the section first: by pulses with the inlet closed, or by the flaps of a collector that is off. */
const dropped = (c: MethodContext): readonly Step[] => {
  const shaken = settled(c);
  if (shaken.length > 0) return [isolate(c), ...shaken];
  return [
    machineStep('switchOn', 'running'),
    ...closeInlet(c, 'running'),
    step(c, ['pulse', 'running']),
    machineStep('letSettle', 'running'),
    machineStep('switchOff', 'off'),
    isolate(c),
  ];
};

/** Twisted, two ties, cut between: one section leaves, the film above it stays closed. */
const section = (c: MethodContext): readonly Step[] => [
  step(c, ['twistAndCut', 'off'], { opens: 'oldPart', dusty: true }),
  ...bagOld(c, 'off'),
  ...wiped(c, 'off'),
];

/** A cassette is used by the section; it is changed when no film is left for the next. */
const endlessLiner: Method = (c) => [
  takeNew(c),
  ...dropped(c),
  ...section(c),
  step(c, ['fitNew', 'off'], { moves: 'fitNew', dusty: true }),
  ...seatChecks(c, 'off'),
  step(c, ['drawDown', 'off']),
  step(c, ['tieOff', 'off']),
  step(c, ['strapRim', 'off'], { closes: 'oldPart' }),
  ...openInlet(c),
];

const linerSection: Method = (c) => [
  ...dropped(c),
  ...section(c),
  step(c, ['drawDown', 'off']),
  step(c, ['tieOff', 'off'], { closes: 'oldPart' }),
  ...openInlet(c),
];

/** Nuisance dust is poured through a liner drawn up as a funnel; any other leaves in its own bag, shut before it moves. */
const poured = (c: MethodContext): readonly Step[] => [
  step(c, ['open', 'off'], { opens: 'oldPart', caution: 'bandClamp', dusty: true }),
  step(c, ['emptyInto', 'off'], { dusty: true }),
  ...bagOld(c, 'off'),
  step(c, ['fitNew', 'off'], { moves: 'fitNew', dusty: true }),
  ...seatChecks(c, 'off'),
  step(c, ['close', 'off'], { closes: 'oldPart' }),
];

const collectorEmpty: Method = (c) => [
  takeNew(c),
  isolate(c),
  ...settled(c),
  ...stopped(c),
  ...(guarded(c) || c.stage.kind !== 'bag'
    ? [...removal(c, 'off'), ...wiped(c, 'off'), ...fitting(c, 'off')]
    : poured(c)),
  ...unstopped(c),
];

const purge: Method = (c) => [
  machineStep('switchOn', 'running'),
  ...closeInlet(c, 'running'),
  step(c, ['pulse', 'running']),
  ...(gaugeShows(c) ? [step(c, ['readGauge', 'running'], { because: 'proof' })] : []),
  machineStep('switchOff', 'off'),
  ...openInlet(c),
];

/** Closed while the medium dries, and opened again when it is dry. */
const wash: Method = (c) => [
  isolate(c),
  ...settled(c),
  ...stopped(c),
  open(c),
  ...removal(c, 'off', true),
  ...wiped(c, 'off'),
  ...tightened(c, 'off'),
  close(c),
  latch(c),
  step(c, ['wash', 'off'], { caution: 'noBlowing' }),
  step(c, ['startDrying', 'off']),
  step(c, ['check', 'off'], { check: 'dry', because: 'seat' }),
  isolate(c),
  open(c),
  ...undone(c, 'off'),
  ...wiped(c, 'off'),
  step(c, ['putOldBack', 'off'], { moves: 'putOldBack', dusty: true }),
  ...seatChecks(c, 'off'),
  ...tightened(c, 'off'),
  ...backAbove(c),
  close(c),
  latch(c),
  ...unstopped(c),
];

export const METHODS_OF: Record<ProcedureId, Method> = {
  plainBag: offChange,
  safetyBag: offChange,
  endlessLiner,
  linerSection,
  cycloneBag,
  filterBags,
  tankBagHeadAside,
  tankBagSecondVacuum,
  prefilterWrap,
  screwHepa,
  boltedMainFilter: offChange,
  stackedFilter,
  gasStage: offChange,
  purge,
  wash,
  collectorEmpty,
  centralCan: offChange,
  plainFilter: offChange,
  hosePlug,
  service,
  indicatorCheck,
  commissioning,
  fullSet,
  decontamination,
};
