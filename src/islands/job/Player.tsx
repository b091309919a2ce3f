import { ArrowLeft, Hand, ShieldAlert } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { OpenJobReply } from '@/contracts/job';
import type { Machine } from '@/core/machine/machine';
import { handsOf } from '@/core/procedure/air-now';
import type { JobEvent, JobRecord, JobState } from '@/core/procedure/job-log';
import { PROOF_CHECKS, type Step } from '@/core/procedure/step';
import type { UnitSystem } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { RUN_SHORT } from '@/messages/job';
import { CAUTION_WORDS, CHECK_WORDS, IF_NOT, sayStepOf, thingAt, WHY_WORDS } from '@/messages/procedure';
import { FieldProblems } from '@/ui/problems';
import { QuantityField } from '@/ui/quantity-field';
import { SeatDrawing } from '@/ui/seat-drawing';
import { Drying } from './Drying';
import { Integrity } from './Integrity';
import { Photos } from './Photos';

export interface PlayerProps {
  readonly machine: Machine;
  readonly record: JobRecord;
  readonly state: JobState;
  readonly reply: OpenJobReply;
  readonly by: string;
  readonly setBy: (by: string) => void;
  readonly act: (event: JobEvent, partCode?: string) => void;
  readonly reload: () => void;
  readonly problems: readonly Problem[];
  readonly sending: boolean;
  readonly units: UnitSystem;
  readonly keysOn: boolean;
}

type Acting = Pick<PlayerProps, 'state' | 'act' | 'sending'>;

const stageAt = ({ machine, record }: Pick<PlayerProps, 'machine' | 'record'>, position: number | null) =>
  position === null
    ? null
    : (machine.stages.find((s) => s.id === record.stages[position]?.id) ?? machine.stages[position] ?? null);
const nameAt = (p: Pick<PlayerProps, 'machine' | 'record'>, position: number | null): string => {
  const stage = stageAt(p, position);
  return position === null ? 'machine' : stage ? thingAt(stage) : (p.record.stages[position]?.name ?? 'stage');
};

/** Left out, with its reason on record. */
const LeaveOut = ({
  act,
  sending,
  step,
  word,
}: Pick<Acting, 'act' | 'sending'> & { readonly step: number; readonly word: string }) => {
  const [because, setBecause] = useState('');
  const [leaving, setLeaving] = useState(false);
  if (!leaving)
    return (
      <button type="button" className="choice mt-2" onClick={() => setLeaving(true)}>
        {word}
      </button>
    );
  return (
    <div className="mt-2 flex items-end gap-2">
      <label className="block flex-1">
        <span className="caption">Why is it left out? It is recorded.</span>
        <input className="field" value={because} maxLength={300} onChange={(e) => setBecause(e.currentTarget.value)} />
      </label>
      <button
        type="button"
        className="choice font-semibold"
        disabled={sending || because.trim() === ''}
        onClick={() => act({ kind: 'leftOut', step, because })}
      >
        Leave it out
      </button>
    </div>
  );
};

/** A check as a question: right, not right, or left out with its reason; nothing is taken as seen beforehand. */
const Answer = ({ state, act, sending, step, turns }: Acting & { readonly step: number; readonly turns: boolean }) => (
  <>
    {state.wrong === step && (
      <p role="alert" className="tone-stop mt-2 font-bold">
        {IF_NOT[state.steps[step]?.check ?? 'seal1'] ?? 'Not right: put it right, then answer again.'}
      </p>
    )}
    <div className="mt-3 grid grid-cols-2 gap-1">
      <button
        type="button"
        className="go min-h-16 text-xl"
        disabled={sending}
        onClick={() => act({ kind: 'answered', step, right: true, note: '' })}
      >
        Yes
      </button>
      {turns ? (
        <button
          type="button"
          className="choice min-h-16 text-center font-bold"
          disabled={sending}
          onClick={() => act({ kind: 'turnedBack', step })}
        >
          No: put the old one back
        </button>
      ) : (
        <button
          type="button"
          className="choice min-h-16 text-center text-xl font-bold"
          disabled={sending}
          onClick={() => act({ kind: 'answered', step, right: false, note: '' })}
        >
          No
        </button>
      )}
    </div>
    <LeaveOut act={act} sending={sending} step={step} word="I cannot look" />
  </>
);

/** A part from the shelf: its code may be read off the pack, and a wrong one is refused. */
const Take = ({ p, step, at }: { readonly p: PlayerProps; readonly step: Step; readonly at: number }) => {
  const [code, setCode] = useState('');
  const part = stageAt(p, step.stage)?.part;
  return (
    <div className="mt-3 flex flex-wrap items-end gap-2">
      <label className="block w-48">
        <span className="caption">Code on the pack (may be empty)</span>
        <input
          className="field"
          value={code}
          maxLength={40}
          placeholder={part?.code ?? ''}
          autoComplete="off"
          onChange={(e) => setCode(e.currentTarget.value)}
        />
      </label>
      <button
        type="button"
        className="go min-h-16 flex-1 text-xl"
        disabled={p.sending}
        onClick={() => p.act({ kind: 'did', step: at }, code)}
      >
        Taken
      </button>
    </div>
  );
};

