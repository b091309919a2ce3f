import { TriangleAlert } from 'lucide-react';
import { useCallback, useEffect, useMemo, useReducer } from 'react';
import type { CaseDeed, OpenCaseReply } from '@/contracts/find';
import type { PathView } from '@/core/calibrate/path-view';
import { backSinceTrial, type CaseRecord, caseState } from '@/core/diagnose/case-log';
import { benchOf, type CaseSetup } from '@/core/diagnose/case-setup';
import { measuresNow } from '@/core/diagnose/consult';
import { SCHOOLS } from '@/core/diagnose/next-test';
import { OPERATION_FACTS, sameOperation } from '@/core/diagnose/operation';
import { swapStep } from '@/core/diagnose/swap-steps';
import type { Dust } from '@/core/dust/dust';
import type { StageDue } from '@/core/interval/due';
import type { Machine } from '@/core/machine/machine';
import type { UnitSystem } from '@/core/units';
import { COMPLAINT_WORDS, SCHOOL_WORDS, wordsOfTest } from '@/messages/find';
import { HAZARD_WORDS } from '@/messages/words';
import { AirPathStrip } from '@/ui/air-path/strip';
import { FieldProblems } from '@/ui/problems';
import { CaseLog } from './CaseLog';
import { Causes, contradictionText } from './Causes';
import { CloseCard, HandOnCard } from './Ending';
import { Opening } from './Opening';
import type { BenchPart, ToldTest } from './parts';
import { FitFirstCard, RepairCard, SwapCard } from './Repair';
import { findReducer, startFind } from './state';
import { OtherTests, TestCard } from './TestCard';
import { useCase } from './use-case';
import { useFindings } from './use-findings';

export interface FindProps {
  readonly machine: Machine;
  readonly due: readonly StageDue[];
  readonly view: PathView;
  readonly setup: CaseSetup;
  readonly open: OpenCaseReply;
  readonly before: Readonly<Record<string, number>>;
  readonly units: UnitSystem;
  readonly by: string;
  readonly ownDusts: readonly Dust[];
}

/** A test the technician picked, told as the others are. */
const pickedTest = (p: BenchPart): ToldTest | null => {
  const { picked } = p.ui;
  if (!picked) return null;
  const { advice, schoolTest, others } = p.findings;
  const known = [...(advice.kind === 'test' ? [advice.test] : []), ...(schoolTest ? [schoolTest] : []), ...others].find(
    (t) => sameOperation(t.operation, picked),
  );
  // A line being corrected is of a test already done: it is no longer among the proposed ones.
  return (
    known ?? {
      operation: picked,
      bits: 0,
      saves: 0,
      minutes: OPERATION_FACTS[picked.kind].minutes,
      exposure: OPERATION_FACTS[picked.kind].exposure,
      soundSi: null,
      words: [...wordsOfTest(picked)],
    }
  );
};

/** What is to be done now: the swap step, a picked test, the school's, the advised test, repair, closing or handing on. */
const NextCard = (p: BenchPart) => {
  const { findings, state, ui, setup, machine } = p;
  const bench = useMemo(() => benchOf(setup), [setup]);
  const pending = measuresNow(bench, state.progress).pending;
  // A new part on trial moves the shelf, whoever proposed it: it goes in by the same step as in the swap school.
  const card = (test: ToldTest, lead: string) =>
    test.operation.kind === 'swap' ? (
      <SwapCard {...p} step={{ kind: 'fit', position: test.operation.position }} />
    ) : (
      <TestCard {...p} test={test} lead={lead} pending={pending !== null && sameOperation(pending, test.operation)} />
    );
  if (findings.advice.kind === 'fitFirst') return <FitFirstCard {...p} position={findings.advice.position} />;
  const picked = pickedTest(p);
  if (picked) return card(picked, ui.correcting === null ? 'Your own choice' : 'Correction');
  const { advice, schoolTest } = findings;
  const swapping = state.school === 'swap' || state.trials.length > 0;
  if (swapping && !ui.askOn && !(pending !== null && state.progress.evidence.length === 0)) {
    const order = machine.stages.flatMap((s, i) =>
      s.spec.air.form === 'medium' && !s.missing && s.kind !== 'gas' && s.part ? [i] : [],
    );
    const step = swapStep({
      order,
      trials: state.trials,
      failed: state.failedTrials,
      back: state.trials.length === 0 ? null : backSinceTrial(state, bench),
    });
    if (step.kind !== 'watch' && step.kind !== 'none' && !(findings.back && state.trials.length === 0))
      return <SwapCard {...p} step={step} />;
  }
  if (advice.kind === 'test' && pending !== null && sameOperation(pending, advice.test.operation))
    return card(advice.test, state.progress.evidence.length === 0 ? 'First, as found' : 'Measure again');
  if (schoolTest && state.school !== 'swap' && !findings.back && advice.kind === 'test')
    return card(schoolTest, SCHOOL_WORDS[state.school][0]);
  if (ui.askOn && advice.kind !== 'test') return <p className="panel p-3">Choose the test you would rather make.</p>;
  switch (advice.kind) {
    case 'test':
      return card(advice.test, 'Best next test');
    case 'repair':
      return <RepairCard {...p} advice={advice} />;
    case 'close':
      return <CloseCard {...p} doubtMinutes={advice.doubtMinutes} />;
    case 'escalate':
      return <HandOnCard {...p} fault={advice.fault} />;
  }
};

