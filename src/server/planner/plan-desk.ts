import { type ChildProcess, fork } from 'node:child_process';
import { constants, setPriority } from 'node:os';
import { join } from 'node:path';
import type { Context } from '../services/yard/user-action';
import { planHere, type YardPlan } from '../services/plan/plan-yard';
import type { Yard } from '../services/yard/yard';
import type { PlanAsked, PlanMade } from './planner';

/** A yard up to this size is planned at once, in tens of milliseconds; a larger one by the planner. A modelling choice. */
const AT_ONCE = 60;
/**
 * A large yard is planned at most this often: planning takes a core, which the answers need too. A modelling choice.
 */
const APART_MS = 20_000;

type Asked = Pick<Context, 'db' | 'now'>;

export interface PlanDesk {
  readonly plan: (context: Asked, yard: Yard) => Promise<YardPlan>;
  /** Closes the records and stops a running plan; resolves when the planner has them closed. */
  readonly stop: () => Promise<void>;
}

/**
 * Plans the yard: a small one at once, a large one in a process of its own. While a new plan of a large yard is made,
 * the one before it is given, with the revision it was made for; only the first one is waited for.
 */
export const planDesk = (file: string): PlanDesk => {
  let planner: ChildProcess | null = null;
  let last: YardPlan | null = null;
  let madeAt = 0;
  let making: Promise<YardPlan> | null = null;

  const started = (): ChildProcess => {
    if (planner) return planner;
    planner = fork(join(process.cwd(), 'dist/run/planner.mjs'), [file], {
      execArgv: [],
      serialization: 'advanced',
    });
    // With few cores, page requests go first.
    if (planner.pid !== undefined) setPriority(planner.pid, constants.priority.PRIORITY_LOW);
    planner.unref();
    planner.channel?.unref();
    return planner;
  };

  const make = (yard: Yard, now: string): Promise<YardPlan> =>
    new Promise<YardPlan>((resolve, reject) => {
      const asked = started();
      const fail = () => {
        planner = null;
        reject(new Error('the planner ended before it had made its plan'));
      };
      asked.once('exit', fail);
      asked.once('message', (answer) => {
        const made = answer as PlanMade;
        asked.off('exit', fail);
        if (!made.ok) {
          reject(new Error(`the yard could not be planned: ${made.because}`));
          return;
        }
        const machines = new Map(yard.machines.map((m) => [m.machine.id, m]));
        last = {
          ...made.plan,
          outlook: {
            yard,
            machines: made.outlooks.flatMap(({ machineId, outlooks }) => {
              const known = machines.get(machineId);
              return known ? [{ machine: known.machine, due: known.due, outlooks }] : [];
            }),
          },
        };
        resolve(last);
      });
      asked.send({ now } satisfies PlanAsked);
    }).finally(() => {
      making = null;
      madeAt = Date.now();
    });

  const plan: PlanDesk['plan'] = (context, yard) => {
    if (yard.machines.length <= AT_ONCE) return planHere(context, yard);
    const current = last?.revision === yard.revision && last.outlook.yard.today === yard.today;
    if (last && current) return Promise.resolve(last);
    if (last && Date.now() - madeAt < APART_MS) return Promise.resolve(last);
    making ??= make(yard, context.now());
    // Nobody waits for a better plan than the last; a failure is reported at the next request.
    if (last) making.catch((error: unknown) => console.error(error));
    return last ? Promise.resolve(last) : making;
  };
  const stop = async (): Promise<void> => {
    const gone = planner;
    if (!gone || gone.exitCode !== null || gone.signalCode !== null) return;
    const ended = new Promise((resolve) => gone.once('exit', resolve));
    gone.kill();
    await ended;
  };
  return { plan, stop };
};