const Prove = ({ p, step, at }: { readonly p: PlayerProps; readonly step: Step; readonly at: number }) => {
  const stage = stageAt(p, step.stage);
  const standing = p.reply.integrity.find((i) => i.stageId === stage?.id);
  const screening = standing !== undefined && standing.due.length > 0;
  return (
    <div className="mt-2">
      {standing && <Integrity machine={p.machine} standing={standing} by={p.by} onDone={p.reload} />}
      {!standing && <p className="tone-good text-lg font-bold">Screened and proven.</p>}
      {standing && !screening && (
        <p className="text-lg font-bold">
          Screened. The job can end; the class wording waits for the penetration test.
        </p>
      )}
      <button
        type="button"
        className="go mt-3 min-h-16 w-full text-xl"
        disabled={p.sending || screening}
        onClick={() => p.act({ kind: 'did', step: at })}
      >
        Done
      </button>
      {screening && <LeaveOut act={p.act} sending={p.sending} step={at} word="Cannot be done here" />}
    </div>
  );
};

const linkOf = (
  { machine, record, reply }: PlayerProps,
  { key }: Step,
): { readonly href: string; readonly word: string } | null => {
  const base = `/m/${encodeURIComponent(machine.tag)}`;
  const after = reply.changeIds.at(-1);
  if (key === 'measureAfter')
    return { href: `${base}/measure${after === undefined ? '' : `?after=${after}`}`, word: 'Measure now' };
  if (key === 'measureBaseline') return { href: `${base}/measure`, word: 'Measure the baseline' };
  return key === 'proveIndicator' && record.procedure.id === 'indicatorCheck'
    ? { href: `${base}/indicator`, word: 'Hole of the disc' }
    : null;
};

const Doing = ({ p, step, at }: { readonly p: PlayerProps; readonly step: Step; readonly at: number }) => {
  if (step.check === 'dry' && p.state.driesUntil !== null) {
    return (
      <>
        <Drying until={p.state.driesUntil} now={p.reply.now} />
        {p.reply.now < p.state.driesUntil ? (
          <LeaveOut act={p.act} sending={p.sending} step={at} word="It is dry sooner" />
        ) : (
          <Answer state={p.state} act={p.act} sending={p.sending} step={at} turns={false} />
        )}
      </>
    );
  }
  if (step.check !== undefined)
    return (
      <Answer
        state={p.state}
        act={p.act}
        sending={p.sending}
        step={at}
        turns={PROOF_CHECKS.has(step.check) && p.record.procedure.turnBack.length > 0}
      />
    );
  if (step.moves === 'takeNew') return <Take p={p} step={step} at={at} />;
  if (step.key === 'integrityTest') return <Prove p={p} step={step} at={at} />;
  const link = linkOf(p, step);
  return (
    <div className="mt-3 flex gap-2">
      {link && (
        <a className="choice inline-flex min-h-16 items-center text-lg font-bold" href={link.href}>
          {link.word}
        </a>
      )}
      <button
        type="button"
        className="go min-h-16 flex-1 text-xl"
        disabled={p.sending}
        onClick={() => p.act({ kind: 'did', step: at })}
      >
        Done
      </button>
    </div>
  );
};

const StepCard = ({ p, step }: { readonly p: PlayerProps; readonly step: Step }) => {
  const { state, record } = p;
  const next = state.steps[state.at + 1];
  const stage = stageAt(p, step.stage);
  const name = nameAt(p, step.stage);
  return (
    <section className="panel mt-2 p-4" aria-labelledby="step">
      <p className="caption flex flex-wrap gap-x-4">
        <span className="dial text-base">
          {state.at + 1} of {state.steps.length}
        </span>
        <span>{RUN_SHORT[step.run]}</span>
        <span>why: {WHY_WORDS[step.because]}</span>
        {record.people === 2 && (
          <span className="inline-flex items-center gap-1">
            <Hand size={16} aria-hidden="true" /> {handsOf(step)} hands
            {handsOf(step) === 'dirty' && step.moves === 'bagOld' ? '; clean hands hold the bag open' : ''}
          </span>
        )}
      </p>
      <h2 id="step" className="mt-1 text-2xl leading-tight font-bold sm:text-3xl">
        {sayStepOf(step, name, record.procedure.id)}
      </h2>
      {step.check && step.key !== 'check' && step.key !== 'proveIndicator' && (
        <p className="text-lg font-semibold">{CHECK_WORDS[step.check]}</p>
      )}
      {step.caution && (
        <p className="tone-watch mt-2 flex items-center gap-2 text-lg font-semibold">
          <ShieldAlert size={24} aria-hidden="true" className="shrink-0" /> {CAUTION_WORDS[step.caution]}
        </p>
      )}
      {stage && <SeatDrawing step={step} fit={stage.spec.fit} />}
      <Doing p={p} step={step} at={state.at} />
      {next && <p className="soft mt-2 text-sm">Then: {sayStepOf(next, nameAt(p, next.stage), record.procedure.id)}</p>}
    </section>
  );
};

