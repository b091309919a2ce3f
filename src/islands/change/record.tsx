import { ShieldAlert } from 'lucide-react';
import { type Machine } from '@/core/machine/machine';
import { sayCaution } from '@/messages/words';
import { FieldProblems } from '@/ui/problems';
import { type ChangeState } from './state';

const KNOWN = ['how', 'stageId', 'reason', 'partId', 'by', 'performedAt', 'correctionReason'];

/** The warning before a change: the machine's dust, and a link to the guided change. */
export const Warning = ({
  machine,
  stageId,
  guided,
}: {
  machine: Machine;
  stageId: number | null;
  guided: boolean;
}) => (
  <div className="mt-3 flex flex-wrap items-center gap-3">
    <p
      className="tone-watch flex min-w-0 flex-1 basis-72 items-start gap-2 border-l-4 pl-2 font-semibold"
      style={{ borderColor: 'var(--color-warning)' }}
    >
      <ShieldAlert size={20} aria-hidden="true" className="mt-0.5 shrink-0" />
      <span>
        Last collected: {machine.lastCollected}. {sayCaution(machine.hazard, 'cutOff')}
      </span>
    </p>
    {guided && (
      <a
        className="choice inline-flex shrink-0 items-center font-semibold"
        href={`/m/${encodeURIComponent(machine.tag)}/job${stageId === null ? '' : `?stage=${stageId}`}`}
      >
        Guide me through it
      </a>
    )}
  </div>
);

interface RecordProps {
  readonly state: ChangeState;
  readonly correcting: boolean;
  readonly send: () => Promise<void>;
}

export const Record = ({ state, correcting, send }: RecordProps) => {
  const chosen = state.stageId !== null && state.reason !== null;
  return (
    <div>
      <button type="button" className="go w-full" disabled={state.sending || !chosen} onClick={() => void send()}>
        {state.sending ? 'Recording...' : correcting ? 'Record the correction' : 'Record the change'}
      </button>
      {!chosen && <p className="soft mt-1 text-sm">Choose what was changed, and why.</p>}
      <FieldProblems id="loose-problems" problems={state.problems.filter((p) => !KNOWN.includes(p.path))} />
    </div>
  );
};
