import type { DustHazard } from '../dust/level';
import { MACHINE_KINDS, wayOf } from '../machine/kinds';
import type { Machine, Stage } from '../machine/machine';
import { STAGE_KINDS } from '../path/stage-kinds';
import { ISOLATION } from './feed';
import type { CheckKind, RunState, Step, StepKey } from './step';
import { WAYS, type WayFacts } from './ways';

/** The facts of a machine that its procedures follow from. */
export type ProcedureMachine = Pick<Machine, 'kind' | 'stages' | 'hasBrush' | 'hoseSelectorM'>;

/** The facts that a method's steps depend on. */
export interface MethodContext {
  readonly machine: ProcedureMachine;
  /** Level of the dust in the machine: it decides the containment around each part. */
  readonly level: DustHazard;
  readonly position: number;
  readonly stage: Stage;
  /** Stages whose parts go with it, in one opening. */
  readonly with: readonly MethodContext[];
}

/** A method of the trade for one stage, from the first part in hand to the last step before the machine is run. */
export type Method = (c: MethodContext) => readonly Step[];

type Over = Partial<Omit<Step, 'key' | 'run' | 'stage'>>;

/** A step at the stage of the change: its action, and the state of the machine. */
export const step = ({ position }: MethodContext, [key, run]: readonly [StepKey, RunState], over: Over = {}): Step => ({
  key,
  run,
  stage: position,
  because: 'method',
  ...over,
});

/** A step at the machine. */
export const machineStep = (key: StepKey, run: RunState, over: Over = {}): Step => ({
  key,
  run,
  stage: null,
  because: 'method',
  ...over,
});

export const guarded = ({ level }: MethodContext): boolean => level !== 'plain';
export const contained = ({ level }: MethodContext): boolean => level === 'contained';
const when = (yes: boolean, steps: readonly Step[]): readonly Step[] => (yes ? steps : []);
const factsOf = ({ machine }: MethodContext) => MACHINE_KINDS[machine.kind];

/** How the part of the stage sits. A stage that holds no part has no way: it is never asked for here. */
export const wayFacts = ({ machine, stage }: MethodContext): WayFacts => WAYS[wayOf(machine, stage) ?? 'slide'];

/** Cut off from what feeds it: plug, breaker or air. Again after every run, before hands go in. */
export const isolate = (c: MethodContext): Step => {
  const { off, caution } = ISOLATION[factsOf(c).feed];
  return machineStep(off, 'off', { caution, because: 'safety' });
};

/** Its feed comes back before a run. */
export const restore = (c: MethodContext): Step =>
  machineStep(ISOLATION[factsOf(c).feed].on, 'off', { because: 'safety' });

/** The new part comes from the shelf before anything is opened. */
export const takeNew = (c: MethodContext): Step =>
  step(c, ['prepareNew', 'off'], { moves: 'takeNew', because: 'stock' });

const capHose = (c: MethodContext, run: RunState): readonly Step[] =>
  when(guarded(c), [machineStep('capHose', run, { dusty: true, because: contained(c) ? 'contained' : 'controlled' })]);

/** The way in is stopped: a plug, flaps that close by themselves, or blast gates. A hose that comes off is capped. */
export const closeInlet = (c: MethodContext, run: RunState = 'off'): readonly Step[] => {
  const { line, inletsClose } = factsOf(c);
  if (line === 'duct') return [machineStep('closeGates', run)];
  const key = inletsClose ? 'hosesOff' : 'plugInlet';
  return [
    machineStep(key, run, { opens: 'inlet', dusty: true, ...(inletsClose ? {} : { caution: 'plugFirst' }) }),
    ...capHose(c, run),
  ];
};

/** The way in is free again, only when the machine is closed, latched and off: until then the plug holds the dust. */
export const openInlet = (c: MethodContext): readonly Step[] => {
  const { line, inletsClose } = factsOf(c);
  if (line === 'duct') return [machineStep('openGates', 'off')];
  return [machineStep(inletsClose ? 'hosesOn' : 'unplugInlet', 'off', { closes: 'inlet' })];
};

