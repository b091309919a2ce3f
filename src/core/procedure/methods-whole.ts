import { dustParts } from '../machine/dust-parts';
import { MACHINE_KINDS, wayOf } from '../machine/kinds';
import {
  bagOld,
  because,
  closeInlet,
  contained,
  fitting,
  guarded,
  isolate,
  latch,
  lookInside,
  machineStep,
  type Method,
  type MethodContext,
  openInlet,
  removal,
  restore,
  seatChecks,
  settled,
  step,
  takeNew,
  wayFacts,
  wiped,
} from './method';
import type { OpenedPart, Step } from './step';
import { WAYS } from './ways';

// Jobs on a whole machine. Source: common practice, no published source.

/** Parts that go with a job, tool to room. */
const all = (c: MethodContext): readonly MethodContext[] => [c, ...c.with].sort((a, b) => a.position - b.position);
const inPath = (c: MethodContext): readonly MethodContext[] => all(c).map((x) => ({ ...x, with: all(c) }));
/** Back in the other way round: what lies deepest first, a HEPA before the wrap that covers it. */
const outOfPath = (c: MethodContext): readonly MethodContext[] => [...inPath(c)].reverse();

const HOUSING: ReadonlySet<OpenedPart> = new Set<OpenedPart>(['lid', 'door', 'head', 'ring', 'can']);
const byOpening = (parts: readonly MethodContext[]): readonly MethodContext[] =>
  parts.filter(
    (p, i) =>
      HOUSING.has(wayFacts(p).opening) && parts.findIndex((x) => wayFacts(x).opening === wayFacts(p).opening) === i,
  );
const opened = (parts: readonly MethodContext[]): readonly Step[] =>
  byOpening(parts).map((p) => step(p, ['open', 'off'], { opens: wayFacts(p).opening, dusty: true }));
const shut = (parts: readonly MethodContext[]): readonly Step[] =>
  [...byOpening(parts)]
    .reverse()
    .flatMap((p) => [step(p, ['close', 'off'], { closes: wayFacts(p).opening }), latch(p)]);

const isHose = ({ stage }: MethodContext): boolean => stage.kind === 'hose';
const isPart = ({ machine, stage }: MethodContext): boolean => wayOf(machine, stage) !== null;
const linerOf = (c: MethodContext): boolean =>
  isPart(c) && wayFacts(c).opening === 'oldPart' && WAYS.liner === wayFacts(c);

/** A part comes out; a liner is twisted off and cut, because its film has no fixing. */
const outOf = (c: MethodContext): readonly Step[] =>
  linerOf(c)
    ? [step(c, ['twistAndCut', 'off'], { opens: 'oldPart', dusty: true }), ...bagOld(c, 'off')]
    : removal(c, 'off');
const into = (c: MethodContext): readonly Step[] =>
  linerOf(c)
    ? [
        step(c, ['fitNew', 'off'], { moves: 'fitNew', dusty: true }),
        ...seatChecks(c, 'off'),
        step(c, ['drawDown', 'off']),
        step(c, ['tieOff', 'off']),
        step(c, ['strapRim', 'off'], { closes: 'oldPart' }),
      ]
    : fitting(c, 'off');

/** Walls that hold dust, wiped and seen one by one, and the space around the parts. */
const insideWalls = (c: MethodContext): readonly Step[] =>
  dustParts(c.machine).flatMap((p): readonly Step[] => {
    if (p.at === 'vessel')
      return [machineStep('cleanVessel', 'off', { check: 'vesselClean', dusty: true, because: 'safety' })];
    if (p.place !== 'inside') return [];
    return [
      { ...machineStep('cleanWalls', 'off', { check: 'wallsClean', dusty: true, because: 'safety' }), stage: p.stage },
    ];
  });

/**
 * Everything that holds dust comes out or is cleaned where it is: outside first, the hose into its own bag, every part by
 * its own steps, then walls and the space around, until nothing is left.
 */
const emptied = (c: MethodContext): readonly Step[] => {
  const parts = inPath(c).filter(isPart);
  return [
    isolate(c),
    ...settled(c),
    machineStep('wipeOutside', 'off', { dusty: true, because: 'safety' }),
    // Collectors have their gates shut by then.
    ...(MACHINE_KINDS[c.machine.kind].emberLook ? [] : closeInlet(c)),
    ...inPath(c)
      .filter(isHose)
      .flatMap((h) => bagOld(h, 'off')),
    ...opened(parts),
    ...parts.flatMap(outOf),
    ...insideWalls(c),
    machineStep('wipe', 'off', { dusty: true, caution: 'noBrushNoAir' }),
    machineStep('decontaminate', 'off', { dusty: true }),
    machineStep('check', 'off', { check: 'nothingLeft', because: 'proof' }),
  ];
};

/** The only job that clears a machine's dust: emptied, new parts in, every seat seen, and the class proven. */
export const decontamination: Method = (c) => {
  const parts = outOfPath(c).filter(isPart);
  const hoses = inPath(c).filter(isHose);
  return [
    ...all(c).map(takeNew),
    ...emptied(c),
    ...parts.flatMap(into),
    ...shut(inPath(c).filter(isPart)),
    ...openInlet(c),
    ...hoses.flatMap((h): readonly Step[] => [
      step(h, ['fitNew', 'off'], { moves: 'fitNew', dusty: true }),
      step(h, ['check', 'off'], { check: 'hoseLocked', because: 'seat' }),
    ]),
  ];
};

