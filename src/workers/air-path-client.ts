import { AirPathReply, type AirPathRequest } from '@/contracts/air-path-messages';
import type { MachineModel, PathParameters, PathState } from '@/core/path/machine-path';

export interface AirPathClient {
  /** Asks for a state; while the worker is busy only the newest question is kept. */
  readonly ask: (state: PathState) => void;
  readonly close: () => void;
}

/** The part of a Worker that is used: a test hands in its own. */
export interface WorkerLike {
  postMessage: (message: AirPathRequest) => void;
  onmessage: ((event: MessageEvent<unknown>) => void) | null;
  terminate: () => void;
}

const newWorker = (): WorkerLike => new Worker(new URL('./air-path.worker.ts', import.meta.url), { type: 'module' });

const asJson = (state: PathState): Extract<AirPathRequest, { ask: 'solve' }>['state'] => ({
  ...state,
  stages: { ...state.stages },
  leaksM2: { ...state.leaksM2 },
});

interface AirPathWorkerOptions {
  readonly model: MachineModel;
  readonly parameters: PathParameters;
  readonly onReply: (reply: AirPathReply) => void;
}

/** Opens a worker for one machine. Answers come in order; a question that was overtaken is never solved. */
export const openAirPath = (
  { model, parameters, onReply }: AirPathWorkerOptions,
  make: () => WorkerLike = newWorker,
): AirPathClient => {
  const worker = make();
  let [busy, id] = [false, 0];
  let waiting: PathState | null = null;
  const send = (state: PathState) => {
    id += 1;
    busy = true;
    worker.postMessage({ ask: 'solve', id, state: asJson(state) });
  };
  worker.onmessage = (event) => {
    const reply = AirPathReply.safeParse(event.data);
    busy = false;
    const next = waiting;
    waiting = null;
    if (next) send(next);
    if (reply.success) onReply(reply.data);
  };
  worker.postMessage({ ask: 'model', model: { ...model, stages: [...model.stages] }, parameters });
  return {
    ask: (state) => {
      if (busy) waiting = state;
      else send(state);
    },
    close: () => worker.terminate(),
  };
};