/** Where fine dust that burns collects, embers are looked and smelled for before anything moves; then the dust settles. */
export const settled = (c: MethodContext): readonly Step[] =>
  factsOf(c).emberLook
    ? [
        machineStep('lookForEmbers', 'off', { check: 'noEmbers', caution: 'sparks', because: 'safety' }),
        machineStep('closeGates', 'off'),
        machineStep('cleanCanister', 'off', { caution: 'noBlowing' }),
        machineStep('letSettle', 'off'),
      ]
    : [];

/** The inlet is stopped before a container opens: always in the worst dust, and wherever the maker's own order says so. */
export const stopped = (c: MethodContext): readonly Step[] =>
  when((contained(c) || wayFacts(c).plugFirst) && !factsOf(c).emberLook, closeInlet(c));
export const unstopped = (c: MethodContext): readonly Step[] =>
  when(contained(c) || wayFacts(c).plugFirst || factsOf(c).emberLook, openInlet(c));

export const open = (c: MethodContext): Step => {
  const { opening } = wayFacts(c);
  return step(c, ['open', 'off'], {
    opens: opening,
    dusty: true,
    ...(opening === 'can' ? { caution: 'hotSeal' } : {}),
  });
};
export const close = (c: MethodContext): Step => {
  const { opening } = wayFacts(c);
  return step(c, ['close', 'off'], { closes: opening, ...(opening === 'can' ? { caution: 'bearWeight' } : {}) });
};
export const latch = (c: MethodContext, run: RunState = 'off'): Step =>
  step(c, ['latch', run], { check: 'latchCount', because: 'seat' });

const CLOSINGS: Record<WayFacts['closing'], readonly StepKey[]> = {
  cap: ['capOld'],
  safety: ['closeBreathers', 'sealMouth', 'tieNeck'],
  neck: ['closeNeck'],
  liner: ['closeNeck'],
  draw: ['drawIntoBag'],
  none: [],
};
const closed = (c: MethodContext, run: RunState): readonly Step[] =>
  CLOSINGS[wayFacts(c).closing].map((key) => step(c, [key, run], { dusty: true }));

export const undone = (c: MethodContext, run: RunState): readonly Step[] => {
  const { fixing } = wayFacts(c);
  return fixing === null
    ? []
    : [
        step(c, ['releaseFixings', run], {
          opens: 'fixings',
          fixing,
          dusty: true,
          ...(fixing === 'thread' ? { caution: 'leftHanded' } : {}),
          ...(fixing === 'bandClamp' ? { caution: 'bandClamp' } : {}),
        }),
      ];
};

/** An old element's clean side, seen while it is out and before anything new goes in. */
const lookCleanSide = (c: MethodContext, run: RunState): readonly Step[] =>
  when(STAGE_KINDS[c.stage.kind].cleanSide, [
    step(c, ['lookCleanSide', run], { check: 'cleanSideClean', dusty: true, because: 'proof' }),
  ]);

export const because = (c: MethodContext): Step['because'] => (contained(c) ? 'contained' : 'controlled');

const tied = (c: MethodContext, run: RunState): readonly Step[] => [
  ...when(guarded(c), [step(c, ['tieBag', run], { dusty: true, because: because(c) })]),
  ...when(contained(c), [step(c, ['wipeBag', run], { dusty: true, because: 'contained' })]),
];

/** The old part goes into its bag, which is tied at once and, for contained dust, wiped. */
export const bagOld = (c: MethodContext, run: RunState): readonly Step[] => [
  ...lookCleanSide(c, run),
  step(c, ['bagOld', run], { moves: 'bagOld', dusty: true }),
  ...tied(c, run),
];

/** The old part is held in a bag of its own until the new one is proven. */
const holdOld = (c: MethodContext): readonly Step[] => [
  ...lookCleanSide(c, 'off'),
  step(c, ['holdOld', 'off'], { moves: 'holdOld', dusty: true }),
  ...tied(c, 'off'),
];

