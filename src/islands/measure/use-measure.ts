import { useEffect, useMemo, useReducer, useRef } from 'react';
import type { StageDue } from '@/core/interval/due';
import type { MeasuredMachine } from '@/core/machine/machine';
import type { LossThresholds } from '@/core/measure/judge-baseline';
import { type Method, preconditionsFor } from '@/core/measure/methods';
import type { Instrument, TestRecord } from '@/core/record/records';
import type { UnitSystem } from '@/core/units';
import { setChoice } from '@/ui/cookies';
import { momentSent } from '@/ui/local-moment';
import { newClientId, postAction } from '@/ui/post-action';
import { dropDraft, keepDraft, readDraft } from './draft';
import { startState, stateOfRecord } from './start';
import { type MeasureState, measureReducer, orNull, toEntry } from './state';
import type { ShownPath } from '@/ui/air-path/shown-path';

export interface MeasureProps {
  readonly view: ShownPath;
  readonly machine: MeasuredMachine;
  readonly due: readonly StageDue[];
  readonly tests: readonly TestRecord[];
  readonly previous: TestRecord | null;
  readonly instruments: readonly Instrument[];
  readonly altitudeM: number;
  readonly thresholds: LossThresholds;
  readonly units: UnitSystem;
  readonly today: string;
  readonly now: string;
  readonly by: string;
  readonly clientId: string;
  readonly afterChangeId: number | null;
  /** Method from a link; null keeps the method. */
  readonly method: Method | null;
  /** Set when a record is being corrected. */
  readonly correcting: TestRecord | null;
}

const bodyOf = (state: MeasureState, props: MeasureProps) => {
  const wanted = preconditionsFor({ method: state.method, hasBrush: props.machine.hasBrush });
  return {
    ...toEntry(state, wanted),
    clientId: state.clientId,
    by: state.by.trim().toUpperCase(),
    performedAt: momentSent(state.when),
    instrumentId: state.instrumentId,
    wheel: orNull(state.wheel),
    ductLoad: state.ductLoad,
    configuration: state.configuration,
    isBaseline: state.isBaseline,
    bagState: state.bagState,
    afterChangeId: props.correcting ? props.correcting.afterChangeId : props.afterChangeId,
    note: state.note,
    ...(props.correcting ? { supersedesId: props.correcting.id, correctionReason: state.correctionReason } : {}),
  };
};

/** The state of the pad, and its record when it is sent. */
export const useMeasure = (props: MeasureProps) => {
  const { machine, correcting, afterChangeId, method } = props;
  const [state, dispatch] = useReducer(measureReducer, props, (p): MeasureState => {
    const start = {
      machine: p.machine,
      units: p.units,
      by: p.by,
      clientId: p.clientId,
      afterChangeId: p.afterChangeId,
      previous: p.previous,
    };
    return p.correcting ? stateOfRecord(p.correcting, start) : startState(start);
  });
  const place = useMemo(() => ({ tag: machine.tag, afterChangeId }), [machine.tag, afterChangeId]);
  const restored = useRef(false);

  useEffect(() => {
    // The server does not know the draft, so it replaces the first drawing. A correction starts from its record.
    const draft = correcting ? null : readDraft(place);
    if (draft) dispatch({ type: 'restored', state: draft });
    if (method) dispatch({ type: 'method', method });
    restored.current = true;
    document.documentElement.dataset['measure'] = 'ready';
  }, [correcting, place, method]);

  useEffect(() => {
    if (restored.current && !correcting) keepDraft(place, state);
  }, [state, correcting, place]);

  const send = async () => {
    dispatch({ type: 'sending' });
    const base = `/api/machines/${encodeURIComponent(machine.tag)}/tests`;
    const posted = await postAction(correcting ? `${base}/correct` : base, bodyOf(state, props));
    if (!posted.ok) {
      dispatch({ type: 'refused', problems: posted.problems });
      return;
    }
    setChoice('mw_by', state.by.trim().toUpperCase());
    dropDraft(place);
    restored.current = false;
    const change = props.afterChangeId;
    window.location.assign(
      change !== null && !correcting
        ? `/m/${machine.tag}/changes/${change}`
        : `/m/${machine.tag}/file?saved=test-${posted.reply.id}`,
    );
  };
  const startOver = () => {
    if (!window.confirm('Clear every reading typed here?')) return;
    dropDraft(place);
    dispatch({ type: 'restored', state: startState({ ...props, clientId: newClientId() }) });
  };
  return { state, dispatch, send, startOver };
};
