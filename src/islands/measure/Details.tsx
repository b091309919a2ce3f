import type { Dispatch } from 'react';
import { METHODS } from '@/core/measure/methods';
import type { Instrument } from '@/core/record/records';
import { prettyUnit } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { FieldProblems, problemsAt } from '@/ui/problems';
import { DUCT_WORDS } from '@/messages/findings';
import type { DuctLoad } from '@/core/measure/needs-of-use';
import type { MeasureAction, MeasureState, TypedField } from './state';

interface Props {
  readonly state: MeasureState;
  readonly dispatch: Dispatch<MeasureAction>;
  readonly problems: readonly Problem[];
}

interface EntryProps extends Props {
  readonly field: TypedField;
  readonly label: string;
  readonly placeholder?: string;
}

const Entry = ({ state, dispatch, problems, field, label, placeholder }: EntryProps) => {
  const path = field === 'temperature' || field === 'humidity' || field === 'pressure' ? `air.${field}` : field;
  const own = problemsAt(problems, path);
  return (
    <label className="block min-w-0">
      <span className="caption">{label}</span>
      <span className="relative block">
        <input
          className="field dial pr-12"
          value={state[field].typed}
          placeholder={placeholder}
          maxLength={60}
          aria-invalid={own.length > 0}
          onChange={(e) => dispatch({ type: 'typed', field, value: e.target.value })}
        />
        <span className="soft absolute top-2.5 right-2 text-sm" aria-hidden="true">
          {prettyUnit(state[field].unit)}
        </span>
      </span>
      <FieldProblems id={`${field}-problems`} problems={own} />
    </label>
  );
};

type RigProps = Props & { readonly instruments: readonly Instrument[]; readonly today: string };

const InstrumentChoice = ({ state, dispatch, problems, instruments, today }: RigProps) => {
  const fitting = instruments.filter(
    (i) => i.reads === METHODS[state.method].reads && (!i.retired || i.id === state.instrumentId),
  );
  const chosen = fitting.find((i) => i.id === state.instrumentId);
  const expired = (chosen?.calibrationDueOn ?? today) < today;
  return (
    <label className="block">
      <span className="caption">Meter</span>
      <select
        className="field"
        value={state.instrumentId ?? ''}
        onChange={(e) => dispatch({ type: 'instrument', id: e.target.value === '' ? null : Number(e.target.value) })}
      >
        <option value="">No meter chosen: its error is not counted, so the interval is too narrow</option>
        {fitting.map((i) => (
          <option key={i.id} value={i.id}>
            {i.name}
          </option>
        ))}
      </select>
      {expired && (
        <span className="tone-watch text-sm font-bold">Calibration ran out on {chosen?.calibrationDueOn}.</span>
      )}
      <FieldProblems id="instrument-problems" problems={problemsAt(problems, 'instrumentId')} />
    </label>
  );
};

const DuctLoadChoice = ({ state, dispatch }: Pick<Props, 'state' | 'dispatch'>) => (
  <label className="block">
    <span className="caption">The duct carries</span>
    <select
      className="field"
      value={state.ductLoad ?? ''}
      onChange={(e) =>
        dispatch({ type: 'ductLoad', value: e.target.value === '' ? null : (e.target.value as DuctLoad) })
      }
    >
      <option value="">not judged: no duct</option>
      {(Object.keys(DUCT_WORDS) as DuctLoad[]).map((load) => (
        <option key={load} value={load}>
          {DUCT_WORDS[load]}
        </option>
      ))}
    </select>
  </label>
);

/** Rig, hose and air: what carries over from the last test and is looked at when it changed. */
export const RigAndAir = ({ state, dispatch, problems, instruments, today }: RigProps) => {
  const { needs, measurand } = METHODS[state.method];
  const needsBore = needs.includes('bore');
  const props = { state, dispatch, problems };
  return (
    <div className="space-y-2">
      <InstrumentChoice {...props} instruments={instruments} today={today} />
      <div className="grid grid-cols-2 gap-2">
        {needsBore && <Entry {...props} field="bore" label="Bore of the test pipe" />}
        {needsBore && (
          <label className="block">
            <span className="caption">Profile factor (0.82 or 0.9)</span>
            <input
              className="field dial"
              value={state.profileFactor}
              inputMode="decimal"
              maxLength={10}
              aria-invalid={problemsAt(problems, 'profileFactor').length > 0}
              onChange={(e) => dispatch({ type: 'text', field: 'profileFactor', value: e.target.value })}
            />
            <FieldProblems id="profile-problems" problems={problemsAt(problems, 'profileFactor')} />
          </label>
        )}
        {measurand === 'flow' && <Entry {...props} field="hoseBore" label="Bore of the fitted hose" />}
        <Entry {...props} field="temperature" label="Air temperature" />
        <Entry {...props} field="humidity" label="Relative humidity" />
        <Entry {...props} field="pressure" label="Station pressure" placeholder="by altitude" />
        <Entry {...props} field="volts" label="Line voltage, running" placeholder="not read" />
        {measurand === 'flow' && (
          <Entry {...props} field="wheel" label="Grinder wheel on this branch" placeholder="none" />
        )}
      </div>
      {measurand === 'flow' && <DuctLoadChoice state={state} dispatch={dispatch} />}
      <button
        type="button"
        className="choice w-full text-sm font-semibold"
        onClick={() => dispatch({ type: 'rigMoved' })}
      >
        Rig moved: start series {state.rigSeries + 1}
      </button>
    </div>
  );
};
