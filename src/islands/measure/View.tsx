import { useEffect, useMemo, useReducer, useRef } from 'react';
import type { StageDue } from '@/core/interval/due';
import type { Machine } from '@/core/machine/machine';
import type { LossThresholds } from '@/core/measure/judge-baseline';
import { preconditionsFor } from '@/core/measure/methods';
import type { Instrument, TestRecord } from '@/core/record/records';
import type { UnitSystem } from '@/core/units';
import { problemsOf } from '@/messages/failures';
import { AirPathStrip } from '@/ui/air-path-strip';
import { setChoice } from '@/ui/cookies';
import { fromLocalField } from '@/ui/local-moment';
import { newClientId, postAction } from '@/ui/post-action';
import { FieldProblems, problemsAt } from '@/ui/problems';
import { RigAndAir } from './Details';
import { dropDraft, keepDraft, readDraft } from './draft';
import { Sign, WhoAndWhen } from './Finish';
import { liveResult } from './live';
import { Pad } from './Pad';
import { PlaceAndMethod, Preconditions } from './SetUp';
import { startState, stateOfRecord } from './start';
import { type MeasureState, measureReducer, readingsOf, toEntry } from './state';
import { Verdict } from './Verdict';

interface MeasureProps {
  readonly machine: Machine;
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
  /** Set when a record is being corrected. */
  readonly correcting: TestRecord | null;
}

const KNOWN_FIELDS = ['readings', 'bore', 'hoseBore', 'air', 'profileFactor', 'instrumentId', 'performedAt', 'by', 'correctionReason'];

const bodyOf = (state: MeasureState, props: MeasureProps) => {
  const wanted = preconditionsFor({ method: state.method, hasBrush: props.machine.hasBrush });
  return {
    ...toEntry(state, wanted),
    clientId: state.clientId,
    by: state.by.trim().toUpperCase(),
    performedAt: fromLocalField(state.when) ?? new Date().toISOString(),
    instrumentId: state.instrumentId,
    isBaseline: state.isBaseline,
    bagState: state.bagState,
    afterChangeId: props.correcting ? props.correcting.afterChangeId : props.afterChangeId,
    note: state.note,
    ...(props.correcting ? { supersedesId: props.correcting.id, correctionReason: state.correctionReason } : {}),
  };
};

const useMeasure = (props: MeasureProps) => {
  const { machine, correcting, afterChangeId } = props;
  const [state, dispatch] = useReducer(measureReducer, props, (p): MeasureState => {
    const start = { machine: p.machine, units: p.units, by: p.by, clientId: p.clientId, afterChangeId: p.afterChangeId, previous: p.previous };
    return p.correcting ? stateOfRecord(p.correcting, start) : startState(start);
  });
  const place = useMemo(() => ({ tag: machine.tag, afterChangeId }), [machine.tag, afterChangeId]);
  const restored = useRef(false);

  useEffect(() => {
    // The server cannot know the draft, so it is laid over the first drawing. A correction starts from its record.
    const draft = correcting ? null : readDraft(place);
    if (draft) dispatch({ type: 'restored', state: draft });
    restored.current = true;
    document.documentElement.dataset['measure'] = 'ready';
  }, [correcting, place]);

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
      change !== null && !correcting ? `/m/${machine.tag}/changes/${change}` : `/m/${machine.tag}/file?saved=test-${posted.reply.id}`,
    );
  };
  const startOver = () => {
    if (!window.confirm('Clear every reading typed here?')) return;
    dropDraft(place);
    dispatch({ type: 'restored', state: startState({ ...props, clientId: newClientId() }) });
  };
  return { state, dispatch, send, startOver };
};

/** The bench's Measure: place and method, preconditions, readings, verdict while typing, record. */
export const Measure = (props: MeasureProps) => {
  const { machine, units } = props;
  const { state, dispatch, send, startOver } = useMeasure(props);
  const padInput = useRef<HTMLInputElement>(null);
  const wanted = preconditionsFor({ method: state.method, hasBrush: machine.hasBrush });
  const live = liveResult({
    ...props,
    state,
    wanted,
    tests: props.tests,
    excludeId: props.correcting?.id ?? null,
  });
  const problems = [...state.problems, ...problemsOf(live.failures)];
  const loose = state.problems.filter((p) => !KNOWN_FIELDS.some((f) => p.path === f || p.path.startsWith(`${f}.`)));
  const unticked = wanted.some((p) => !state.ticked.includes(p));
  const count = readingsOf(state).filter((r) => r.struckBecause === null).length;
  const common = { state, dispatch, problems, correcting: props.correcting !== null };
  return (
    <div>
      <AirPathStrip machine={machine} due={props.due} place={state.place} />
      <div className="space-y-2 pt-2 pb-3">
        <PlaceAndMethod state={state} dispatch={dispatch} />
        <div className="grid gap-4 lg:grid-cols-[minmax(0,4fr)_minmax(0,5fr)]">
          <div className="space-y-2">
            <Pad state={state} dispatch={dispatch} problems={problemsAt(problems, 'readings')} input={padInput} />
            <Preconditions state={state} dispatch={dispatch} wanted={wanted} />
          </div>
          <div className="panel flex flex-col gap-3 p-3">
            <div className="flex-1">
              <Verdict live={live} units={units} kind={machine.kind} unticked={unticked} />
            </div>
          </div>
        </div>
        <div className="grid gap-4 lg:grid-cols-[minmax(0,4fr)_minmax(0,5fr)]">
          <details open={problems.length > 0 || props.correcting !== null || undefined} className="panel px-3">
            <summary className="flex min-h-11 cursor-pointer items-center font-semibold">Rig, hose and air</summary>
            <div className="pb-3">
              <RigAndAir {...common} instruments={props.instruments} today={props.today} />
            </div>
          </details>
          <details open={props.correcting !== null || undefined} className="panel px-3">
            <summary className="flex min-h-11 cursor-pointer items-center font-semibold">When, state, note, baseline</summary>
            <div className="pb-3">
              <WhoAndWhen {...common} />
            </div>
          </details>
        </div>
        <div className="bg-base-100 border-base-300 board:bottom-0 sticky bottom-14 z-20 space-y-1 border-t py-2">
          <FieldProblems id="loose-problems" problems={loose} />
          <div className="flex items-start gap-2">
            <Sign {...common} />
            <button type="button" className="go min-w-0 flex-1" disabled={state.sending || count === 0} onClick={() => void send()}>
              {state.sending ? 'Recording...' : props.correcting ? 'Record the correction' : live.question ? 'It did read that: record' : 'Record the test'}
            </button>
          </div>
        </div>
        {!props.correcting && count > 0 && (
          <button type="button" className="soft min-h-11 underline underline-offset-4" onClick={startOver}>
            Clear the pad and start over
          </button>
        )}
      </div>
    </div>
  );
};
