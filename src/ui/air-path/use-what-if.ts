import { useEffect, useMemo, useReducer, useRef, useState } from 'react';
import type { PathView } from '@/core/calibrate/path-view';
import type { PressureProfile } from '@/core/path/pressure-profile';
import { type AirPathClient, openAirPath } from '@/workers/air-path-client';
import { startWhatIf, stateOfWhatIf, type WhatIf, type WhatIfAction, whatIfReducer } from './what-if';

export interface WhatIfUse {
  readonly state: WhatIf;
  readonly dispatch: (action: WhatIfAction) => void;
  /** The newest solution; null until the worker has answered once. */
  readonly stairs: PressureProfile | null;
  /** The newest state could not be solved: a sentence is due. */
  readonly failed: boolean;
}

/** What-if of one machine: the state here, the solving in a worker that lives as long as what-if is open. */
export const useWhatIf = (view: PathView): WhatIfUse => {
  const reducer = useMemo(() => whatIfReducer(view), [view]);
  const [state, dispatch] = useReducer(reducer, view, startWhatIf);
  const [answer, setAnswer] = useState<{ stairs: PressureProfile | null; failed: boolean }>({
    stairs: null,
    failed: false,
  });
  const client = useRef<AirPathClient | null>(null);

  useEffect(() => {
    const opened = openAirPath({
      model: view.model,
      parameters: view.parameters,
      onReply: (reply) =>
        setAnswer((held) =>
          reply.kind === 'solved' ? { stairs: reply.stairs, failed: false } : { stairs: held.stairs, failed: true },
        ),
    });
    client.current = opened;
    return () => {
      opened.close();
      client.current = null;
    };
  }, [view]);

  useEffect(() => {
    client.current?.ask(stateOfWhatIf(state, view));
  }, [state, view]);

  return { state, dispatch, ...answer };
};
