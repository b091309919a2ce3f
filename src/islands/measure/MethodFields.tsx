import type { Dispatch, ReactNode } from 'react';
import type { GaugeZone, HandWord, LightState } from '@/core/measure/detail';
import type { DetailEntry } from '@/core/measure/detail-entry';
import type { Typed } from '@/core/measure/typed';
import type { Machine } from '@/core/machine/machine';
import { STAGE_KINDS } from '@/core/path/stage-kinds';
import { prettyUnit, type QuantityKind } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { HAND_WORDS, LIGHT_WORDS, ZONE_WORDS } from '@/messages/outcomes';
import { FieldProblems, problemsAt } from '@/ui/problems';
import { type MeasureAction, type MeasureState, retyped } from './state';

interface Props {
  readonly state: MeasureState;
  readonly dispatch: Dispatch<MeasureAction>;
  readonly problems: readonly Problem[];
  readonly machine: Machine;
}

interface TypedProps {
  readonly label: string;
  readonly value: Typed;
  readonly kind: QuantityKind;
  readonly path: string;
  readonly problems: readonly Problem[];
  readonly onChange: (value: Typed) => void;
}

/** A field that takes a number with any unit of its quantity. */
export const TypedInput = ({ label, value, kind, path, problems, onChange }: TypedProps) => {
  const own = problemsAt(problems, path);
  return (
    <label className="block min-w-0">
      <span className="caption">{label}</span>
      <span className="relative block">
        <input
          className="field dial pr-14"
          value={value.typed}
          maxLength={60}
          aria-invalid={own.length > 0}
          onChange={(e) => onChange(retyped(value, e.target.value, kind))}
        />
        <span className="soft absolute top-2.5 right-2 text-sm" aria-hidden="true">
          {prettyUnit(value.unit)}
        </span>
      </span>
      <FieldProblems id={`${path.replaceAll('.', '-')}-problems`} problems={own} />
    </label>
  );
};

interface PickProps<T extends string | number> {
  readonly label: string;
  readonly values: readonly T[];
  readonly chosen: T | null;
  readonly words: (value: T) => string;
  readonly pick: (value: T) => void;
  readonly large?: boolean;
}

const Pick = <T extends string | number>({ label, values, chosen, words, pick, large = false }: PickProps<T>) => (
  <div role="group" aria-label={label} className="min-w-0">
    <span className="caption">{label}</span>
    <div className="flex flex-wrap gap-1">
      {values.map((v) => (
        <button
          key={v}
          type="button"
          className={`choice min-w-0 flex-1 text-center font-semibold ${large ? 'min-h-16 text-xl' : 'text-sm'}`}
          aria-pressed={chosen === v}
          onClick={() => pick(v)}
        >
          {words(v)}
        </button>
      ))}
    </div>
  </div>
);

const StagePick = ({
  machine,
  stageId,
  pick,
}: {
  machine: Machine;
  stageId: number | null;
  pick: (id: number) => void;
}) => (
  <label className="block">
    <span className="caption">Stage</span>
    <select className="field" value={stageId ?? ''} onChange={(e) => pick(Number(e.target.value))}>
      {stageId === null && <option value="">choose</option>}
      {machine.stages
        .filter((s) => STAGE_KINDS[s.kind].filters && !s.missing)
        .map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
    </select>
  </label>
);

const set = (dispatch: Dispatch<MeasureAction>, detail: DetailEntry) => dispatch({ type: 'detail', detail });

const DuctFields = ({
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
      ) : (
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
      )}
    </div>
  );
};

