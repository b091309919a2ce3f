import { useState } from 'react';
import { fromSi, parseQuantity, type QuantityKind, SHOWN, type UnitSystem, toDigits } from '@/core/units';
import { failure } from '@/core/failure/failure';
import { type Problem, problemsOf } from '@/messages/failures';
import { FieldProblems } from './problems';

interface QuantityFieldProps {
  readonly id: string;
  readonly label: string;
  readonly kind: QuantityKind;
  /** null is unknown, and is not zero. */
  readonly valueSi: number | null;
  readonly units: UnitSystem;
  readonly low: number;
  readonly high: number;
  /** Unit shown at first; the system's usual one where this is left out. */
  readonly unit?: string;
  readonly mayBeEmpty?: boolean;
  readonly hint?: string;
  readonly onValue: (valueSi: number | null) => void;
  /** Called when the text cannot be read, so that nothing is saved by mistake. */
  readonly onBad: (id: string, bad: boolean) => void;
}

const textOf = (kind: QuantityKind, valueSi: number | null, unit: string): string =>
  valueSi === null ? '' : `${toDigits(fromSi(kind, valueSi, unit), 5)} ${unit}`;

type Read =
  { readonly ok: true; readonly value: number | null } | { readonly ok: false; readonly problems: readonly Problem[] };

const readField = (text: string, p: QuantityFieldProps, unit: string): Read => {
  if (text.trim() === '')
    return p.mayBeEmpty
      ? { ok: true, value: null }
      : { ok: false, problems: problemsOf([failure('quantity.empty', '', { kind: p.kind })]) };
  const parsed = parseQuantity(text, p.kind, unit);
  if (!parsed.ok) return { ok: false, problems: problemsOf(parsed.failures) };
  const { valueSi } = parsed.value;
  const inside = valueSi >= p.low && valueSi <= p.high;
  return inside
    ? { ok: true, value: valueSi }
    : {
        ok: false,
        problems: problemsOf([
          failure('quantity.out-of-range', '', { kind: p.kind, value: valueSi, low: p.low, high: p.high }),
        ]),
      };
};

/** A quantity typed with any unit, read while typing; what cannot be read stays as typed, with the reason under it. */
export const QuantityField = (p: QuantityFieldProps) => {
  const unit = p.unit ?? SHOWN[p.units][p.kind].unit;
  const [text, setText] = useState(() => textOf(p.kind, p.valueSi, unit));
  const read = readField(text, p, unit);
  const type = (next: string) => {
    setText(next);
    const result = readField(next, p, unit);
    p.onBad(p.id, !result.ok);
    if (result.ok) p.onValue(result.value);
  };
  return (
    <div>
      <label className="block">
        <span className="caption">{p.label}</span>
        <input
          className="field"
          value={text}
          maxLength={24}
          inputMode="text"
          autoComplete="off"
          aria-invalid={!read.ok}
          aria-describedby={read.ok ? undefined : `${p.id}-problem`}
          onChange={(e) => type(e.currentTarget.value)}
        />
      </label>
      {p.hint && read.ok && <p className="soft text-xs">{p.hint}</p>}
      {!read.ok && <FieldProblems id={`${p.id}-problem`} problems={read.problems} />}
    </div>
  );
};
