import type { Stage } from '../machine/machine';
import type { CheckKind, RunState, Step, StepKey } from './step';

/** What the steps of a method are made for. */
export interface MethodContext {
  readonly position: number;
  readonly stage: Stage;
  /** Stages whose parts go with it, in one opening. */
  readonly with: readonly MethodContext[];
}

/** A stage of its own, with nothing that goes with it. */
export const alone = (position: number, stage: Stage): MethodContext => ({ position, stage, with: [] });

type Over = Partial<Omit<Step, 'key' | 'run' | 'stage'>>;

/** A step at the stage of the change: what is done, in which state of the machine. */
export const step = ({ position }: MethodContext, [key, run]: readonly [StepKey, RunState], over: Over = {}): Step => ({ key, run, stage: position, because: 'method', ...over });

/** A step at the machine. */
export const machineStep = (key: StepKey, run: RunState, over: Over = {}): Step => ({ key, run, stage: null, because: 'method', ...over });

const ask = (c: MethodContext, check: CheckKind, run: RunState): Step => step(c, ['check', run], { check, because: 'seat' });

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
export const takeNew = (c: MethodContext): readonly Step[] => (c.stage.part ? [step(c, ['prepareNew', 'off'], { moves: 'takeNew', because: 'stock' })] : []);

/** The old part is drawn out into its bag, in a state of the machine. */
export const bagOld = (c: MethodContext, run: RunState): Step => step(c, ['bagOld', run], { moves: 'bagOld', dusty: true });

export const fitNew = (c: MethodContext, run: RunState): Step => step(c, ['fitNew', run], { moves: 'fitNew', dusty: true });

export const disposeOld = (c: MethodContext, run: RunState = 'off'): Step => step(c, ['disposeOld', run], { moves: 'disposeOld', caution: 'localWaste', because: 'stock' });

export const isolate = (): Step => machineStep('isolate', 'off', { caution: 'unplug', because: 'safety' });

/** Closed, run, listened to: the end of every change that leaves the machine ready. */
export const runUp = (): readonly Step[] => [machineStep('runAndListen', 'running', { because: 'proof' }), machineStep('measureAfter', 'running', { because: 'proof' })];

/** A method of the trade for one stage. */
export type Method = (c: MethodContext) => readonly Step[];

export const open = (c: MethodContext): Step => step(c, ['open', 'off'], { opens: 'lid', dusty: true });
export const close = (c: MethodContext): Step => step(c, ['close', 'off'], { closes: 'lid' });
export const latch = (c: MethodContext, run: 'off' | 'headAside' = 'off'): Step => step(c, ['latch', run], { check: 'latchCount', because: 'seat' });
