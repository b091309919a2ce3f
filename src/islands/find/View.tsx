import { TriangleAlert } from 'lucide-react';
import { useCallback, useEffect, useMemo, useReducer } from 'react';
import type { CaseAction, OpenCaseReply } from '@/contracts/find';
import { type CaseRecord, caseState } from '@/core/diagnose/case-log';
import { VAIN_REPAIRS } from '@/core/diagnose/in-vain';
import { nextStep, type WhyThisTest } from '@/core/diagnose/next-step';
import { swappableStages } from '@/core/machine/swappable';
import type { CaseSetup } from '@/core/diagnose/case-setup';
import { subjectOf } from '@/core/diagnose/subject';
import { schoolAllowed, SCHOOLS } from '@/core/diagnose/next-test';
import { OPERATION_FACTS, sameOperation } from '@/core/diagnose/operation';
import type { StageDue } from '@/core/interval/due';
import type { Machine } from '@/core/machine/machine';
import type { UnitSystem } from '@/core/units';
import { COMPLAINT_WORDS, NOTHING_FITS, SCHOOL_WORDS } from '@/messages/find';
import { wordsOfTest } from '@/messages/find-tests';
import { HAZARD_WORDS } from '@/messages/words';
import { AirPathStrip } from '@/ui/air-path/strip';
import { FieldProblems } from '@/ui/problems';
import { CaseLog } from './CaseLog';
import { Causes, contradictionText } from './Causes';
import { CloseCard, HandOnCard } from './Ending';
import type { BenchPart, PresentedTest } from './parts';
import { FitFirstCard, RepairCard, SwapCard } from './Repair';
import { findReducer, startFind } from './state';
import { OtherTests, TestCard } from './TestCard';
import { useCase } from './use-case';
import { useFindings } from './use-findings';
import type { ShownPath } from '@/ui/air-path/shown-path';

interface FindProps {
  readonly machine: Machine;
  readonly due: readonly StageDue[];
  readonly view: ShownPath;
  readonly setup: CaseSetup;
  readonly open: OpenCaseReply;
  readonly before: Readonly<Record<string, number>>;
  readonly units: UnitSystem;
  readonly by: string;
}

/** The test that the technician picked, shown like the others. */
const pickedTest = (p: BenchPart): PresentedTest | null => {
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

const LEADS: Readonly<Record<Exclude<WhyThisTest, 'school'>, string>> = {
  picked: 'Your own choice',
  correction: 'Correction',
  asFound: 'First, as found',
  again: 'Measure again',
  best: 'Best next test',
};

/** Draws the one next step; the core decides which. */
const NextCard = (p: BenchPart) => {
  const { findings, state, ui, setup, machine } = p;
  const subject = useMemo(() => subjectOf(setup), [setup]);
  const step = nextStep({
    subject,
    state,
    findings,
    swappable: swappableStages(machine),
    picked: pickedTest(p),
    correcting: ui.correcting !== null,
    askOn: ui.askOn,
  });
  switch (step.kind) {
    case 'fitFirst':
      return <FitFirstCard {...p} position={step.position} />;
    case 'trial':
      return <SwapCard {...p} step={step.step} />;
    case 'test': {
      const lead = step.why === 'school' ? SCHOOL_WORDS[state.school][0] : LEADS[step.why];
      return <TestCard {...p} test={step.test} lead={lead} pending={step.isPending} />;
    }
    case 'choose':
      return <p className="panel p-3">Choose a test.</p>;
    case 'repair':
      return <RepairCard {...p} advice={step} />;
    case 'close':
      return <CloseCard {...p} doubtMinutes={step.doubtMinutes} />;
    case 'escalate':
      return <HandOnCard {...p} fault={step.fault} />;
  }
};

const Banners = (p: BenchPart) => {
  const { state, setup, findings, units, ui, doIt, machine } = p;
  const { stages } = setup.model;
  const clash = contradictionText(findings, state.progress.evidence, { stages, units });
  const { out } = state.progress.interventions;
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
      {findings.inVain >= VAIN_REPAIRS && !findings.back && (
        <div role="status" className="border-l-4 pl-2" style={{ borderColor: 'var(--color-error)' }}>
          <p className="tone-stop font-semibold">{NOTHING_FITS.sentence}</p>
          <p className="font-semibold">{NOTHING_FITS.caution}</p>
          <p>{NOTHING_FITS.look}</p>
        </div>
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
          {Object.keys(setup.baselines).length > 0
            ? 'Its baselines do not fit the model of its air path: its readings count for less.'
            : 'No baseline of its own: on typical figures every reading counts for less, by about a fifth of its size.'}
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
        <option key={s} value={s} disabled={!schoolAllowed(s, record.hazard)}>
          {SCHOOL_WORDS[s][0]}
          {!schoolAllowed(s, record.hazard) ? ' (plain dust only)' : ''}
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

/** An open case: the suspicion on every stage, the next test, the log, and the way to the repair. */
export const CaseBench = (p: CaseBenchProps) => {
  const [ui, dispatch] = useReducer(findReducer, p.by, startFind);
  const { reply, doIt } = useCase(p.machine.tag, p.open, dispatch);
  const record = reply.record ?? p.record;
  const state = useMemo(() => caseState(record), [record]);
  const { findings, share, problems } = useFindings(p.setup, state, record.words);
  const act = useCallback((action: CaseAction) => void doIt(action, ui.by), [doIt, ui.by]);
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
          Working out every fault this machine can have, alone and in pairs...
        </p>
      )}
    </div>
  );
};
