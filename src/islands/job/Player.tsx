import { InitialsField } from '@/ui/text-fields';
import { ArrowLeft } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { JobEvent } from '@/core/procedure/job-log';
import { PROOF_CHECKS, provedBy } from '@/core/procedure/step';
import { FieldProblems } from '@/ui/problems';
import { Photos } from './Photos';
import { End } from './End';
import { type PlayerProps } from './player-props';
import { StepCard } from './StepCard';

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
      const plain = step && step.check === undefined && provedBy(step) === null;
      const action: JobEvent | null =
        step?.check && event.key === 'y'
          ? { kind: 'answered', step: state.at, right: true, note: '' }
          : step?.check && !PROOF_CHECKS.has(step.check) && event.key === 'n'
            ? { kind: 'answered', step: state.at, right: false, note: '' }
            : plain && event.key === 'Enter'
              ? { kind: 'did', step: state.at }
              : event.key === 'b' && state.at > 0
                ? { kind: 'back', step: state.at - 1 }
                : null;
      if (!action) return;
      event.preventDefault();
      act(action);
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
            Give up the job
          </button>
        </label>
      )}
      <div className="ml-auto">
        <InitialsField value={by} onValue={setBy} />
      </div>
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

/** One step at a time, large: its action, the state of the machine, its caution, a drawing, and the next step. */
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
