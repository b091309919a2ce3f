import type { DetailEntry } from '@/core/measure/detail-entry';
import { METHODS, type Method, type Precondition } from '@/core/measure/methods';
import type { DuctLoad } from '@/core/measure/needs-of-use';
import type { ReadingEntry, TestEntry } from '@/core/measure/test-entry';
import type { Typed } from '@/core/measure/typed';
import type { Place } from '@/core/measure/place';
import type { ReadingHow } from '@/core/measure/reading';
import { parseQuantity, type QuantityKind } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { type Pads, readingsOf } from './pads';
import { nextSlot } from './slots';

/** Everything typed on the bench; kept in the browser until it is recorded. */
export interface MeasureState extends Pads {
  readonly clientId: string;
  readonly place: Place;
  /** Inputs of each method besides its readings. */
  readonly details: Readonly<Record<Method, DetailEntry>>;
  /** Text in the pad that is not entered yet. */
  readonly pad: string;
  /** The unit a bare number takes, by method. */
  readonly units: Readonly<Record<Method, string>>;
  /** The opening or count chosen by hand; null takes the next one. */
  readonly slotChoice: number | null;
  readonly ticked: readonly Precondition[];
  readonly instrumentId: number | null;
  readonly bore: Typed;
  readonly profileFactor: string;
  readonly hoseBore: Typed;
  readonly temperature: Typed;
  readonly humidity: Typed;
  readonly pressure: Typed;
  readonly volts: Typed;
  readonly wheel: Typed;
  readonly ductLoad: DuctLoad | null;
  readonly rigSeries: number;
  readonly configuration: string;
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

const withReadings = (state: MeasureState, readings: readonly ReadingEntry[]) => ({
  ...state.pads,
  [state.method]: readings,
});

type Field = 'pad' | 'profileFactor' | 'by' | 'note' | 'when' | 'correctionReason' | 'configuration';
export type TypedField = 'bore' | 'hoseBore' | 'temperature' | 'humidity' | 'pressure' | 'volts' | 'wheel';

export type MeasureAction =
  | { readonly type: 'method'; readonly method: Method }
  | { readonly type: 'place'; readonly place: Place }
  | { readonly type: 'text'; readonly field: Field; readonly value: string }
  | { readonly type: 'typed'; readonly field: TypedField; readonly value: string }
  | { readonly type: 'enter' }
  | { readonly type: 'held'; readonly typed: string; readonly unit: string; readonly how: ReadingHow }
  | { readonly type: 'strike'; readonly index: number; readonly because: string | null }
  | { readonly type: 'slot'; readonly slot: number | null }
  | { readonly type: 'detail'; readonly detail: DetailEntry }
  | { readonly type: 'tick'; readonly precondition: Precondition }
  | { readonly type: 'instrument'; readonly id: number | null }
  | { readonly type: 'ductLoad'; readonly value: DuctLoad | null }
  | { readonly type: 'rigMoved' }
  | { readonly type: 'bagState'; readonly value: MeasureState['bagState'] }
  | { readonly type: 'baseline'; readonly value: boolean }
  | { readonly type: 'sending' }
  | { readonly type: 'refused'; readonly problems: readonly Problem[] }
  | { readonly type: 'restored'; readonly state: MeasureState };

const withoutField = (state: MeasureState, field: string): readonly Problem[] =>
  state.problems.filter((p) => p.path !== field && !p.path.startsWith(`${field}.`));

const add = (
  state: MeasureState,
  { typed, unit, how }: Pick<ReadingEntry, 'typed' | 'unit' | 'how'>,
): MeasureState => ({
  ...state,
  pads: withReadings(state, [...readingsOf(state), { typed, unit, how, slot: nextSlot(state), struckBecause: null }]),
  pad: '',
  slotChoice: null,
  units: { ...state.units, [state.method]: unit },
  problems: withoutField(state, 'readings'),
});

/** A unit typed with the reading becomes the next reading's unit. */
const enter = (state: MeasureState): MeasureState => {
  const parsed = parseQuantity(state.pad, METHODS[state.method].reads, state.units[state.method]);
  return add(state, {
    typed: state.pad.trim(),
    unit: parsed.ok ? parsed.value.unit : state.units[state.method],
    how: 'typed',
  });
};

const KIND_OF: Record<TypedField, QuantityKind> = {
  bore: 'length',
  hoseBore: 'length',
  wheel: 'length',
  temperature: 'temperature',
  humidity: 'relativeHumidity',
  pressure: 'pressure',
  volts: 'voltage',
};

const PATH_OF: Record<TypedField, string> = {
  bore: 'bore',
  hoseBore: 'hoseBore',
  wheel: 'wheel',
  temperature: 'air.temperature',
  humidity: 'air.humidity',
  pressure: 'air.pressure',
  volts: 'volts',
};

/** The typed text, with the unit that the next bare number takes. */
export const retyped = (before: Typed, value: string, kind: QuantityKind): Typed => {
  const parsed = parseQuantity(value, kind, before.unit);
  return { typed: value, unit: parsed.ok ? parsed.value.unit : before.unit };
};

/** The one way the bench changes. */
export const measureReducer = (state: MeasureState, action: MeasureAction): MeasureState => {
  switch (action.type) {
    case 'method':
      return action.method === state.method
        ? state
        : { ...state, method: action.method, pad: '', slotChoice: null, instrumentId: null, problems: [] };
    case 'place':
      return { ...state, place: action.place };
    case 'text':
      return { ...state, [action.field]: action.value, problems: withoutField(state, action.field) };
    case 'typed':
      return {
        ...state,
        [action.field]: retyped(state[action.field], action.value, KIND_OF[action.field]),
        problems: withoutField(state, PATH_OF[action.field]),
      };
    case 'enter':
      return enter(state);
    case 'held':
      return add(state, action);
    case 'strike':
      return {
        ...state,
        pads: withReadings(
          state,
          readingsOf(state).map((r, i) => (i === action.index ? { ...r, struckBecause: action.because } : r)),
        ),
        problems: withoutField(state, 'readings'),
      };
    case 'slot':
      return { ...state, slotChoice: action.slot };
    case 'detail':
      return {
        ...state,
        details: { ...state.details, [state.method]: action.detail },
        problems: withoutField(state, 'detail'),
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
    case 'ductLoad':
      return { ...state, ductLoad: action.value };
    case 'rigMoved':
      // The series ends where the rig moved: earlier readings are struck.
      return {
        ...state,
        rigSeries: state.rigSeries + 1,
        pads: withReadings(
          state,
          readingsOf(state).map((r) => ({ ...r, struckBecause: r.struckBecause ?? 'before the rig was moved' })),
        ),
      };
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

/** A typed field, or null while it is empty. */
export const orNull = (typed: Typed): Typed | null => (typed.typed.trim() === '' ? null : typed);

/** The state as the core and the server take it. */
export const toEntry = (state: MeasureState, wanted: readonly Precondition[]): TestEntry => ({
  method: state.method,
  place: state.place,
  readings: readingsOf(state),
  bore: orNull(state.bore),
  profileFactor: METHODS[state.method].needs.includes('profileFactor')
    ? Number(state.profileFactor.replace(',', '.'))
    : null,
  hoseBore: orNull(state.hoseBore),
  air: { temperature: state.temperature, humidity: state.humidity, pressure: orNull(state.pressure) },
  detail: state.details[state.method],
  volts: orNull(state.volts),
  rigSeries: state.rigSeries,
  failedPreconditions: wanted.filter((p) => !state.ticked.includes(p)),
});
