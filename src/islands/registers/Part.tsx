import { type SyntheticEvent, useState } from 'react';
import type { Part } from '@/core/stock/part';
import type { UnitSystem } from '@/core/units';
import { QuantityField } from '@/ui/quantity-field';
import { neededOr, RetiredTick, SaveRow, useSigned } from '@/ui/save-row';
import { TextField } from '@/ui/text-fields';

interface Draft {
  readonly code: string;
  readonly name: string;
  readonly bin: string;
  readonly supplier: string;
  readonly pack: string;
  readonly price: string;
  readonly lead: string;
  readonly shelf: string;
  readonly minimum: string;
  readonly onHand: string;
  readonly medium: string;
  readonly areaM2: number | null;
  readonly rating: string;
  readonly retired: boolean;
}

const textOf = (n: number | null): string => (n === null ? '' : String(n));

const draftOf = (part: Part | null): Draft => ({
  code: part?.code ?? '',
  name: part?.name ?? '',
  bin: part?.bin ?? '',
  supplier: part?.supplier ?? '',
  pack: textOf(part?.packSize ?? 1),
  price: textOf(part?.price ?? null),
  lead: textOf(part?.leadDays ?? 7),
  shelf: textOf(part?.shelfDays ?? null),
  minimum: textOf(part?.minimum ?? null),
  onHand: '',
  medium: part?.medium ?? '',
  areaM2: part?.areaM2 ?? null,
  rating: part?.rating ?? '',
  retired: part?.retired ?? false,
});

/** A whole number typed, or null where nothing is; NaN for anything else. */
const whole = (text: string): number | null =>
  text.trim() === '' ? null : /^\d+$/.test(text.trim()) ? Number(text) : Number.NaN;

const money = (text: string): number => (text.trim() === '' ? 0 : Number(text.replace(',', '.')));

const neededOf = (d: Draft): string => {
  if (d.code.trim() === '' || d.name.trim() === '') return 'Give it a code and a name.';
  const counts = [d.pack, d.lead, d.shelf, d.minimum, d.onHand].map(whole);
  if (counts.some((n) => Number.isNaN(n))) return 'Packs, days and pieces are whole numbers.';
  if ((whole(d.pack) ?? 0) < 1) return 'A pack holds at least one piece.';
  return money(d.price) >= 0 ? '' : 'Write the price as a number.';
};

interface CountFieldProps {
  readonly label: string;
  readonly hint: string;
  readonly value: string;
  readonly onValue: (value: string) => void;
}

const CountField = ({ label, hint, value, onValue }: CountFieldProps) => (
  <label className="block w-36">
    <span className="caption">{label}</span>
    <input
      className="field dial"
      inputMode="decimal"
      value={value}
      maxLength={9}
      onChange={(e) => onValue(e.target.value)}
    />
    <span className="soft text-xs">{hint}</span>
  </label>
);

const bodyOf = (draft: Draft, part: Part | null): object => ({
  id: part?.id ?? null,
  code: draft.code,
  name: draft.name,
  packSize: whole(draft.pack),
  bin: draft.bin,
  supplier: draft.supplier,
  price: money(draft.price),
  leadDays: whole(draft.lead) ?? 0,
  shelfDays: whole(draft.shelf),
  minimum: whole(draft.minimum),
  onHand: part ? null : whole(draft.onHand),
  medium: draft.medium,
  areaM2: draft.areaM2,
  rating: draft.rating,
  retired: draft.retired,
});

interface CountsProps {
  readonly draft: Draft;
  readonly set: (over: Partial<Draft>) => void;
  /** A new one: what lies on the shelf is asked for; later it is counted. */
  readonly fresh: boolean;
}

const Counts = ({ draft, set, fresh }: CountsProps) => (
  <div className="flex flex-wrap gap-3">
    {fresh && (
      <CountField label="On the shelf now" hint="pieces" value={draft.onHand} onValue={(onHand) => set({ onHand })} />
    )}
    <CountField label="Pieces in a pack" hint="1 or more" value={draft.pack} onValue={(pack) => set({ pack })} />
    <CountField
      label="Price of a piece"
      hint="in your own money"
      value={draft.price}
      onValue={(price) => set({ price })}
    />
    <CountField label="Lead time" hint="days" value={draft.lead} onValue={(lead) => set({ lead })} />
    <CountField
      label="Keep at least"
      hint="pieces (leave empty to follow use)"
      value={draft.minimum}
      onValue={(minimum) => set({ minimum })}
    />
    <CountField
      label="Keeps for"
      hint="days (leave empty for no limit)"
      value={draft.shelf}
      onValue={(shelf) => set({ shelf })}
    />
  </div>
);

interface KeepPartProps {
  readonly part: Part | null;
  readonly units: UnitSystem;
  readonly by: string;
}

/** Enters or changes a part. */
export const KeepPart = ({ part, units, by }: KeepPartProps) => {
  const [draft, setDraft] = useState(() => draftOf(part));
  const [badArea, setBadArea] = useState(false);
  const signed = useSigned(by, () => window.location.reload());
  const set = (over: Partial<Draft>) => setDraft((held) => ({ ...held, ...over }));
  const needed = neededOr(badArea ? 'The area is not readable yet.' : neededOf(draft), signed.by);
  const send = (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed === '') void signed.save('/api/stock/parts', bodyOf(draft, part));
  };
  return (
    <form className="grid gap-3 py-3" onSubmit={send}>
      <div className="flex flex-wrap gap-3">
        <TextField label="Code, as on its box" value={draft.code} maxLength={24} onValue={(code) => set({ code })} />
        <TextField label="Name" value={draft.name} maxLength={80} onValue={(name) => set({ name })} />
      </div>
      <div className="flex flex-wrap gap-3">
        <TextField label="Bin or shelf" value={draft.bin} maxLength={24} onValue={(bin) => set({ bin })} />
        <TextField label="Supplier" value={draft.supplier} maxLength={80} onValue={(supplier) => set({ supplier })} />
      </div>
      <div className="flex flex-wrap gap-3">
        <TextField
          label="Medium, as its maker says"
          value={draft.medium}
          maxLength={80}
          onValue={(medium) => set({ medium })}
        />
        <TextField
          label="Rating with the size it is for"
          value={draft.rating}
          maxLength={80}
          onValue={(rating) => set({ rating })}
        />
        <div className="w-32">
          <QuantityField
            id={`area-${part?.id ?? 'new'}`}
            label="Area"
            kind="area"
            valueSi={draft.areaM2}
            units={units}
            low={0.001}
            high={1000}
            mayBeEmpty
            onValue={(areaM2) => set({ areaM2 })}
            onBad={(_, bad) => setBadArea(bad)}
          />
        </div>
      </div>
      <Counts draft={draft} set={set} fresh={part === null} />
      {part && (
        <RetiredTick on={draft.retired} onTick={(retired) => set({ retired })}>
          Retired: not offered for new work; its history stays
        </RetiredTick>
      )}
      <SaveRow id={`part-${part?.id ?? 'new'}`} signed={signed} needed={needed}>
        {part ? 'Save the part' : 'Add the part'}
      </SaveRow>
    </form>
  );
};
