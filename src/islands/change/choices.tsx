import { Minus, Plus } from 'lucide-react';
import type { StageDue } from '@/core/interval/due';
import { isChangeable, type Machine, type Stage, type MachineAirPath } from '@/core/machine/machine';
import { CHANGE_REASONS, type ChangeRecord } from '@/core/record/records';
import { dueIn } from '@/messages/needs';
import { cleaningOf } from '@/core/procedure/choose';
import { CLEANING_WORDS, NO_CARE_WORDS } from '@/messages/dust';
import { capital, REASON_HINTS, REASON_WORDS } from '@/messages/words';
import type { UnitSystem } from '@/core/units';
import { DayField } from '@/ui/day-field';
import { FieldProblems, problemsAt } from '@/ui/problems';
import type { BeforeChoice } from '@/view-models/change-props';
import { type Part } from './how-done';
import type { ShownPath } from '@/ui/air-path/shown-path';

export interface ShelfPart {
  readonly id: number;
  readonly name: string;
  readonly bin: string;
  readonly onHand: number;
}

export interface ChangeProps {
  readonly view: ShownPath;
  readonly units: UnitSystem;
  readonly machine: Machine;
  readonly due: readonly StageDue[];
  readonly parts: readonly ShelfPart[];
  readonly before: readonly BeforeChoice[];
  readonly by: string;
  readonly clientId: string;
  readonly stageId: number | null;
  readonly correcting: ChangeRecord | null;
}

const changeable = (machine: MachineAirPath): readonly Stage[] => machine.stages.filter(isChangeable);

export const StageChoice = ({ state, dispatch, machine, due }: Part & Pick<ChangeProps, 'machine' | 'due'>) => (
  <fieldset>
    <legend className="mb-1 font-bold">What was changed or emptied?</legend>
    <div className="grid grid-cols-2 gap-1 xl:grid-cols-3">
      {changeable(machine).map((stage) => {
        const own = due.find((d) => d.stageId === stage.id);
        return (
          <button
            key={stage.id}
            type="button"
            className="choice"
            aria-pressed={state.stageId === stage.id}
            onClick={() => dispatch({ type: 'stage', id: stage.id })}
          >
            <span className="block font-semibold">{capital(stage.name)}</span>
            <span className="soft text-xs">{stage.missing ? 'missing' : own ? dueIn(own.daysLeft) : 'no rule'}</span>
          </button>
        );
      })}
    </div>
    <FieldProblems id="stage-problems" problems={problemsAt(state.problems, 'stageId')} />
  </fieldset>
);

export const ReasonChoice = ({ state, dispatch }: Part) => (
  <fieldset>
    <legend className="mb-1 font-bold">Why?</legend>
    <div className="grid grid-cols-2 gap-1 sm:grid-cols-4">
      {CHANGE_REASONS.map((reason) => (
        <button
          key={reason}
          type="button"
          className="choice"
          aria-pressed={state.reason === reason}
          onClick={() => dispatch({ type: 'reason', reason })}
        >
          <span className="block font-semibold">{REASON_WORDS[reason]}</span>
          <span className="soft text-xs">{REASON_HINTS[reason]}</span>
        </button>
      ))}
    </div>
    <FieldProblems id="why-problems" problems={problemsAt(state.problems, 'reason')} />
  </fieldset>
);

const Quantity = ({ state, dispatch }: Part) => (
  <div className="flex items-center gap-1">
    <button
      type="button"
      className="choice w-11 text-center"
      aria-label="One fewer"
      onClick={() => dispatch({ type: 'quantity', by: -1 })}
    >
      <Minus size={18} aria-hidden="true" className="mx-auto" />
    </button>
    <span className="dial w-10 text-center text-2xl" aria-live="polite">
      {state.quantity}
    </span>
    <button
      type="button"
      className="choice w-11 text-center"
      aria-label="One more"
      onClick={() => dispatch({ type: 'quantity', by: 1 })}
    >
      <Plus size={18} aria-hidden="true" className="mx-auto" />
    </button>
  </div>
);