/** What held a part is closed again without it. */
const closedEmpty = (c: MethodContext): readonly Step[] => {
  const { fixing } = wayFacts(c);
  if (linerOf(c)) return [step(c, ['strapRim', 'off'], { closes: 'oldPart' })];
  return fixing === null ? [] : [step(c, ['tightenFixings', 'off'], { closes: 'fixings', fixing })];
};

/**
 * Every part that holds dust is out, the plug stays in, a note of its dust goes with it, and its replacement is named.
 */
export const service: Method = (c) => {
  const parts = inPath(c).filter(isPart);
  return [
    machineStep('nameSpare', 'off', { because: 'stock' }),
    ...emptied(c),
    ...[...parts].reverse().flatMap(closedEmpty),
    ...shut(parts),
  ];
};

const laidAround = (c: MethodContext): Partial<Step> => (guarded(c) ? { because: because(c) } : {});

/** Cut off from its feed again before hands go to the hose after the run. The inlet is never left bare. */
export const hosePlug: Method = (c) => [
  isolate(c),
  ...closeInlet(c),
  step(c, ['reverseHose', 'off'], { closes: 'inlet', dusty: true, caution: 'sharp', ...laidAround(c) }),
  restore(c),
  machineStep('reverseRun', 'running', { caution: 'sharp' }),
  machineStep('switchOff', 'off'),
  isolate(c),
  ...closeInlet(c),
  step(c, ['lookThrough', 'off'], { dusty: true, ...laidAround(c) }),
  machineStep('stripNozzle', 'off', { dusty: true }),
  ...wiped(c, 'off'),
  step(c, ['close', 'off'], { closes: 'inlet', ...laidAround(c) }),
];

/** Fresh filters first, never on a plugged inlet; the disc is put on and taken off with the machine off. */
export const indicatorCheck: Method = () => [
  machineStep('check', 'off', { check: 'filtersFresh', because: 'proof' }),
  machineStep('discOn', 'off', { dusty: true }),
  machineStep('switchOn', 'running'),
  machineStep('proveIndicator', 'running', { check: 'lightOn', because: 'proof' }),
  machineStep('switchOff', 'off'),
  machineStep('discOff', 'off', { dusty: true }),
  machineStep('switchOn', 'running'),
  machineStep('proveIndicator', 'running', { check: 'lightOut', because: 'proof' }),
  machineStep('switchOff', 'off'),
];

/** Every seat is seen, not one; the plug is out before the run. */
export const commissioning: Method = (c) => {
  const parts = inPath(c).filter(isPart);
  const hose = c.machine.stages.some((s) => s.kind === 'hose' && !s.missing);
  const plugged = contained(c);
  return [
    isolate(c),
    machineStep('bondFirst', 'off', { check: 'bonded', because: 'safety' }),
    ...settled(c),
    ...(plugged && !MACHINE_KINDS[c.machine.kind].emberLook ? closeInlet(c) : []),
    ...opened(parts),
    ...parts.flatMap((p) => seatChecks(p, 'off')),
    ...(byOpening(parts).length > 0 ? wiped(c, 'off') : []),
    ...shut(parts),
    ...(plugged || MACHINE_KINDS[c.machine.kind].emberLook ? openInlet(c) : []),
    ...(hose ? [machineStep('check', 'off', { check: 'hoseLocked', because: 'seat' })] : []),
    ...(c.machine.hoseSelectorM === null
      ? []
      : [machineStep('check', 'off', { check: 'selectorRight', because: 'seat' })]),
  ];
};

/** Bag, filters and brush roll of a floor cleaner, all in one opening: the bag capped before anything moves. */
export const fullSet: Method = (c) => {
  const isChanged = ({ stage }: MethodContext): boolean => stage.kind === 'bag' || stage.part !== null;
  const changed = inPath(c).filter(isChanged);
  const rinsed = inPath(c).filter((x) => !isChanged(x));
  return [
    ...changed.map(takeNew),
    isolate(c),
    ...(contained(c) ? closeInlet(c) : []),
    ...opened(inPath(c)),
    ...changed.flatMap((x) => removal(x, 'off')),
    lookInside(c, 'off'),
    ...rinsed.map((x): Step => step(x, ['check', 'off'], { check: 'preMotorClean', because: 'seat' })),
    ...wiped(c, 'off'),
    ...[...changed].reverse().flatMap((x) => fitting(x, 'off')),
    ...shut(inPath(c)),
    ...(c.machine.hasBrush
      ? [
          machineStep('cutHair', 'off', { caution: 'bristles', dusty: true }),
          machineStep('check', 'off', { check: 'bristlesFree', because: 'seat' }),
          machineStep('check', 'off', { check: 'spinsFree', because: 'seat' }),
        ]
      : []),
    ...(contained(c) ? openInlet(c) : []),
  ];
};