const End = ({ p }: { readonly p: PlayerProps }) => {
  const [wasteKg, setWasteKg] = useState<number | null>(null);
  const [bad, setBad] = useState(false);
  const { state } = p;
  const wasted = state.moves.some((m) => m.move === 'disposeOld');
  return (
    <section className="panel mt-2 p-4" aria-labelledby="step" style={{ borderLeft: '6px solid var(--color-success)' }}>
      <h2 id="step" className="text-2xl font-bold">
        All steps are done
      </h2>
      <p>
        {state.leftOut.size === 0
          ? 'Every check was seen.'
          : `${state.leftOut.size} left out: ${[...state.leftOut.values()].join('; ')}.`}
      </p>
      <div className="mt-3 flex flex-wrap items-end gap-2">
        {wasted && (
          <div className="w-40">
            <QuantityField
              id="waste"
              label="Waste, if weighed"
              kind="mass"
              valueSi={wasteKg}
              units={p.units}
              low={0.001}
              high={500}
              mayBeEmpty
              onValue={setWasteKg}
              onBad={(_, isBad) => setBad(isBad)}
            />
          </div>
        )}
        <button
          type="button"
          className="go min-h-16 flex-1 text-xl"
          disabled={p.sending || bad}
          onClick={() => p.act({ kind: 'finished', wasteKg })}
        >
          Finish, and see the report
        </button>
      </div>
    </section>
  );
};

/** y and n answer, Enter ticks off, b goes back: only where a button says the same. */
const useKeys = ({ state, act, sending, keysOn }: PlayerProps): void => {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement &&
        ['INPUT', 'TEXTAREA', 'SELECT', 'BUTTON', 'A'].includes(event.target.tagName) &&
        !(event.target.tagName === 'BUTTON' && event.key !== 'Enter');
      if (!keysOn || sending || typing || event.ctrlKey || event.metaKey || event.altKey) return;
      const step = state.steps[state.at];
      const plain = step && step.check === undefined && step.key !== 'integrityTest';
      const deed: JobEvent | null =
        step?.check && event.key === 'y'
          ? { kind: 'answered', step: state.at, right: true, note: '' }
          : step?.check && !PROOF_CHECKS.has(step.check) && event.key === 'n'
            ? { kind: 'answered', step: state.at, right: false, note: '' }
            : plain && event.key === 'Enter'
              ? { kind: 'did', step: state.at }
              : event.key === 'b' && state.at > 0
                ? { kind: 'back', step: state.at - 1 }
                : null;
      if (!deed) return;
      event.preventDefault();
      act(deed);
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [state, act, sending, keysOn]);
};

const Foot = (p: PlayerProps) => {
  const { state, act, sending, by, setBy } = p;
  const [giving, setGiving] = useState('');
  const step = state.steps[state.at];
  return (
    <div className="mt-2 flex flex-wrap items-end gap-2">
      {state.at > 0 && (
        <button
          type="button"
          className="choice inline-flex items-center gap-1"
          disabled={sending}
          onClick={() => act({ kind: 'back', step: state.at - 1 })}
        >
          <ArrowLeft size={16} aria-hidden="true" /> One step back
        </button>
      )}
      {step && <Photos tag={p.machine.tag} record={p.record} step={state.at} by={by} onKept={p.reload} />}
      {state.open.length === 0 && state.driesUntil === null && step && (
        <label className="flex items-end gap-1">
          <span className="sr-only">Why is it given up?</span>
          <input
            className="field w-32"
            placeholder="reason"
            value={giving}
            maxLength={300}
            onChange={(e) => setGiving(e.currentTarget.value)}
          />
          <button
            type="button"
            className="choice"
            disabled={sending || giving.trim() === ''}
            onClick={() => act({ kind: 'abandoned', because: giving })}
          >
            Give it up
          </button>
        </label>
      )}
      <label className="ml-auto block w-20">
        <span className="caption">Initials</span>
        <input
          className="field"
          value={by}
          maxLength={12}
          autoComplete="off"
          onChange={(e) => setBy(e.currentTarget.value)}
        />
      </label>
      {by.trim().toUpperCase() !== state.holder && (
        <button
          type="button"
          className="choice font-semibold"
          disabled={sending || by.trim() === ''}
          onClick={() => act({ kind: 'tookOver' })}
        >
          {state.holder} has it in hand: take it over
        </button>
      )}
    </div>
  );
};

/** One step at a time, large: what, in which state of the machine, its caution, how it should look, and what comes next. */
export const Player = (p: PlayerProps) => {
  useKeys(p);
  const step = p.state.steps[p.state.at];
  return (
    <div className="mx-auto max-w-3xl pb-4">
      {step ? <StepCard p={p} step={step} /> : <End p={p} />}
      <FieldProblems id="job-problems" problems={p.problems} />
      <Foot {...p} />
    </div>
  );
};
