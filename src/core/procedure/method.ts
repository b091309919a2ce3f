import type { Machine, Stage } from '../machine/machine';
import { feedOf, ISOLATION } from './feed';
import type { CheckKind, RunState, Step, StepKey } from './step';

/** What the steps of a method are made for. */
export interface MethodContext {
  readonly machine: Pick<Machine, 'kind' | 'stages'>;
  readonly position: number;
  readonly stage: Stage;
  /** Stages whose parts go with it, in one opening. */
  readonly with: readonly MethodContext[];
}

type Over = Partial<Omit<Step, 'key' | 'run' | 'stage'>>;

/** A step at the stage of the change: what is done, in which state of the machine. */
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

const ask = (c: MethodContext, check: CheckKind, run: RunState): Step =>
  step(c, ['check', run], { check, because: 'seat' });

/** Checks of the part that was fitted, from its own data: collar or thread, seals, arrow; one by one. */
export const seatChecks = (c: MethodContext, run: RunState, extra: readonly CheckKind[] = []): readonly Step[] => {
  const { kind, spec } = c.stage;
  const bag = kind === 'bag';
  const { orientation, seals } = spec.fit;
  const checks: readonly CheckKind[] = [
    ...(bag ? (['collarStraight'] as const) : []),
    ...(orientation === 'unmarked' ? [] : (['arrowWithFlow', 'gasketSide'] as const)),
    ...(seals >= 1 ? (['seal1'] as const) : []),
    ...(seals >= 2 ? (['seal2'] as const) : []),
    ...extra,
  ];
  return checks.map((check) => ask(c, check, run));
};

/** The new part comes from the shelf before anything is opened. */
export const takeNew = (c: MethodContext): readonly Step[] =>
  c.stage.part ? [step(c, ['prepareNew', 'off'], { moves: 'takeNew', because: 'stock' })] : [];

/** An element whose clean side tells whether it let dust past: looked at while it is out, before anything new goes in. */
export const hasCleanSide = ({ kind }: Pick<Stage, 'kind'>): boolean =>
  kind === 'mainFilter' || kind === 'hepa' || kind === 'canister' || kind === 'cloth';

const lookCleanSide = (c: MethodContext, run: RunState): readonly Step[] =>
  hasCleanSide(c.stage)
    ? [step(c, ['lookCleanSide', run], { check: 'cleanSideClean', dusty: true, because: 'proof' })]
    : [];

/** The old part is lifted, its clean side and what lies behind it are looked at, and it is drawn into its bag. */
export const bagOld = (c: MethodContext, run: RunState): readonly Step[] => [
  ...lookCleanSide(c, run),
  step(c, ['bagOld', run], { moves: 'bagOld', dusty: true }),
];

/** The old part is held, bagged and tagged, until the new one is proven. */
export const holdOld = (c: MethodContext): readonly Step[] => [
  ...lookCleanSide(c, 'off'),
  step(c, ['holdOld', 'off'], { moves: 'holdOld', dusty: true }),
];

export const fitNew = (c: MethodContext, run: RunState): Step =>
  step(c, ['fitNew', run], { moves: 'fitNew', dusty: true });

export const disposeOld = (c: MethodContext, run: RunState = 'off'): Step =>
  step(c, ['disposeOld', run], { moves: 'disposeOld', caution: 'localWaste', because: 'stock' });

/** Cut off from what feeds it: plug, breaker or air. Again after every run, before hands go in. */
export const isolate = ({ machine }: MethodContext): Step => {
  const [key, caution] = ISOLATION[feedOf(machine.kind)];
  return machineStep(key, 'off', { caution, because: 'safety' });
};

/** Closed, run, listened to: the end of every change that leaves the machine ready. */
export const runUp = (): readonly Step[] => [
  machineStep('runAndListen', 'running', { because: 'proof' }),
  machineStep('measureAfter', 'running', { because: 'proof' }),
];

/** A method of the trade for one stage. */
export type Method = (c: MethodContext) => readonly Step[];

export const open = (c: MethodContext): Step => step(c, ['open', 'off'], { opens: 'lid', dusty: true });
export const close = (c: MethodContext): Step => step(c, ['close', 'off'], { closes: 'lid' });
export const latch = (c: MethodContext, run: 'off' | 'headAside' = 'off'): Step =>
  step(c, ['latch', run], { check: 'latchCount', because: 'seat' });

export const plugInlet = (run: RunState = 'off'): Step =>
  machineStep('plugInlet', run, { opens: 'inlet', caution: 'plugFirst' });
/** Only when it is closed, latched and off: until then the plug is what holds the dust. */
export const unplugInlet = (): Step => machineStep('unplugInlet', 'off', { closes: 'inlet' });
