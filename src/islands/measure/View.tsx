import { type ComponentProps, type Dispatch, useRef, useState } from 'react';
import type { FailureCode } from '@/core/failure/failure';
import type { MachineAirPath } from '@/core/machine/machine';
import { parseDetail } from '@/core/measure/detail-entry';
import { METHODS, preconditionsFor } from '@/core/measure/methods';
import type { Instrument } from '@/core/record/records';
import { type Problem, problemsOf } from '@/messages/failures';
import { AirPathStrip } from '@/ui/air-path/strip';
import { ProbePicture } from '@/ui/probe-picture';
import { FieldProblems, problemsAt } from '@/ui/problems';
import { RigAndAir } from './Details';
import { Sign, WhoAndWhen } from './Finish';
import { Pad } from './Pad';
import { ListenButton, Meter } from './Meter';
import { MethodFields } from './MethodFields';
import { readingsOf } from './pads';
import { MethodChoice, MethodSheet, PlaceChoice, Preconditions } from './SetUp';
import { type MeasureAction, type MeasureState } from './state';
import { useJudge } from './use-judge';
import { Verdict } from './Verdict';
import { type MeasureProps, useMeasure } from './use-measure';

const KNOWN_FIELDS = [
  'readings',
  'bore',
  'hoseBore',
  'air',
  'volts',
  'wheel',
  'detail',
  'profileFactor',
  'instrumentId',
  'performedAt',
  'by',
  'correctionReason',
];

/** The stage that the method at hand is held to, and the new weight it is judged against. */
const aboutStage = (state: MeasureState, machine: MachineAirPath) => {
  const entry = state.details[state.method];
  const stageId = 'stageId' in entry ? entry.stageId : null;
  const parsed = entry.kind === 'mass' ? parseDetail(entry) : null;
  return {
    stageId,
    stageName: machine.stages.find((s) => s.id === stageId)?.name ?? 'stage',
    newMassKg: parsed?.ok && parsed.value.kind === 'mass' ? parsed.value.newMassKg : null,
  };
};

interface FoldedProps {
  readonly state: MeasureState;
  readonly dispatch: Dispatch<MeasureAction>;
  readonly problems: readonly Problem[];
  readonly correcting: boolean;
  readonly instruments: readonly Instrument[];
  readonly today: string;
}

/** Settings that carry over or change rarely, folded away until one has a problem. */
const Folded = ({ instruments, today, ...common }: FoldedProps) => (
  <div className="grid gap-4 lg:grid-cols-[minmax(0,4fr)_minmax(0,5fr)]">
    <details
      open={common.problems.some((p) => !p.path.startsWith('readings')) || common.correcting || undefined}
      className="panel px-3"
    >
      <summary className="flex min-h-11 cursor-pointer items-center font-semibold">Rig, hose, air and use</summary>
      <div className="pb-3">
        <RigAndAir {...common} instruments={instruments} today={today} />
      </div>
    </details>
    <details open={common.correcting || undefined} className="panel px-3">
      <summary className="flex min-h-11 cursor-pointer items-center font-semibold">
        When, state, configuration, baseline, note
      </summary>
      <div className="pb-3">
        <WhoAndWhen {...common} />
      </div>
    </details>
  </div>
);

/** Not wrong, only not whole yet: said where the verdict will be, not as a fault of a field. */
const WAITING: ReadonlySet<string> = new Set<FailureCode>([
  'traverse.incomplete',
  'particles.both',
  'curve.too-few',
  'readings.none',
]);

const STREAMING = new Set(['velocity', 'flow', 'pressure', 'count', 'voltage', 'current']);

const recordWords = (sending: boolean, correcting: boolean, questioned: boolean): string =>
  sending
    ? 'Recording...'
    : correcting
      ? 'Record the correction'
      : questioned
        ? 'Reading is right: record'
        : 'Record the test';

interface RecordBarProps extends ComponentProps<typeof Sign> {
  readonly loose: readonly Problem[];
  readonly ready: boolean;
  readonly questioned: boolean;
  readonly send: () => Promise<void>;
}

