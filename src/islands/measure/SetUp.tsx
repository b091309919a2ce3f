import { Check } from 'lucide-react';
import type { Dispatch } from 'react';
import { METHODS, type Method, type Precondition } from '@/core/measure/methods';
import { PLACES } from '@/core/path/air-path';
import { METHOD_HINTS, METHOD_WORDS, PLACE_WORDS, PRECONDITION_WORDS } from '@/messages/words';
import type { MeasureAction, MeasureState } from './state';

interface Props {
  readonly state: MeasureState;
  readonly dispatch: Dispatch<MeasureAction>;
}

/** Where the reading is taken, and by what. */
export const PlaceAndMethod = ({ state, dispatch }: Props) => (
  <div className="grid gap-2 lg:grid-cols-[minmax(0,4fr)_minmax(0,5fr)]">
    <div role="group" aria-label="Place" className="grid grid-cols-4 gap-1">
      {PLACES.map((place) => (
        <button
          key={place}
          type="button"
          className="choice text-center text-sm font-semibold"
          aria-pressed={state.place === place}
          onClick={() => dispatch({ type: 'place', place })}
        >
          {PLACE_WORDS[place]}
        </button>
      ))}
    </div>
    <div role="group" aria-label="Method" className="grid grid-cols-3 gap-1">
      {(Object.keys(METHODS) as Method[]).map((method) => (
        <button
          key={method}
          type="button"
          className="choice text-sm"
          aria-pressed={state.method === method}
          onClick={() => dispatch({ type: 'method', method })}
        >
          <span className="block font-semibold">{METHOD_WORDS[method]}</span>
          <span className="soft hidden text-xs sm:block">{METHOD_HINTS[method]}</span>
        </button>
      ))}
    </div>
  </div>
);

/** Each precondition is its own tick: an unticked one keeps the test, marked, and never uses it. */
export const Preconditions = ({ state, dispatch, wanted }: Props & { readonly wanted: readonly Precondition[] }) => {
  const open = wanted.filter((p) => !state.ticked.includes(p)).length;
  return (
    <fieldset>
      <legend className="mb-1 flex w-full items-baseline justify-between font-bold">
        Before it counts
        <span className="soft text-sm font-semibold">{open === 0 ? 'all ticked' : `${open} to tick`}</span>
      </legend>
      <div className="grid grid-cols-2 gap-1 sm:grid-cols-3 lg:grid-cols-2">
        {wanted.map((p) => {
          const on = state.ticked.includes(p);
          return (
            <button
              key={p}
              type="button"
              role="checkbox"
              aria-checked={on}
              className="choice flex items-center gap-2 text-sm"
              onClick={() => dispatch({ type: 'tick', precondition: p })}
            >
              <span className="flex size-5 shrink-0 items-center justify-center border-2 border-current">
                {on && <Check size={16} strokeWidth={3.5} aria-hidden="true" />}
              </span>
              {PRECONDITION_WORDS[p]}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
};
