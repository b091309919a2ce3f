import { Check } from 'lucide-react';
import type { Dispatch } from 'react';
import { METHOD_NAMES, METHODS, type MethodGroup, type Precondition } from '@/core/measure/methods';
import { PLACES } from '@/core/measure/place';
import { GROUP_WORDS, METHOD_HINTS, METHOD_WORDS, PLACE_WORDS, PRECONDITION_WORDS } from '@/messages/words';
import type { MeasureAction, MeasureState } from './state';

interface Props {
  readonly state: MeasureState;
  readonly dispatch: Dispatch<MeasureAction>;
}

/** Where the reading is taken. */
export const PlaceChoice = ({ state, dispatch }: Props) => (
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
);

const GROUPS = Object.keys(GROUP_WORDS) as MethodGroup[];

interface ChoiceProps extends Props {
  readonly open: boolean;
  readonly setOpen: (open: boolean) => void;
}

/** The method of measuring: the present one, the others one tap away. */
export const MethodChoice = ({ state, open, setOpen }: ChoiceProps) => (
  <button
    type="button"
    className="choice flex w-full items-center gap-3"
    aria-expanded={open}
    onClick={() => setOpen(!open)}
  >
    <span className="min-w-0 font-semibold sm:shrink-0">{METHOD_WORDS[state.method]}</span>
    <span className="soft hidden min-w-0 flex-1 truncate text-sm sm:block">{METHOD_HINTS[state.method]}</span>
    <span className="ml-auto shrink-0 text-sm underline underline-offset-4">{open ? 'close' : 'other methods'}</span>
  </button>
);

/** Every method, by its result. */
export const MethodSheet = ({ state, dispatch, open, setOpen }: ChoiceProps) =>
  open ? (
    <div className="panel grid grid-cols-2 gap-3 p-3 sm:grid-cols-3 xl:grid-cols-6">
      {GROUPS.map((group) => (
        <fieldset key={group} className="min-w-0">
          <legend className="caption mb-1">{GROUP_WORDS[group]}</legend>
          <div className="grid gap-1">
            {METHOD_NAMES.filter((m) => METHODS[m].group === group).map((method) => (
              <button
                key={method}
                type="button"
                className="choice min-w-0 text-sm"
                aria-pressed={state.method === method}
                onClick={() => {
                  dispatch({ type: 'method', method });
                  setOpen(false);
                }}
              >
                <span className="block font-semibold">{METHOD_WORDS[method]}</span>
                <span className="soft block text-xs">{METHOD_HINTS[method]}</span>
              </button>
            ))}
          </div>
        </fieldset>
      ))}
    </div>
  ) : null;

/** Each precondition is its own tick: an unticked one keeps the test, marked, and never uses it. */
export const Preconditions = ({ state, dispatch, wanted }: Props & { readonly wanted: readonly Precondition[] }) => {
  const open = wanted.filter((p) => !state.ticked.includes(p)).length;
  return (
    <fieldset>
      <legend className="mb-1 flex w-full items-baseline justify-between font-bold">
        Before you measure
        <span className="soft text-sm font-semibold">{open === 0 ? 'all checked' : `${open} to check`}</span>
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