const RecordBar = ({ loose, ready, questioned, send, ...sign }: RecordBarProps) => (
  <div className="bg-base-100 border-base-300 board:bottom-0 sticky bottom-14 z-20 space-y-1 border-t py-2">
    <FieldProblems id="loose-problems" problems={loose} />
    <div className="flex items-start gap-2">
      <Sign {...sign} />
      <button
        type="button"
        className="go min-w-0 flex-1"
        disabled={sign.state.sending || !ready}
        onClick={() => void send()}
      >
        {recordWords(sign.state.sending, sign.correcting, questioned)}
      </button>
    </div>
  </div>
);

const PlaceAndMethod = (choosing: ComponentProps<typeof MethodChoice>) => (
  <div className="grid items-start gap-2 lg:grid-cols-[minmax(0,4fr)_minmax(0,5fr)]">
    <PlaceChoice state={choosing.state} dispatch={choosing.dispatch} />
    <div className="flex items-start gap-2">
      <ProbePicture method={choosing.state.method} />
      <div className="min-w-0 flex-1">
        <MethodChoice {...choosing} />
      </div>
    </div>
  </div>
);

/** The bench's Measure: place and method, preconditions, readings, verdict while typing, record. */
export const Measure = (props: MeasureProps) => {
  const { machine, units } = props;
  const { state, dispatch, send, startOver } = useMeasure(props);
  const padInput = useRef<HTMLInputElement>(null);
  const [listening, setListening] = useState(false);
  const [choosingMethod, setChoosingMethod] = useState(false);
  const wanted = preconditionsFor({ method: state.method, hasBrush: machine.hasBrush });
  const live = useJudge()({ ...props, state, wanted, excludeId: props.correcting?.id ?? null });
  const failures = live.form === 'nothing' ? live.failures : [];
  const waiting = problemsOf(failures.filter((f) => WAITING.has(f.code)));
  const problems = [...state.problems, ...problemsOf(failures.filter((f) => !WAITING.has(f.code)))];
  const loose = state.problems.filter((p) => !KNOWN_FIELDS.some((f) => p.path === f || p.path.startsWith(`${f}.`)));
  const unticked = wanted.some((p) => !state.ticked.includes(p));
  const { form, reads } = METHODS[state.method];
  const count = readingsOf(state).filter((r) => r.struckBecause === null).length;
  const ready = form === 'word' ? live.form !== 'nothing' && live.form !== 'loading' : count > 0;
  const correcting = props.correcting !== null;
  const common = { state, dispatch, problems, correcting };
  const choosing = { state, dispatch, open: choosingMethod, setOpen: setChoosingMethod };
  const { stageId, ...stage } = aboutStage(state, machine);
  return (
    <div>
      <AirPathStrip
        compact
        view={props.view}
        units={props.units}
        machine={machine}
        due={props.due}
        place={stageId === null ? state.place : null}
        openStageId={stageId}
      />
      <div className="space-y-2 pt-2 pb-3">
        <PlaceAndMethod {...choosing} />
        <MethodSheet {...choosing} />
        <div className="grid gap-4 lg:grid-cols-[minmax(0,4fr)_minmax(0,5fr)]">
          <div className="min-w-0 space-y-2">
            <MethodFields {...common} machine={machine} />
            {form !== 'word' && (
              <Pad
                state={state}
                dispatch={dispatch}
                problems={problemsAt(problems, 'readings')}
                input={padInput}
                system={units}
                aside={STREAMING.has(reads) && <ListenButton on={listening} setOn={setListening} />}
              />
            )}
            {STREAMING.has(reads) && form !== 'word' && (
              <Meter state={state} dispatch={dispatch} tag={machine.tag} units={units} on={listening} />
            )}
            <Preconditions state={state} dispatch={dispatch} wanted={wanted} />
          </div>
          <div className="panel p-3">
            <Verdict waiting={waiting} live={live} units={units} machine={machine} unticked={unticked} {...stage} />
          </div>
        </div>
        <Folded {...common} instruments={props.instruments} today={props.today} />
        <RecordBar
          {...common}
          loose={loose}
          ready={ready}
          questioned={live.form === 'series' && live.judged.question !== null}
          send={send}
        />
        {!correcting && count > 0 && (
          <button type="button" className="soft min-h-11 underline underline-offset-4" onClick={startOver}>
            Clear and start over
          </button>
        )}
      </div>
    </div>
  );
};
