import { useEffect, useRef, useState } from 'react';
import type { FindReply } from '@/contracts/find';
import type { CaseSetup } from '@/core/diagnose/case-setup';
import type { CaseState } from '@/core/diagnose/case-log';
import { noAnswer } from '@/messages/failure-texts/no-answer';
import type { Problem } from '@/messages/problem';
import type { FindClient } from '@/workers/find-client';

export type Findings = Extract<FindReply, { kind: 'found' }>['findings'];

export interface FindingsUse {
  /** The newest findings; null until the worker has answered once. */
  readonly findings: Findings | null;
  /** Progress of the weighing, 0 to 1; 1 when complete. */
  readonly share: number;
  readonly problems: readonly Problem[];
}

interface Held extends FindingsUse {
  /** The case state that the findings belong to. */
  readonly of: string;
}

/**
 * The findings of a case, computed in a worker: the page never waits. Findings of an earlier state of the case are not
 * shown.
 */
export const useFindings = (
  setup: CaseSetup,
  { progress, school }: Pick<CaseState, 'progress' | 'school'>,
  words: string,
): FindingsUse => {
  const [held, setHeld] = useState<Held>({ findings: null, share: 0, problems: [], of: '' });
  const client = useRef<FindClient | null>(null);
  const { complaint } = progress;
  const asked = JSON.stringify([progress, school]);
  const newest = useRef(asked);
  const question = useRef({ progress, school });

  useEffect(() => {
    const onReply = (reply: FindReply) => {
      if (reply.kind === 'progress') {
        setHeld((before) => ({ ...before, share: reply.share }));
        return;
      }
      const of = newest.current;
      if (reply.kind === 'found') setHeld({ findings: reply.findings, share: 1, problems: [], of });
      // Rare, so its sentences are loaded when they are needed.
      else
        void import('@/messages/failures').then(
          ({ problemsOf }) => setHeld((before) => ({ ...before, share: 1, problems: problemsOf(reply.failures), of })),
          () => setHeld((before) => ({ ...before, share: 1, problems: [noAnswer()], of })),
        );
    };
    let wanted = true;
    // It is as large as the page, so the page is shown first.
    void import('@/workers/find-client').then(({ openFind }) => {
      if (!wanted) return;
      client.current = openFind({ setup, complaint, words, onReply });
      client.current.ask(question.current.progress, question.current.school);
    });
    return () => {
      wanted = false;
      client.current?.close();
      client.current = null;
    };
  }, [setup, complaint, words]);

  useEffect(() => {
    newest.current = asked;
    question.current = { progress, school };
    client.current?.ask(progress, school);
  }, [asked, progress, school, setup, complaint, words]);

  return {
    findings: held.findings,
    problems: held.problems,
    share: held.of === asked ? 1 : Math.min(held.share, 0.99),
  };
};
