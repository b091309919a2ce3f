import { CornerDownLeft } from 'lucide-react';
import { type Dispatch, type ReactNode, type RefObject, useState } from 'react';
import { EXHAUST_SLOT } from '@/core/measure/detail';
import { METHODS } from '@/core/measure/methods';
import type { ReadingEntry } from '@/core/measure/test-entry';
import { prettyUnit, show, UNITS, type Unit, type UnitSystem } from '@/core/units';
import { type Problem, problemsOf } from '@/messages/failures';
import { capital } from '@/messages/words';
import { FieldProblems } from '@/ui/problems';
import { padFailures } from './pad-failures';
import { readingsOf } from './pads';
import { nextSlot, traverseStand } from './slots';
import type { MeasureAction, MeasureState } from './state';

interface PadProps {
  readonly state: MeasureState;
  readonly dispatch: Dispatch<MeasureAction>;
  readonly problems: readonly Problem[];
  readonly input: RefObject<HTMLInputElement | null>;
  readonly system: UnitSystem;
  readonly aside: ReactNode;
}

/** The next reading in words: its number, its point, its opening, or the kind of air counted. */
const nextWords = (state: MeasureState, units: UnitSystem): string => {
  const entry = state.details[state.method];
  const stand = traverseStand(state);
  if (stand) {
    const up =
      stand.at.lineAtM > 0 ? `, line ${show('length', stand.at.lineAtM, units)} up` : `, diameter ${stand.at.line + 1}`;
    const round = stand.traverse > 1 ? `traverse ${stand.traverse}, ` : '';
    return `${round}point ${stand.point} of ${stand.points}: ${show('length', stand.at.fromWallM, units)} from the wall${up}`;
  }
  const slot = nextSlot(state);
  if (entry.kind === 'curve') {
    const opening = entry.orifices[slot];
    const hole = opening ? `${opening.typed} ${prettyUnit(opening.unit)}` : '';
    return /^0+([.,]0*)?$/.test(opening?.typed.trim() ?? '') ? 'Suction, sealed' : `Suction at the ${hole} hole`;
  }
  if (METHODS[state.method].form === 'particles')
    return slot === EXHAUST_SLOT ? 'Count in the exhaust' : 'Count in the room';
  return `Reading ${readingsOf(state).length + 1}`;
};

const slotMark = (state: MeasureState, { slot }: ReadingEntry): string => {
  const entry = state.details[state.method];
  if (entry.kind === 'curve') return `${entry.orifices[slot]?.typed ?? '?'}: `;
  if (METHODS[state.method].form === 'particles') return slot === EXHAUST_SLOT ? 'exhaust ' : 'room ';
  return entry.kind === 'round' || entry.kind === 'rectangular' ? `${slot + 1}: ` : '';
};

const STRIKE_REASONS = [
  'mistyped or misread',
  'not settled yet',
  'probe slipped or moved',
  'hose or nozzle blocked for a moment',
] as const;

const HOW_MARK = { typed: '', hold: ' held', max: ' max' } as const;

const Readings = ({ state, dispatch }: Pick<PadProps, 'state' | 'dispatch'>) => {
  const readings = readingsOf(state);
  return (
    <ol className="flex min-h-11 flex-wrap gap-1" aria-label="Readings">
      {readings.map((r, i) => {
        const struck = r.struckBecause !== null;
        const reading = `${slotMark(state, r)}${/[a-z"'%]/i.test(r.typed) ? r.typed : `${r.typed} ${prettyUnit(r.unit)}`}${HOW_MARK[r.how]}`;
        return (
          // A reading has no identity but its place in the series.
          <li key={i}>
            <button
              type="button"
              className={`choice dial min-w-16 text-center font-medium ${struck ? 'line-through opacity-75' : ''}`}
              aria-label={
                struck
                  ? `Reading ${i + 1}, ${reading}, struck out: ${r.struckBecause}. Count it again`
                  : `Reading ${i + 1}, ${reading}. Strike it out`
              }
              title={struck ? `${r.struckBecause}: tap to count it again` : 'Tap to strike it out'}
              onClick={() => dispatch({ type: 'strike', index: i, because: struck ? null : STRIKE_REASONS[0] })}
            >
              {reading}
            </button>
          </li>
        );
      })}
      {readings.length === 0 && (
        <li className="soft self-center text-sm">
          {METHODS[state.method].form === 'series'
            ? 'No reading yet. Take three or more for a verdict.'
            : 'No reading yet.'}
        </li>
      )}
    </ol>
  );
};

/** Why the struck readings do not count: nothing is deleted without a reason. */
const StrikeReasons = ({ state, dispatch }: Pick<PadProps, 'state' | 'dispatch'>) => {
  const struck = readingsOf(state).flatMap((r, index) =>
    r.struckBecause === null ? [] : [{ r, index, because: r.struckBecause }],
  );
  return (
    <>
      {struck.map(({ r, index, because }) => (
        <label key={index} className="mt-1 flex items-center gap-2 text-sm">
          <span className="dial shrink-0 line-through">{r.typed}</span>
          <span className="sr-only">struck out because</span>
          <select
            className="field"
            value={because}
            onChange={(e) => dispatch({ type: 'strike', index, because: e.target.value })}
          >
            {[...new Set([because, ...STRIKE_REASONS])].map((reason) => (
              <option key={reason}>{reason}</option>
            ))}
          </select>
        </label>
      ))}
    </>
  );
};

/** The reading pad: type, Enter, next. */
export const Pad = ({ state, dispatch, problems, input, system, aside }: PadProps) => {
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
          {capital(nextWords(state, system))}
          <span className="soft shrink-0 pl-2 text-sm font-semibold">a bare number is {prettyUnit(unit)}</span>
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
        <div className="mt-1 flex items-center justify-between gap-2">
          <p id="pad-units" className="soft text-xs">
            Takes {units}.
          </p>
          {aside}
        </div>
        <FieldProblems id="pad-problems" problems={shown} />
      </form>
      <div className="mt-2">
        <Readings state={state} dispatch={dispatch} />
        <StrikeReasons state={state} dispatch={dispatch} />
      </div>
    </div>
  );
};