/** What sits above in the stack and is still in: it comes off first, top down, each into a bag of its own where dust counts. */
const stackAbove = (c: MethodContext): boolean =>
  wayFacts(c).lifts &&
  c.machine.stages
    .slice(0, c.position)
    .some((s, i) => !s.missing && wayOf(c.machine, s) === 'stacked' && !c.with.some((w) => w.position === i));
export const lifted = (c: MethodContext): readonly Step[] =>
  when(stackAbove(c), [
    step(c, ['liftAbove', 'off'], { dusty: true }),
    ...when(guarded(c), [step(c, ['bagAbove', 'off'], { dusty: true, because: because(c) })]),
  ]);
export const backAbove = (c: MethodContext): readonly Step[] =>
  when(stackAbove(c), [step(c, ['backAbove', 'off'], { dusty: true })]);

/** Removes the old part: parts above it first, holes shut, fixings undone, inspected, bagged, tied. */
export const removal = (c: MethodContext, run: RunState, held = false): readonly Step[] => {
  const shut = closed(c, run);
  const loose = undone(c, run);
  return [
    ...lifted(c),
    ...(wayFacts(c).closing === 'liner' ? [...loose, ...shut] : [...shut, ...loose]),
    ...(held ? holdOld(c) : bagOld(c, run)),
  ];
};

const ask = (c: MethodContext, check: CheckKind, run: RunState): Step =>
  step(c, ['check', run], { check, because: 'seat' });

/** Checks of a seat, from the stage's own data and the way it sits; one by one. */
export const seatChecks = (c: MethodContext, run: RunState): readonly Step[] => {
  const { orientation, seals } = c.stage.spec.fit;
  const checks: readonly CheckKind[] = [
    ...(c.stage.kind === 'bag' ? (['collarStraight'] as const) : []),
    ...(orientation === 'unmarked' ? [] : (['arrowWithFlow', 'gasketSide'] as const)),
    ...(seals >= 1 ? (['seal1'] as const) : []),
    ...(seals >= 2 ? (['seal2'] as const) : []),
    ...wayFacts(c).checks,
  ];
  return checks.map((check) => ask(c, check, run));
};

/** Tightened only when arrow, gasket and seat have been seen. */
export const tightened = (c: MethodContext, run: RunState): readonly Step[] => {
  const { fixing, after } = wayFacts(c);
  return [
    ...(fixing === null ? [] : [step(c, ['tightenFixings', run], { closes: 'fixings', fixing })]),
    ...after.map((check) => ask(c, check, run)),
  ];
};

/** The new part in: fitted, every seat seen, tightened, and back on it what sat above. */
export const fitting = (c: MethodContext, run: RunState): readonly Step[] => [
  step(c, ['fitNew', run], { moves: 'fitNew', dusty: true }),
  ...seatChecks(c, run),
  ...tightened(c, run),
  ...backAbove(c),
];

/** Wipes up loose dust before a new part goes in; in contained dust also all that was touched and the floor. */
export const wiped = (c: MethodContext, run: RunState): readonly Step[] => [
  ...when(guarded(c), [machineStep('wipe', run, { dusty: true, caution: 'noBrushNoAir', because: 'controlled' })]),
  ...when(contained(c), [machineStep('decontaminate', run, { dusty: true, because: 'contained' })]),
];

export const lookInside = (c: MethodContext, run: RunState): Step =>
  step(c, ['lookInside', run], {
    dusty: true,
    check: 'compartmentClean',
    ...(wayFacts(c).opening === 'can' ? { caution: 'innerFilter' } : {}),
  });

/** Whether the machine shows the state of a stage by its light. */
export const lightShows = ({ machine, stage }: MethodContext): boolean => {
  const { light, lightOf } = MACHINE_KINDS[machine.kind].shows;
  return light !== null && lightOf.some((k) => k === stage.kind);
};
/** Whether a gauge shows it: built in for its kind, or on record for the stage. */
export const gaugeShows = ({ machine, stage }: MethodContext): boolean =>
  MACHINE_KINDS[machine.kind].shows.gauge || stage.spec.fit.gaugePa !== null;
