import { useCallback, useRef } from 'react';
import { newClientId, postAction, type Posted } from './post-action';

/**
 * Posts one action at a time: a second post during the first is dropped, so a double click is one action. null when it
 * was dropped.
 */
export const usePostOnce = (): ((url: string, body: object) => Promise<Posted | null>) => {
  const busy = useRef(false);
  return useCallback(async (url: string, body: object) => {
    if (busy.current) return null;
    busy.current = true;
    const posted = await postAction(url, { clientId: newClientId(), ...body });
    busy.current = false;
    return posted;
  }, []);
};
