import type { Dispatch } from 'react';
import type { MeasuredMachine } from '@/core/machine/machine';
import type { DetailEntry } from '@/core/measure/detail-entry';
import type { Typed } from '@/core/measure/typed';
import { STAGE_KINDS } from '@/core/path/stage-kinds';
import { prettyUnit, type QuantityKind } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { FieldProblems, problemsAt } from '@/ui/problems';
import { type MeasureAction, type MeasureState, retyped } from './state';

export interface Props {
  readonly state: MeasureState;
  readonly dispatch: Dispatch<MeasureAction>;
  readonly problems: readonly Problem[];
  readonly machine: MeasuredMachine;
}

export type EntryProps<K extends DetailEntry['kind']> = Omit<Props, 'state' | 'machine'> & {
  readonly entry: Extract<DetailEntry, { kind: K }>;
};

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

export const Pick = <T extends string | number>({
  label,
  values,
  chosen,
  words,
  pick,
  large = false,
}: PickProps<T>) => (
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

export const StagePick = ({
  machine,
  stageId,
  pick,
}: {
  machine: MeasuredMachine;
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

/** Puts an input of the method into the state. */
export const set = (dispatch: Dispatch<MeasureAction>, detail: DetailEntry) => dispatch({ type: 'detail', detail });
