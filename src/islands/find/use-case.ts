import { useCallback, useRef, useState } from 'react';
import { type CaseDeed, OpenCaseReply } from '@/contracts/find';
import { newClientId, postAction } from '@/ui/post-action';
import { setChoice } from '@/ui/cookies';
import type { FindAction } from './state';

export interface CaseUse {
  readonly reply: OpenCaseReply;
  /** Records one deed and loads the case anew; true when it was taken. */
  readonly doIt: (deed: CaseDeed, by: string) => Promise<boolean>;
}

/** The open case, its deeds posted one by one and its log loaded anew after each. */
export const useCase = (tag: string, first: OpenCaseReply, dispatch: (action: FindAction) => void): CaseUse => {
  const [reply, setReply] = useState(first);
  const base = `/api/machines/${encodeURIComponent(tag)}/cases`;
  const caseId = reply.record?.id ?? 0;
  // A double click is one deed: what comes while one is on its way is not heard.
  const busy = useRef(false);
  const doIt = useCallback(
    async (deed: CaseDeed, by: string): Promise<boolean> => {
      if (busy.current) return false;
      busy.current = true;
      dispatch({ type: 'sending' });
      const initials = by.trim().toUpperCase();
      const posted = await postAction(`${base}/deeds`, { clientId: newClientId(), by: initials, caseId, deed });
      if (!posted.ok) {
        busy.current = false;
        dispatch({ type: 'refused', problems: posted.problems });
        return false;
      }
      setChoice('mw_by', initials);
      if (deed.kind === 'close' || deed.kind === 'handOn') {
        window.location.assign(`/m/${encodeURIComponent(tag)}/cases/${caseId}`);
        return true;
      }
      const response = await fetch(base);
      const fresh = OpenCaseReply.safeParse(await response.json());
      if (fresh.success) setReply(fresh.data);
      else window.location.reload();
      busy.current = false;
      dispatch({ type: 'done' });
      return true;
    },
    [base, caseId, dispatch, tag],
  );
  return { reply, doIt };
};
