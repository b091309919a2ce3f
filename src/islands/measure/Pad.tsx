import { CornerDownLeft } from 'lucide-react';
import { type Dispatch, type RefObject, useState } from 'react';
import { METHODS } from '@/core/measure/methods';
import { prettyUnit, UNITS, type Unit } from '@/core/units';
import { type Problem, problemsOf } from '@/messages/failures';
import { FieldProblems } from '@/ui/problems';
import { padFailures } from './live';
import { type MeasureAction, type MeasureState, readingsOf } from './state';

interface PadProps {
  readonly state: MeasureState;
  readonly dispatch: Dispatch<MeasureAction>;
  readonly problems: readonly Problem[];
  readonly input: RefObject<HTMLInputElement | null>;
}

const Readings = ({ state, dispatch }: Pick<PadProps, 'state' | 'dispatch'>) => {
  const readings = readingsOf(state);
  return (
    <ol className="flex min-h-11 flex-wrap gap-1" aria-label="Readings">
      {readings.map((r, i) => {
        const struck = r.struckBecause !== null;
        const bare = /[a-z"'%]/i.test(r.typed) ? r.typed : `${r.typed} ${prettyUnit(r.unit)}`;
        return (
          // A reading has no identity but its place in the series.
          <li key={i}>
            <button
              type="button"
              className={`choice dial min-w-16 text-center font-medium ${struck ? 'line-through opacity-75' : ''}`}
              aria-label={struck ? `Reading ${i + 1}, ${bare}, struck out: ${r.struckBecause}. Take it back in` : `Reading ${i + 1}, ${bare}. Strike it out`}
              title={struck ? `${r.struckBecause}: tap to take it back in` : 'Tap to strike it out'}
              onClick={() => dispatch({ type: 'strike', index: i, because: struck ? null : 'mistyped or misread' })}
            >
              {bare}
            </button>
          </li>
        );
      })}
      {readings.length === 0 && <li className="soft self-center text-sm">No reading yet. Three or more make a verdict.</li>}
    </ol>
  );
};

/** The reading pad: type, Enter, next. */
export const Pad = ({ state, dispatch, problems, input }: PadProps) => {
  const [tried, setTried] = useState<readonly Problem[]>([]);
  const { reads } = METHODS[state.method];
  const unit = state.units[state.method];
  const units = (UNITS[reads] as readonly Unit[]).map((u) => prettyUnit(u.symbol)).join(', ');
  const shown = tried.length > 0 ? tried : problems;
  const enter = () => {
    const failures = padFailures(state);
    setTried(problemsOf(failures));
    if (failures.length === 0) dispatch({ type: 'enter' });
    input.current?.focus();
  };
  return (
    <div>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          enter();
        }}
      >
        <label htmlFor="pad" className="mb-1 flex items-baseline justify-between font-bold">
          Reading {readingsOf(state).length + 1}
          <span className="soft text-sm font-semibold">a bare number is {prettyUnit(unit)}</span>
        </label>
        <div className="flex">
          <input
            id="pad"
            ref={input}
            className="field dial h-16 min-w-0 flex-1 border-2 text-3xl"
            value={state.pad}
            inputMode="decimal"
            autoComplete="off"
            maxLength={60}
            placeholder={`0 ${prettyUnit(unit)}`}
            aria-invalid={shown.length > 0}
            aria-describedby="pad-problems pad-units"
            onChange={(e) => {
              setTried([]);
              dispatch({ type: 'text', field: 'pad', value: e.target.value });
            }}
          />
          <button type="submit" className="go flex w-20 items-center justify-center" aria-label="Enter the reading">
            <CornerDownLeft size={28} aria-hidden="true" />
          </button>
        </div>
        <p id="pad-units" className="soft mt-1 text-xs">Takes {units}.</p>
        <FieldProblems id="pad-problems" problems={shown} />
      </form>
      <div className="mt-2">
        <Readings state={state} dispatch={dispatch} />
      </div>
    </div>
  );
};
