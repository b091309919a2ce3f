import { type SyntheticEvent, useState } from 'react';
import { METHODS } from '@/core/measure/methods';
import type { Instrument } from '@/core/record/records';
import { type QuantityKind, type UnitSystem, toDigits } from '@/core/units';
import { QUANTITY_WORDS } from '@/messages/words';
import { DayField } from '@/ui/day-field';
import { QuantityField } from '@/ui/quantity-field';
import { neededOr, RetiredTick, SaveRow, useSigned } from '@/ui/save-row';
import { TextField } from '@/ui/text-fields';

/** Quantities that the methods read. */
const READS: readonly QuantityKind[] = [...new Set(Object.values(METHODS).map((m) => m.reads))];

interface Draft {
  readonly name: string;
  readonly reads: QuantityKind;
  readonly meaning: Instrument['accuracy']['meaning'];
  readonly factor: string;
  readonly relative: string;
  readonly absoluteSi: number | null;
  readonly resolutionSi: number | null;
  readonly certificate: string;
  readonly dueOn: string;
  readonly retired: boolean;
}

const draftOf = (i: Instrument | null): Draft => ({
  name: i?.name ?? '',
  reads: i?.reads ?? 'flow',
  meaning: i?.accuracy.meaning ?? 'limits',
  factor: String(i?.accuracy.coverageFactor ?? 2),
  relative: i ? String(toDigits(100 * i.accuracy.relative, 4)) : '',
  absoluteSi: i?.accuracy.absoluteSi ?? 0,
  resolutionSi: i?.accuracy.resolutionSi ?? null,
  certificate: i?.certificate ?? '',
  dueOn: i?.calibrationDueOn ?? '',
  retired: i?.retired ?? false,
});

const MEANINGS = {
  limits: 'plus or minus, as printed by the maker',
  expanded: 'expanded uncertainty of a certificate',
  standard: 'one standard uncertainty',
} as const;

const number = (text: string): number => Number(text.replace(',', '.'));

const neededOf = (d: Draft, bad: ReadonlySet<string>): string => {
  if (d.name.trim() === '') return 'Give it a name and its serial number.';
  if (bad.size > 0) return 'One of the fields is not readable yet.';
  if (d.relative.trim() === '' || !(number(d.relative) >= 0 && number(d.relative) <= 100))
    return 'Say how far off it may be, in % of the reading: 0 where only a fixed part is stated.';
  if (number(d.relative) === 0 && (d.absoluteSi ?? 0) === 0) return 'No meter is exact: give a share or a fixed part.';
  if (d.resolutionSi === null || !(d.resolutionSi > 0)) return 'Say the smallest step its display shows.';
  return d.meaning === 'expanded' && !(number(d.factor) >= 1 && number(d.factor) <= 10)
    ? 'The coverage factor k of the certificate is 1 to 10, mostly 2.'
    : '';
};

interface AccuracyProps {
  readonly draft: Draft;
  readonly set: (over: Partial<Draft>) => void;
  readonly units: UnitSystem;
  readonly onBad: (id: string, bad: boolean) => void;
  readonly idOf: (field: string) => string;
}

const Accuracy = ({ draft, set, units, onBad, idOf }: AccuracyProps) => (
  <fieldset className="grid gap-2">
    <legend className="font-bold">Accuracy</legend>
    <label className="block max-w-md">
      <span className="caption">How the figure is meant</span>
      <select
        className="field"
        value={draft.meaning}
        onChange={(e) => set({ meaning: e.currentTarget.value as Draft['meaning'] })}
      >
        {(Object.keys(MEANINGS) as Draft['meaning'][]).map((m) => (
          <option key={m} value={m}>
            {MEANINGS[m]}
          </option>
        ))}
      </select>
    </label>
    <div className="flex flex-wrap gap-3">
      <label className="block w-36">
        <span className="caption">% of the reading</span>
        <input
          className="field dial"
          inputMode="decimal"
          value={draft.relative}
          maxLength={6}
          onChange={(e) => set({ relative: e.target.value })}
        />
      </label>
      <div className="w-36">
        <QuantityField
          key={`absolute-${draft.reads}`}
          id={idOf('absolute')}
          label="and a fixed part"
          kind={draft.reads}
          valueSi={draft.absoluteSi}
          units={units}
          low={0}
          high={1e6}
          onValue={(absoluteSi) => set({ absoluteSi })}
          onBad={onBad}
        />
      </div>
      <div className="w-36">
        <QuantityField
          key={`step-${draft.reads}`}
          id={idOf('step')}
          label="Step of its display"
          kind={draft.reads}
          valueSi={draft.resolutionSi}
          units={units}
          low={0}
          high={1e6}
          mayBeEmpty
          onValue={(resolutionSi) => set({ resolutionSi })}
          onBad={onBad}
        />
      </div>
      {draft.meaning === 'expanded' && (
        <label className="block w-36">
          <span className="caption">Coverage factor k</span>
          <input
            className="field dial"
            inputMode="decimal"
            value={draft.factor}
            maxLength={4}
            onChange={(e) => set({ factor: e.target.value })}
          />
        </label>
      )}
    </div>
  </fieldset>
);

