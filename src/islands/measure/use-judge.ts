import { useEffect, useState } from 'react';
import type { Live, LiveInput } from './live';

export type LiveNow = Live | { readonly form: 'loading' } | { readonly form: 'notLoaded' };

/**
 * The result of the entry so far. The statistics are a third of the page, so they are loaded when the pad is already
 * there to type on; without a connection the readings can still be recorded.
 */
export const useJudge = (): ((input: LiveInput) => LiveNow) => {
  const [judge, setJudge] = useState<{ readonly of: (input: LiveInput) => LiveNow }>({
    of: () => ({ form: 'loading' }),
  });
  useEffect(() => {
    void import('./live').then(
      ({ liveResult }) => setJudge({ of: liveResult }),
      () => setJudge({ of: () => ({ form: 'notLoaded' }) }),
    );
  }, []);
  return judge.of;
};
