import { ArrowLeft, ShieldAlert } from 'lucide-react';
import { useState } from 'react';
import type { Machine } from '@/core/machine/machine';
import type { JobEvent, JobRecord, JobState } from '@/core/procedure/job-log';
import type { Problem } from '@/messages/failures';
import { CAUTION_WORDS, RUN_WORDS, sayStepOf, WHY_WORDS } from '@/messages/procedure';
import { FieldProblems } from '@/ui/problems';

interface PlayerProps {
  readonly machine: Machine;
  readonly record: JobRecord;
  readonly state: JobState;
  readonly by: string;
  readonly setBy: (by: string) => void;
  readonly act: (event: JobEvent) => void;
  readonly problems: readonly Problem[];
  readonly sending: boolean;
}

const nameOf = (machine: Machine, stage: number | null): string => (stage === null ? 'machine' : (machine.stages[stage]?.name ?? 'stage'));

/** A check as a question: right, not right, or left out with its reason. */
const Answer = ({ state, act, sending, step }: Pick<PlayerProps, 'state' | 'act' | 'sending'> & { readonly step: number }) => {
  const [because, setBecause] = useState('');
  const [leaving, setLeaving] = useState(false);
  return (
    <>
      {state.wrong === step && <p className="tone-stop mt-2 font-bold">Not right: put it right, then answer again.</p>}
      <div className="mt-3 grid grid-cols-2 gap-1">
        <button type="button" className="go min-h-16 text-xl" disabled={sending} onClick={() => act({ kind: 'answered', step, right: true, note: '' })}>Yes</button>
        <button type="button" className="choice min-h-16 text-center text-xl font-bold" disabled={sending} onClick={() => act({ kind: 'answered', step, right: false, note: '' })}>No</button>
      </div>
      {leaving ? (
        <div className="mt-2 flex items-end gap-2">
          <label className="block flex-1">
            <span className="caption">Why is it left out? It is recorded.</span>
            <input className="field" value={because} maxLength={300} onChange={(e) => setBecause(e.currentTarget.value)} />
          </label>
          <button type="button" className="choice font-semibold" disabled={sending || because.trim() === ''} onClick={() => act({ kind: 'leftOut', step, because })}>Leave it out</button>
        </div>
      ) : (
        <button type="button" className="choice mt-2" onClick={() => setLeaving(true)}>I cannot look</button>
      )}
    </>
  );
};

const End = ({ act, sending, state }: Pick<PlayerProps, 'act' | 'sending' | 'state'>) => (
  <section className="panel mt-2 p-4" aria-labelledby="step" style={{ borderLeft: '6px solid var(--color-success)' }}>
    <h2 id="step" className="text-2xl font-bold">All steps are done</h2>
    <p>{state.leftOut.size === 0 ? 'Every check was seen.' : `${state.leftOut.size} left out: ${[...state.leftOut.values()].join('; ')}.`}</p>
    <button type="button" className="go mt-3 min-h-16 w-full text-xl" disabled={sending} onClick={() => act({ kind: 'finished' })}>Finish, and write it into the file</button>
  </section>
);

const Holder = ({ by, setBy, state, act, sending }: Pick<PlayerProps, 'by' | 'setBy' | 'state' | 'act' | 'sending'>) => (
  <div className="mt-3 flex flex-wrap items-end gap-2">
    <label className="block w-24">
      <span className="caption">Initials</span>
      <input className="field" value={by} maxLength={12} autoComplete="off" onChange={(e) => setBy(e.currentTarget.value)} />
    </label>
    {by.trim().toUpperCase() !== state.holder && <button type="button" className="choice font-semibold" disabled={sending || by.trim() === ''} onClick={() => act({ kind: 'tookOver' })}>{state.holder} has it in hand: take it over</button>}
  </div>
);

/** One step at a time, large: what, in which state of the machine, its caution, and what comes next. */
export const Player = (p: PlayerProps) => {
  const { machine, record, state, act, sending } = p;
  const [giving, setGiving] = useState('');
  const { steps } = record.procedure;
  const step = steps[state.at];
  const next = steps[state.at + 1];
  return (
    <div className="mx-auto max-w-3xl">
      {step ? (
        <section className="panel mt-2 p-4" aria-labelledby="step">
          <p className="caption flex flex-wrap gap-x-4">
            <span className="dial text-base">{state.at + 1} of {steps.length}</span>
            <span>machine {RUN_WORDS[step.run]}</span>
            <span>why: {WHY_WORDS[step.because]}</span>
          </p>
          <h2 id="step" className="mt-1 text-2xl leading-tight font-bold sm:text-3xl">{sayStepOf(step, nameOf(machine, step.stage))}</h2>
          {step.caution && (
            <p className="tone-watch mt-2 flex items-center gap-2 text-lg font-semibold"><ShieldAlert size={24} aria-hidden="true" className="shrink-0" /> {CAUTION_WORDS[step.caution]}</p>
          )}
          {step.check === undefined ? (
            <button type="button" className="go mt-3 min-h-16 w-full text-xl" disabled={sending} onClick={() => act({ kind: 'did', step: state.at })}>Done</button>
          ) : (
            <Answer state={state} act={act} sending={sending} step={state.at} />
          )}
          {next && <p className="soft mt-2 text-sm">Then: {sayStepOf(next, nameOf(machine, next.stage))}</p>}
        </section>
      ) : (
        <End act={act} sending={sending} state={state} />
      )}
      <FieldProblems id="job-problems" problems={p.problems} />
      <div className="mt-2 flex flex-wrap gap-1">
        {state.at > 0 && <button type="button" className="choice inline-flex items-center gap-1" disabled={sending} onClick={() => act({ kind: 'back', step: state.at - 1 })}><ArrowLeft size={16} aria-hidden="true" /> One step back</button>}
        {state.open.length === 0 && step && (
          <label className="flex items-end gap-1">
            <span className="sr-only">Why is it given up?</span>
            <input className="field w-44" placeholder="reason" value={giving} maxLength={300} onChange={(e) => setGiving(e.currentTarget.value)} />
            <button type="button" className="choice" disabled={sending || giving.trim() === ''} onClick={() => act({ kind: 'abandoned', because: giving })}>Give it up</button>
          </label>
        )}
      </div>
      <Holder {...p} />
    </div>
  );
};