interface KeepProps {
  readonly instrument: Instrument | null;
  readonly units: UnitSystem;
  readonly by: string;
}

const bodyOf = (draft: Draft, instrument: Instrument | null): object => ({
  id: instrument?.id ?? null,
  name: draft.name,
  reads: draft.reads,
  accuracy: {
    meaning: draft.meaning,
    coverageFactor: draft.meaning === 'expanded' ? number(draft.factor) : 2,
    relative: number(draft.relative) / 100,
    absoluteSi: draft.absoluteSi ?? 0,
    resolutionSi: draft.resolutionSi ?? 0,
  },
  certificate: draft.certificate,
  calibrationDueOn: draft.dueOn === '' ? null : draft.dueOn,
  retired: draft.retired,
});

const ReadsField = ({
  reads,
  onReads,
}: {
  readonly reads: QuantityKind;
  readonly onReads: (r: QuantityKind) => void;
}) => (
  <label className="block w-44">
    <span className="caption">Reads</span>
    <select className="field" value={reads} onChange={(e) => onReads(e.currentTarget.value as QuantityKind)}>
      {READS.map((r) => (
        <option key={r} value={r}>
          {QUANTITY_WORDS[r] ?? r}
        </option>
      ))}
    </select>
  </label>
);

/** Enters or changes a meter. */
export const KeepInstrument = ({ instrument, units, by }: KeepProps) => {
  const [draft, setDraft] = useState(() => draftOf(instrument));
  const [bad, setBad] = useState<ReadonlySet<string>>(new Set());
  const signed = useSigned(by, () => window.location.reload());
  const set = (over: Partial<Draft>) => setDraft((held) => ({ ...held, ...over }));
  const idOf = (field: string) => `meter-${instrument?.id ?? 'new'}-${field}`;
  const onBad = (id: string, is: boolean) =>
    setBad((held) => new Set(is ? [...held, id] : [...held].filter((x) => x !== id)));
  const needed = neededOr(neededOf(draft, bad), signed.by);
  const send = (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed === '') void signed.save('/api/instruments', bodyOf(draft, instrument));
  };
  return (
    <form className="grid gap-3 py-3" onSubmit={send}>
      <div className="flex flex-wrap gap-3">
        <TextField label="Name and serial number" value={draft.name} maxLength={80} onValue={(name) => set({ name })} />
        <ReadsField reads={draft.reads} onReads={(reads) => set({ reads, absoluteSi: 0, resolutionSi: null })} />
      </div>
      <Accuracy draft={draft} set={set} units={units} onBad={onBad} idOf={idOf} />
      <div className="flex flex-wrap gap-3">
        <TextField
          label="Calibration certificate"
          value={draft.certificate}
          maxLength={80}
          onValue={(certificate) => set({ certificate })}
        />
        <DayField label="Calibration due" value={draft.dueOn} onValue={(dueOn) => set({ dueOn })} />
      </div>
      {instrument && (
        <RetiredTick on={draft.retired} onTick={(retired) => set({ retired })}>
          No longer used: not offered any more, its tests stay
        </RetiredTick>
      )}
      <SaveRow id={idOf('problems')} signed={signed} needed={needed}>
        {instrument ? 'Save the meter' : 'Add the meter'}
      </SaveRow>
    </form>
  );
};