/** The same part again, where its medium and the dust let it be cleaned; otherwise why not. */
const Cleaned = ({ state, dispatch, machine }: Part & Pick<ChangeProps, 'machine'>) => {
  const stage = machine.stages.find((s) => s.id === state.stageId);
  if (!stage) return null;
  const { ways, because } = cleaningOf(machine, stage);
  if (because)
    return (
      <p className="soft self-center text-sm">
        The {stage.name} {NO_CARE_WORDS[because]}.
      </p>
    );
  return (
    <button
      type="button"
      className="choice"
      aria-pressed={!state.fromStock}
      onClick={() => dispatch({ type: 'fromStock', value: false })}
    >
      <span className="block font-semibold">The same part, cleaned</span>
      <span className="soft text-xs">{ways.map((w) => CLEANING_WORDS[w]).join(', ')}; nothing leaves the stock</span>
    </button>
  );
};

export const PartChoice = ({
  state,
  dispatch,
  part,
  machine,
}: Part & Pick<ChangeProps, 'machine'> & { readonly part: ShelfPart | null }) => (
  <fieldset>
    <legend className="mb-1 font-bold">Which part?</legend>
    {part ? (
      <div className="grid gap-1 sm:grid-cols-2">
        <button
          type="button"
          className="choice"
          aria-pressed={state.fromStock}
          onClick={() => dispatch({ type: 'fromStock', value: true })}
        >
          <span className="block font-semibold">{part.name}</span>
          <span className="soft text-xs">
            new, from bin {part.bin}: {part.onHand} on hand
          </span>
        </button>
        <Cleaned state={state} dispatch={dispatch} machine={machine} />
        {state.fromStock && (
          <div className="flex items-center gap-3 sm:col-span-2">
            <Quantity state={state} dispatch={dispatch} />
            {part.onHand < state.quantity && (
              <p className="tone-watch text-sm font-bold">
                Stock shows {part.onHand}. If you take it, it shows {part.onHand - state.quantity}: count the shelf to
                settle it.
              </p>
            )}
          </div>
        )}
      </div>
    ) : (
      <p className="soft">
        {state.stageId === null
          ? 'Choose the stage first.'
          : 'No spare is kept for this stage; nothing is taken from stock.'}
      </p>
    )}
    <FieldProblems id="part-problems" problems={problemsAt(state.problems, 'partId')} />
  </fieldset>
);

export const Signature = ({ state, dispatch, correcting }: Part & { readonly correcting: boolean }) => {
  const field = (name: 'by' | 'note' | 'correctionReason', path: string) => ({
    className: 'field',
    value: state[name],
    'aria-invalid': problemsAt(state.problems, path).length > 0,
    onChange: (e: { target: { value: string } }) => dispatch({ type: 'text', field: name, value: e.target.value }),
  });
  return (
    <div className="grid grid-cols-[6rem_minmax(0,1fr)] gap-2">
      <label className="block">
        <span className="caption">Initials</span>
        <input {...field('by', 'by')} maxLength={12} autoComplete="off" />
        <FieldProblems id="by-problems" problems={problemsAt(state.problems, 'by')} />
      </label>
      <div>
        <DayField
          time
          label={correcting ? 'When' : 'When (empty: now)'}
          value={state.when}
          onValue={(value) => dispatch({ type: 'text', field: 'when', value })}
        />
        <FieldProblems id="when-problems" problems={problemsAt(state.problems, 'performedAt')} />
      </div>
      <label className="col-span-2 block">
        <span className="caption">Note</span>
        <input {...field('note', 'note')} maxLength={2000} />
      </label>
      {correcting && (
        <label className="col-span-2 block">
          <span className="caption">Why is it corrected?</span>
          <input {...field('correctionReason', 'correctionReason')} maxLength={300} />
          <FieldProblems id="reason-problems" problems={problemsAt(state.problems, 'correctionReason')} />
        </label>
      )}
    </div>
  );
};
