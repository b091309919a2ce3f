import type { Dispatch } from 'react';
import type { Problem } from '@/messages/failures';
import { DayField } from '@/ui/day-field';
import { FieldProblems, problemsAt } from '@/ui/problems';
import type { MeasureAction, MeasureState } from './state';

interface Props {
  readonly state: MeasureState;
  readonly dispatch: Dispatch<MeasureAction>;
  readonly problems: readonly Problem[];
  readonly correcting: boolean;
}

/** Who, when, in which state, and a note. */
export const WhoAndWhen = ({ state, dispatch, problems, correcting }: Props) => (
  <div className="space-y-2">
    <div className="grid grid-cols-2 gap-2">
      <div>
        <DayField
          time
          label={correcting ? 'When' : 'When (empty: now)'}
          value={state.when}
          onValue={(value) => dispatch({ type: 'text', field: 'when', value })}
        />
        <FieldProblems id="when-problems" problems={problemsAt(problems, 'performedAt')} />
      </div>
      <div role="group" aria-label="State of bag and filters">
        <span className="caption">Bag and filters</span>
        <div className="grid grid-cols-2 gap-1">
          {(['asFound', 'asLeft'] as const).map((value) => (
            <button
              key={value}
              type="button"
              className="choice text-center text-sm font-semibold"
              aria-pressed={state.bagState === value}
              onClick={() => dispatch({ type: 'bagState', value })}
            >
              {value === 'asFound' ? 'as found' : 'as left'}
            </button>
          ))}
        </div>
      </div>
    </div>
    <label className="flex min-h-11 items-center gap-2">
      <input
        type="checkbox"
        className="checkbox"
        checked={state.isBaseline}
        onChange={(e) => dispatch({ type: 'baseline', value: e.target.checked })}
      />
      <span className="text-sm">
        <strong>This is the new baseline.</strong> Only when the machine is known to be good.
      </span>
    </label>
    <label className="block">
      <span className="caption">Configuration, for comparing (canister in, foam out)</span>
      <input
        className="field"
        maxLength={80}
        value={state.configuration}
        onChange={(e) => dispatch({ type: 'text', field: 'configuration', value: e.target.value })}
      />
    </label>
    <label className="block">
      <span className="caption">Note</span>
      <textarea
        className="field py-2"
        rows={2}
        maxLength={2000}
        value={state.note}
        onChange={(e) => dispatch({ type: 'text', field: 'note', value: e.target.value })}
      />
    </label>
  </div>
);

/** Initials, and for a correction its reason: what the record cannot do without. */
export const Sign = ({ state, dispatch, problems, correcting }: Props) => (
  <div className={`flex items-start gap-2 ${correcting ? 'min-w-0 flex-1' : ''}`}>
    <label className="block w-24 shrink-0">
      <span className="sr-only">Initials</span>
      <input
        className="field h-13 uppercase"
        placeholder="initials"
        value={state.by}
        maxLength={12}
        autoComplete="off"
        aria-invalid={problemsAt(problems, 'by').length > 0}
        onChange={(e) => dispatch({ type: 'text', field: 'by', value: e.target.value })}
      />
      <FieldProblems id="by-problems" problems={problemsAt(problems, 'by')} />
    </label>
    {correcting && (
      <label className="block min-w-0 flex-1">
        <span className="sr-only">Why is it corrected?</span>
        <input
          className="field h-13"
          placeholder="why is it corrected?"
          value={state.correctionReason}
          maxLength={300}
          aria-invalid={problemsAt(problems, 'correctionReason').length > 0}
          onChange={(e) => dispatch({ type: 'text', field: 'correctionReason', value: e.target.value })}
        />
        <FieldProblems id="reason-problems" problems={problemsAt(problems, 'correctionReason')} />
      </label>
    )}
  </div>
);