const CurveFields = ({
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

const ParticleFields = ({
  entry,
  dispatch,
  problems,
}: Omit<Props, 'machine' | 'state'> & { entry: Extract<DetailEntry, { kind: 'particles' }> }) => (
  <div className="grid grid-cols-2 gap-2">
    <div className="col-span-2">
      <Pick
        label="Size from"
        values={[0.3, 0.5, 1, 5] as const}
        chosen={entry.sizeUm as 0.3}
        words={(v) => `${v} µm`}
        pick={(sizeUm) => set(dispatch, { ...entry, sizeUm })}
      />
    </div>
    <TypedInput
      label="Flow of the counter"
      value={entry.flow}
      kind="flow"
      path="detail.flow"
      problems={problems}
      onChange={(flow) => set(dispatch, { ...entry, flow })}
    />
    <TypedInput
      label="Room counted for"
      value={entry.roomTime}
      kind="duration"
      path="detail.roomTime"
      problems={problems}
      onChange={(roomTime) => set(dispatch, { ...entry, roomTime })}
    />
    <TypedInput
      label="Exhaust counted for"
      value={entry.exhaustTime}
      kind="duration"
      path="detail.exhaustTime"
      problems={problems}
      onChange={(exhaustTime) => set(dispatch, { ...entry, exhaustTime })}
    />
    <p className="soft col-span-2 text-xs">Never in the wet exhaust of a water-bath machine: droplets count as dust.</p>
  </div>
);

/** What the method at hand needs to know besides its readings. */
export const MethodFields = ({ state, dispatch, problems, machine }: Props): ReactNode => {
  const entry = state.details[state.method];
  switch (entry.kind) {
    case 'none':
      return null;
    case 'round':
    case 'rectangular':
      return <DuctFields entry={entry} dispatch={dispatch} problems={problems} />;
    case 'plate':
      return (
        <div className="grid grid-cols-3 gap-2">
          <TypedInput
            label="Hole"
            value={entry.orifice}
            kind="length"
            path="detail.orifice"
            problems={problems}
            onChange={(orifice) => set(dispatch, { ...entry, orifice })}
          />
          <TypedInput
            label="Pipe (empty: free room)"
            value={entry.pipe ?? { typed: '', unit: entry.orifice.unit }}
            kind="length"
            path="detail.pipe"
            problems={problems}
            onChange={(pipe) => set(dispatch, { ...entry, pipe: pipe.typed.trim() === '' ? null : pipe })}
          />
          <Pick
            label="C"
            values={[0.6, 0.61, 0.62] as const}
            chosen={entry.coefficient as 0.61}
            words={String}
            pick={(coefficient) => set(dispatch, { ...entry, coefficient })}
          />
        </div>
      );
    case 'curve':
      return <CurveFields entry={entry} dispatch={dispatch} problems={problems} state={state} />;
    case 'stage':
      return (
        <StagePick machine={machine} stageId={entry.stageId} pick={(stageId) => set(dispatch, { ...entry, stageId })} />
      );
    case 'mass':
      return (
        <div className="grid grid-cols-2 gap-2">
          <StagePick
            machine={machine}
            stageId={entry.stageId}
            pick={(stageId) => set(dispatch, { ...entry, stageId })}
          />
          <TypedInput
            label="A new one weighs"
            value={entry.newMass}
            kind="mass"
            path="detail.newMass"
            problems={problems}
            onChange={(newMass) => set(dispatch, { ...entry, newMass })}
          />
        </div>
      );
    case 'particles':
      return <ParticleFields entry={entry} dispatch={dispatch} problems={problems} />;
    case 'zone':
      return (
        <div className="space-y-2">
          <StagePick
            machine={machine}
            stageId={entry.stageId}
            pick={(stageId) => set(dispatch, { ...entry, stageId })}
          />
          <Pick
            label="The needle stands in"
            values={Object.keys(ZONE_WORDS) as GaugeZone[]}
            chosen={entry.zone}
            words={(v) => ZONE_WORDS[v]}
            pick={(zone) => set(dispatch, { ...entry, zone })}
            large
          />
        </div>
      );
    case 'hand':
      return (
        <Pick
          label="The air feels"
          values={Object.keys(HAND_WORDS) as HandWord[]}
          chosen={entry.word}
          words={(v) => HAND_WORDS[v]}
          pick={(word) => set(dispatch, { ...entry, word })}
          large
        />
      );
    case 'light':
      return (
        <div className="space-y-2">
          <Pick
            label="The light is"
            values={Object.keys(LIGHT_WORDS) as LightState[]}
            chosen={entry.light}
            words={(v) => LIGHT_WORDS[v]}
            pick={(light) => set(dispatch, { ...entry, light })}
            large
          />
          <div className="grid grid-cols-2 gap-2">
            <label className="block">
              <span className="caption">Which light, at which speed</span>
              <input
                className="field"
                value={entry.name}
                maxLength={80}
                onChange={(e) => set(dispatch, { ...entry, name: e.target.value })}
              />
            </label>
            <TypedInput
              label="Seconds after the start"
              value={entry.after}
              kind="duration"
              path="detail.after"
              problems={problems}
              onChange={(after) => set(dispatch, { ...entry, after })}
            />
          </div>
        </div>
      );
  }
};
