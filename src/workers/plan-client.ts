import { PlanReply, type PlanRequest } from '@/contracts/plan';
import type { PlanProblem } from '@/core/plan/problem';

/** The part of a Worker that is used: a test hands in its own. */
export interface PlanWorkerLike {
  postMessage: (message: PlanRequest) => void;
  onmessage: ((event: MessageEvent<unknown>) => void) | null;
  terminate: () => void;
}

export interface PlanClient {
  /** Plans again; a running search is stopped. */
  readonly plan: (problem: PlanProblem, rounds: number) => void;
  readonly stop: () => void;
}

const newWorker = (): PlanWorkerLike => new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module' });
const SEED = 7;

/** A planner off the page: the newest problem only; stopped by ending its worker. */
export const openPlanner = (
  onReply: (reply: PlanReply) => void,
  make: () => PlanWorkerLike = newWorker,
): PlanClient => {
  let worker: PlanWorkerLike | null = null;
  let id = 0;
  const stop = () => {
    worker?.terminate();
    worker = null;
  };
  return {
    stop,
    plan: (problem, rounds) => {
      stop();
      id += 1;
      const mine = id;
      worker = make();
      worker.onmessage = (event) => {
        const reply = PlanReply.safeParse(event.data);
        if (reply.success && reply.data.id === mine) onReply(reply.data);
      };
      worker.postMessage(structuredClone({ ask: 'plan', id, problem, rounds, seed: SEED }) as PlanRequest);
    },
  };
};