const Banners = (p: BenchPart) => {
  const { state, setup, findings, units, ui, doIt, machine } = p;
  const { stages } = setup.model;
  const clash = contradictionText(findings, state.progress.evidence, { stages, units });
  const { out } = state.progress.handling;
  return (
    <>
      {clash && (
        <p
          role="status"
          className="tone-stop flex items-start gap-2 border-l-4 pl-2 font-semibold"
          style={{ borderColor: 'var(--color-error)' }}
        >
          <TriangleAlert size={20} aria-hidden="true" className="mt-0.5 shrink-0" /> <span>{clash}</span>
        </p>
      )}
      {out.map((position) => (
        <p
          key={position}
          className="tone-watch flex flex-wrap items-center gap-2 border-l-4 pl-2 font-semibold"
          style={{ borderColor: 'var(--color-warning)' }}
        >
          <span>Out of the machine: {stages[position]?.name}.</span>
          <button
            type="button"
            className="choice px-3 font-semibold"
            disabled={ui.sending}
            onClick={() => doIt({ kind: 'putBack', position })}
          >
            It is back in
          </button>
          <a className="underline" href={`/m/${encodeURIComponent(machine.tag)}/edit`}>
            It stays out: record it as missing
          </a>
        </p>
      ))}
      {!setup.calibrated && (
        <p className="soft text-sm">
          No baseline of its own: on typical figures every reading counts for less, by about a fifth of its size.
        </p>
      )}
    </>
  );
};

const SchoolSwitch = ({ state, ui, doIt, record }: BenchPart) => (
  <label className="flex items-center gap-2 text-sm">
    <span className="caption">Order of tests</span>
    <select
      className="field w-auto py-1"
      value={state.school}
      disabled={ui.sending}
      onChange={(e) => doIt({ kind: 'school', school: SCHOOLS.find((s) => s === e.currentTarget.value) ?? 'best' })}
    >
      {SCHOOLS.map((s) => (
        <option key={s} value={s} disabled={s === 'takeOut' && record.hazard !== 'plain'}>
          {SCHOOL_WORDS[s][0]}
          {s === 'takeOut' && record.hazard !== 'plain' ? ' (plain dust only)' : ''}
        </option>
      ))}
    </select>
  </label>
);

const Weighing = ({ share }: { readonly share: number }) =>
  share >= 1 ? null : (
    <progress className="progress progress-primary h-1 w-full" value={share} max={1} aria-label="Weighing the causes" />
  );

interface CaseBenchProps extends FindProps {
  readonly record: CaseRecord;
}

const CaseBench = (p: CaseBenchProps) => {
  const [ui, dispatch] = useReducer(findReducer, p.by, startFind);
  const { reply, doIt } = useCase(p.machine.tag, p.open, dispatch);
  const record = reply.record ?? p.record;
  const state = useMemo(() => caseState(record), [record]);
  const { findings, share, problems } = useFindings(p.setup, state, record.words);
  const act = useCallback((deed: CaseDeed) => void doIt(deed, ui.by), [doIt, ui.by]);
  useEffect(() => {
    document.documentElement.dataset['find'] = findings && share >= 1 && !ui.sending ? 'ready' : 'busy';
  }, [findings, share, ui.sending]);
  const part: BenchPart | null = findings && {
    machine: p.machine,
    setup: p.setup,
    record,
    state,
    changes: reply.changes,
    findings,
    units: p.units,
    ui: share >= 1 ? ui : { ...ui, sending: true },
    dispatch,
    doIt: act,
    before: p.before,
  };
  return (
    <div>
      <AirPathStrip
        compact
        view={p.view}
        units={p.units}
        machine={p.machine}
        due={p.due}
        suspicion={findings?.stages}
      />
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 pt-2">
        <p className="min-w-0 font-bold max-lg:basis-full lg:flex-1">
          {COMPLAINT_WORDS[record.complaint][0]}
          {record.words && <span className="font-normal">: {record.words}</span>}
          <span className="soft font-normal">
            {' '}
            · {record.lastCollected}, {HAZARD_WORDS[record.hazard]} work
          </span>
        </p>
        {part && <SchoolSwitch {...part} />}
        <label className="flex items-center gap-2 text-sm">
          <span className="caption">Initials</span>
          <input
            className="field w-20 py-1"
            value={ui.by}
            maxLength={12}
            autoComplete="off"
            onChange={(e) => dispatch({ type: 'by', value: e.currentTarget.value })}
          />
        </label>
      </div>
      <Weighing share={share} />
      <FieldProblems id="weighing-problems" problems={problems} />
      {part ? (
        <div className="grid gap-x-6 gap-y-3 py-2 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
          <div className="min-w-0 space-y-3">
            <Banners {...part} />
            <NextCard {...part} />
            <OtherTests {...part} />
          </div>
          <Causes {...part} />
          <div className="min-w-0 lg:col-span-2">
            <CaseLog {...part} />
          </div>
        </div>
      ) : (
        <p className="soft py-6" role="status">
          Every fault this path can have, alone and in twos, is being solved through it...
        </p>
      )}
    </div>
  );
};

/** The bench's Find: the complaint, the suspicion on every stage, the next test, the log, and the way to the repair. */
export const Find = (props: FindProps) => {
  const { record } = props.open;
  if (record) return <CaseBench {...props} record={record} />;
  return (
    <div>
      <AirPathStrip compact view={props.view} units={props.units} machine={props.machine} due={props.due} />
      <Opening machine={props.machine} by={props.by} ownDusts={props.ownDusts} />
    </div>
  );
};
