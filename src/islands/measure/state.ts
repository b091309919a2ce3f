import type { Method, Precondition } from '@/core/measure/methods';
import { METHODS } from '@/core/measure/methods';
import type { TestEntry, Typed } from '@/core/measure/test-entry';
import type { Place } from '@/core/path/air-path';
import { parseQuantity } from '@/core/units';
import type { Problem } from '@/messages/failures';

export interface PadReading extends Typed {
  readonly struckBecause: string | null;
}

/** Everything typed on the bench; kept in the browser until it is recorded. */
export interface MeasureState {
  readonly clientId: string;
  readonly method: Method;
  readonly place: Place;
  /** Readings by method: a slip on the method buttons loses none. */
  readonly pads: Readonly<Record<Method, readonly PadReading[]>>;
  /** What stands in the pad, not entered yet. */
  readonly pad: string;
  /** The unit a bare number takes, by method. */
  readonly units: Readonly<Record<Method, string>>;
  readonly ticked: readonly Precondition[];
  readonly instrumentId: number | null;
  readonly bore: Typed;
  readonly profileFactor: string;
  readonly hoseBore: Typed;
  readonly temperature: Typed;
  readonly humidity: Typed;
  readonly pressure: Typed;
  readonly bagState: 'asFound' | 'asLeft';
  readonly isBaseline: boolean;
  readonly by: string;
  readonly note: string;
  /** datetime-local text; '' is now. */
  readonly when: string;
  readonly correctionReason: string;
  readonly sending: boolean;
  readonly problems: readonly Problem[];
}

/** The readings of the method at hand. */
export const readingsOf = (state: MeasureState): readonly PadReading[] => state.pads[state.method];

const withReadings = (state: MeasureState, readings: readonly PadReading[]) => ({ ...state.pads, [state.method]: readings });

type Field =
  | 'pad'
  | 'profileFactor'
  | 'by'
  | 'note'
  | 'when'
  | 'correctionReason';
type TypedField = 'bore' | 'hoseBore' | 'temperature' | 'humidity' | 'pressure';

export type MeasureAction =
  | { readonly type: 'method'; readonly method: Method }
  | { readonly type: 'place'; readonly place: Place }
  | { readonly type: 'text'; readonly field: Field; readonly value: string }
  | { readonly type: 'typed'; readonly field: TypedField; readonly value: string }
  | { readonly type: 'enter' }
  | { readonly type: 'strike'; readonly index: number; readonly because: string | null }
  | { readonly type: 'tick'; readonly precondition: Precondition }
  | { readonly type: 'instrument'; readonly id: number | null }
  | { readonly type: 'bagState'; readonly value: MeasureState['bagState'] }
  | { readonly type: 'baseline'; readonly value: boolean }
  | { readonly type: 'sending' }
  | { readonly type: 'refused'; readonly problems: readonly Problem[] }
  | { readonly type: 'restored'; readonly state: MeasureState };

const withoutField = (state: MeasureState, field: string): readonly Problem[] =>
  state.problems.filter((p) => p.path !== field && !p.path.startsWith(`${field}.`));

/** A unit typed with the reading becomes the next reading's unit. */
const unitOfPad = (state: MeasureState): string => {
  const parsed = parseQuantity(state.pad, METHODS[state.method].reads, state.units[state.method]);
  return parsed.ok ? parsed.value.unit : state.units[state.method];
};

const enter = (state: MeasureState): MeasureState => {
  const unit = unitOfPad(state);
  const reading: PadReading = { typed: state.pad.trim(), unit, struckBecause: null };
  return {
    ...state,
    pads: withReadings(state, [...readingsOf(state), reading]),
    pad: '',
    units: { ...state.units, [state.method]: unit },
    problems: withoutField(state, 'readings'),
  };
};

const typedField = (state: MeasureState, field: TypedField, value: string): MeasureState => {
  const kind = field === 'temperature' ? 'temperature' : field === 'humidity' ? 'relativeHumidity' : field === 'pressure' ? 'pressure' : 'length';
  const parsed = parseQuantity(value, kind, state[field].unit);
  const unit = parsed.ok ? parsed.value.unit : state[field].unit;
  const path = field === 'bore' || field === 'hoseBore' ? field : `air.${field}`;
  return { ...state, [field]: { typed: value, unit }, problems: withoutField(state, path) };
};

/** The one way the bench changes. */
export const measureReducer = (state: MeasureState, action: MeasureAction): MeasureState => {
  switch (action.type) {
    case 'method':
      return action.method === state.method ? state : { ...state, method: action.method, pad: '', instrumentId: null, problems: [] };
    case 'place':
      return { ...state, place: action.place };
    case 'text':
      return { ...state, [action.field]: action.value, problems: withoutField(state, action.field) };
    case 'typed':
      return typedField(state, action.field, action.value);
    case 'enter':
      return enter(state);
    case 'strike':
      return {
        ...state,
        pads: withReadings(state, readingsOf(state).map((r, i) => (i === action.index ? { ...r, struckBecause: action.because } : r))),
        problems: withoutField(state, 'readings'),
      };
    case 'tick':
      return {
        ...state,
        ticked: state.ticked.includes(action.precondition)
          ? state.ticked.filter((p) => p !== action.precondition)
          : [...state.ticked, action.precondition],
      };
    case 'instrument':
      return { ...state, instrumentId: action.id, problems: withoutField(state, 'instrumentId') };
    case 'bagState':
      return { ...state, bagState: action.value };
    case 'baseline':
      return { ...state, isBaseline: action.value };
    case 'sending':
      return { ...state, sending: true, problems: [] };
    case 'refused':
      return { ...state, sending: false, problems: action.problems };
    case 'restored':
      return action.state;
  }
};

const orNull = (typed: Typed): Typed | null => (typed.typed.trim() === '' ? null : typed);

/** The state as the core and the server take it. */
export const toEntry = (state: MeasureState, wanted: readonly Precondition[]): TestEntry => ({
  method: state.method,
  place: state.place,
  readings: readingsOf(state),
  bore: orNull(state.bore),
  profileFactor: METHODS[state.method].needsBore ? Number(state.profileFactor.replace(',', '.')) : null,
  hoseBore: orNull(state.hoseBore),
  air: { temperature: state.temperature, humidity: state.humidity, pressure: orNull(state.pressure) },
  failedPreconditions: wanted.filter((p) => !state.ticked.includes(p)),
});

