import { PLATE_COEFFICIENT } from '@/core/constants/rig';
import type { DetailEntry } from '@/core/measure/detail-entry';
import { FieldProblems, problemsAt } from '@/ui/problems';
import { type EntryProps, Pick, type Props, set, TypedInput } from './detail-inputs';
import { retyped } from './state';

const RoundFields = ({ entry, dispatch, problems }: EntryProps<'round'>) => (
  <>
    <TypedInput
      label="Inside diameter"
      value={entry.diameter}
      kind="length"
      path="detail.diameter"
      problems={problems}
      onChange={(diameter) => set(dispatch, { ...entry, diameter })}
    />
    <Pick
      label="Points a diameter"
      values={[6, 10] as const}
      chosen={entry.pointsPerDiameter}
      words={String}
      pick={(pointsPerDiameter) => set(dispatch, { ...entry, pointsPerDiameter })}
    />
    <Pick
      label="Diameters"
      values={[1, 2, 3] as const}
      chosen={entry.diameters}
      words={String}
      pick={(diameters) => set(dispatch, { ...entry, diameters })}
    />
  </>
);

const RectangularFields = ({ entry, dispatch, problems }: EntryProps<'rectangular'>) => (
  <>
    <TypedInput
      label="Inside width"
      value={entry.width}
      kind="length"
      path="detail.width"
      problems={problems}
      onChange={(width) => set(dispatch, { ...entry, width })}
    />
    <TypedInput
      label="Inside height"
      value={entry.height}
      kind="length"
      path="detail.height"
      problems={problems}
      onChange={(height) => set(dispatch, { ...entry, height })}
    />
    <Pick
      label="Points across"
      values={[5, 6, 7] as const}
      chosen={entry.linesAcross}
      words={String}
      pick={(linesAcross) => set(dispatch, { ...entry, linesAcross })}
    />
    <Pick
      label="Lines up"
      values={[5, 6, 7] as const}
      chosen={entry.linesUp}
      words={String}
      pick={(linesUp) => set(dispatch, { ...entry, linesUp })}
    />
  </>
);

/** Inputs of a duct traverse besides its readings. */
export const DuctFields = ({
  entry,
  dispatch,
  problems,
}: Omit<Props, 'state' | 'machine'> & { entry: Extract<DetailEntry, { kind: 'round' | 'rectangular' }> }) => {
  const size = entry.kind === 'round' ? entry.diameter : entry.width;
  return (
    <div className="grid grid-cols-2 gap-2">
      <Pick
        label="Duct"
        values={['round', 'rectangular'] as const}
        chosen={entry.kind}
        words={(v) => v}
        pick={(shape) =>
          set(
            dispatch,
            shape === 'round'
              ? { kind: 'round', diameter: size, pointsPerDiameter: 6, diameters: 2 }
              : { kind: 'rectangular', width: size, height: size, linesAcross: 5, linesUp: 5 },
          )
        }
      />
      {entry.kind === 'round' ? (
        <RoundFields entry={entry} dispatch={dispatch} problems={problems} />
      ) : (
        <RectangularFields entry={entry} dispatch={dispatch} problems={problems} />
      )}
    </div>
  );
};

/** Inputs of a suction curve besides its readings. */
export const CurveFields = ({
  entry,
  dispatch,
  problems,
  state,
}: Omit<Props, 'machine'> & { entry: Extract<DetailEntry, { kind: 'curve' }> }) => (
  <fieldset>
    <legend className="caption">Openings: 0 is sealed. Tap one to read it next.</legend>
    <div className="grid grid-cols-3 gap-1">
      {entry.orifices.map((o, i) => (
        <div key={i} className="flex">
          <input
            className="field dial min-w-0 flex-1"
            aria-label={`Opening ${i + 1}`}
            value={o.typed}
            maxLength={20}
            aria-invalid={problemsAt(problems, `detail.orifices.${i}`).length > 0}
            onChange={(e) =>
              set(dispatch, {
                ...entry,
                orifices: entry.orifices.map((x, j) => (j === i ? retyped(x, e.target.value, 'length') : x)),
              })
            }
          />
          <button
            type="button"
            className="choice px-2 text-xs"
            aria-pressed={state.slotChoice === i}
            onClick={() => dispatch({ type: 'slot', slot: i })}
          >
            next
          </button>
        </div>
      ))}
    </div>
    <FieldProblems id="curve-problems" problems={problemsAt(problems, 'detail')} />
  </fieldset>
);

/** Inputs of a plate besides its readings. */
export const PlateFields = ({ entry, dispatch, problems }: EntryProps<'plate'>) => (
  <div className="grid grid-cols-2 gap-2">
    <TypedInput
      label="Hole"
      value={entry.orifice}
      kind="length"
      path="detail.orifice"
      problems={problems}
      onChange={(orifice) => set(dispatch, { ...entry, orifice })}
    />
    <TypedInput
      label="Pipe, if in one"
      value={entry.pipe ?? { typed: '', unit: entry.orifice.unit }}
      kind="length"
      path="detail.pipe"
      problems={problems}
      onChange={(pipe) =>
        set(
          dispatch,
          pipe.typed.trim() === ''
            ? { ...entry, pipe: null, coefficient: entry.coefficient ?? PLATE_COEFFICIENT.value }
            : { ...entry, pipe, coefficient: entry.pipe ? entry.coefficient : null },
        )
      }
    />
    <div className="col-span-2">
      <Pick
        label="Coefficient C"
        values={entry.pipe ? (['ISO 5167', 0.6, 0.61, 0.62] as const) : ([0.6, 0.61, 0.62] as const)}
        chosen={(entry.coefficient ?? 'ISO 5167') as 0.61 | 'ISO 5167'}
        words={String}
        pick={(c) => set(dispatch, { ...entry, coefficient: c === 'ISO 5167' ? null : c })}
      />
    </div>
  </div>
);
