import { useCallback, useState } from 'react';
import type { CaseAction, OpenCaseReply } from '@/contracts/find';
import { setChoice } from '@/ui/cookies';
import { shownIsOld } from '@/messages/failure-texts/no-answer';
import { loadAnew } from '@/ui/load-anew';
import { usePostOnce } from '@/ui/use-post-once';
import type { FindAction } from './state';

export interface CaseUse {
  readonly reply: OpenCaseReply;
  /** Records one action and reloads the case; true when it was recorded. */
  readonly doIt: (action: CaseAction, by: string) => Promise<boolean>;
}

/** The open case: posts its actions one by one and reloads its log after each. */
export const useCase = (tag: string, first: OpenCaseReply, dispatch: (action: FindAction) => void): CaseUse => {
  const [reply, setReply] = useState(first);
  const base = `/api/machines/${encodeURIComponent(tag)}/cases`;
  const caseId = reply.record?.id ?? 0;
  const post = usePostOnce();
  const doIt = useCallback(
    async (action: CaseAction, by: string): Promise<boolean> => {
      dispatch({ type: 'sending' });
      const initials = by.trim().toUpperCase();
      const posted = await post(`${base}/actions`, { by: initials, caseId, action });
      if (!posted) return false;
      if (!posted.ok) {
        dispatch({ type: 'refused', problems: posted.problems });
        return false;
      }
      setChoice('mw_by', initials);
      if (action.kind === 'close' || action.kind === 'handOn') {
        window.location.assign(`/m/${encodeURIComponent(tag)}/cases/${caseId}`);
        return true;
      }
      const fresh = await loadAnew(`${base}/open`, (await import('@/contracts/find')).OpenCaseReply);
      if (fresh) {
        setReply(fresh);
        dispatch({ type: 'done' });
      } else dispatch({ type: 'refused', problems: [shownIsOld()] });
      return true;
    },
    [base, caseId, dispatch, post, tag],
  );
  return { reply, doIt };
};
