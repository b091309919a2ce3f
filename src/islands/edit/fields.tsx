import type { ReactNode } from 'react';
import type { UnitSystem } from '@/core/units';
import type { DraftStage, EditAction } from './state';

/** What every field of a stage is handed. */
export interface StageFieldProps {
  readonly stage: DraftStage;
  readonly units: UnitSystem;
  readonly dispatch: (action: EditAction) => void;
}

export const Choose = ({
  label,
  value,
  options,
  onChoose,
}: {
  label: string;
  value: string;
  options: readonly (readonly [value: string, label: string])[];
  onChoose: (value: string) => void;
}) => (
  <label className="block">
    <span className="caption">{label}</span>
    <select className="field" value={value} onChange={(e) => onChoose(e.currentTarget.value)}>
      {options.map(([v, text]) => (
        <option key={v} value={v}>
          {text}
        </option>
      ))}
    </select>
  </label>
);

export const Tick = ({
  label,
  on,
  onTick,
  hint,
}: {
  label: string;
  on: boolean;
  onTick: (on: boolean) => void;
  hint?: string;
}) => (
  <label className="flex min-h-11 cursor-pointer items-start gap-2 py-1.5">
    <input
      type="checkbox"
      className="checkbox checkbox-primary mt-0.5"
      checked={on}
      onChange={(e) => onTick(e.currentTarget.checked)}
    />
    <span>
      <span className="font-semibold">{label}</span>
      {hint && <span className="soft block text-sm">{hint}</span>}
    </span>
  </label>
);

interface NumberFieldProps {
  readonly label: string;
  readonly value: number;
  readonly low: number;
  readonly high: number;
  readonly step: number;
  readonly onValue: (value: number) => void;
}

/** A bare count or factor; a value outside its limits is refused. */
export const NumberField = ({ label, value, low, high, step, onValue }: NumberFieldProps) => (
  <label className="block">
    <span className="caption">
      {label}, {low} to {high}
    </span>
    <input
      className="field"
      type="number"
      min={low}
      max={high}
      step={step}
      defaultValue={value}
      onChange={(e) => {
        const n = e.currentTarget.valueAsNumber;
        if (n >= low && n <= high) onValue(n);
      }}
    />
  </label>
);

export const Grid = ({ children }: { children: ReactNode }) => (
  <div className="grid gap-x-4 gap-y-2 sm:grid-cols-2">{children}</div>
);
