import { FindReply, type FindRequest } from '@/contracts/find';
import type { CaseSetup } from '@/core/diagnose/case-setup';
import type { Complaint } from '@/core/diagnose/complaint';
import type { Progress } from '@/core/diagnose/evaluate-case';
import type { School } from '@/core/diagnose/next-test';

export interface FindClient {
  /** Asks for the findings of a case; an answer to an older question is dropped. */
  readonly ask: (progress: Progress, school: School) => void;
  readonly close: () => void;
}

/** The part of a Worker that is used: a test hands in its own. */
export interface FindWorkerLike {
  postMessage: (message: FindRequest) => void;
  onmessage: ((event: MessageEvent<unknown>) => void) | null;
  terminate: () => void;
}

const newWorker = (): FindWorkerLike => new Worker(new URL('./find.worker.ts', import.meta.url), { type: 'module' });

interface FindWorkerOptions {
  readonly setup: CaseSetup;
  readonly complaint: Complaint;
  readonly words: string;
  readonly onReply: (reply: FindReply) => void;
}

/** Read-only core types, sent as a plain copy. */
type Sent =
  | { readonly ask: 'open'; readonly setup: CaseSetup; readonly complaint: Complaint; readonly words: string }
  | { readonly ask: 'evaluate'; readonly id: number; readonly progress: Progress; readonly school: School };

const plain = (value: Sent): FindRequest => structuredClone(value) as FindRequest;

/** Opens a worker that weighs one case. */
export const openFind = (
  { setup, complaint, words, onReply }: FindWorkerOptions,
  make: () => FindWorkerLike = newWorker,
): FindClient => {
  const worker = make();
  let id = 0;
  worker.onmessage = (event) => {
    const reply = FindReply.safeParse(event.data);
    if (reply.success && reply.data.id === id) onReply(reply.data);
  };
  worker.postMessage(plain({ ask: 'open', setup, complaint, words }));
  return {
    ask: (progress, school) => {
      id += 1;
      worker.postMessage(plain({ ask: 'evaluate', id, progress, school }));
    },
    close: () => worker.terminate(),
  };
};
