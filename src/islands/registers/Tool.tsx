import { type SyntheticEvent, useState } from 'react';
import type { OwnTool } from '@/core/for-work/own-tool';
import { TOOL_KEYS, type ToolKey, TOOLS } from '@/core/for-work/tools';
import type { QuantityKind, UnitSystem } from '@/core/units';
import { SIZE_WORDS, TOOL_WORDS } from '@/messages/work';
import { QuantityField } from '@/ui/quantity-field';
import { neededOr, RetiredTick, SaveRow, useSigned } from '@/ui/save-row';
import { TextField } from '@/ui/text-fields';

type Draft = Omit<OwnTool, 'key'>;

const NEW: Draft = { name: '', like: 'sander', sizeM: null, airM3s: null, amps: null, retired: false };

interface Figure {
  readonly key: 'sizeM' | 'airM3s' | 'amps';
  readonly label: string;
  readonly kind: QuantityKind;
  readonly unit?: string;
  readonly low: number;
  readonly high: number;
  readonly hint: string;
}

const figuresOf = (like: ToolKey, units: UnitSystem): readonly Figure[] => [
  ...(TOOLS[like].size === 'none'
    ? []
    : [
        {
          key: 'sizeM' as const,
          label: SIZE_WORDS[TOOLS[like].size],
          kind: 'length' as const,
          unit: units === 'us' ? 'in' : 'mm',
          low: 0.005,
          high: 1,
          hint: 'Empty: the usual one.',
        },
      ]),
  {
    key: 'airM3s',
    label: 'Air its maker asks for',
    kind: 'flow',
    low: 0.0005,
    high: 2,
    hint: 'Empty: no figure of the maker.',
  },
  { key: 'amps', label: 'Draws, off its plate', kind: 'current', low: 0.1, high: 63, hint: 'Amperes, not watts.' },
];

interface KeepProps {
  readonly tool: OwnTool | null;
  readonly units: UnitSystem;
  readonly by: string;
}

/** Enters or changes a tool of the yard's own. */
export const KeepTool = ({ tool, units, by }: KeepProps) => {
  const [draft, setDraft] = useState<Draft>(tool ?? NEW);
  const [bad, setBad] = useState<ReadonlySet<string>>(new Set());
  const signed = useSigned(by, () => window.location.assign('/tools'));
  const set = (over: Partial<Draft>) => setDraft((held) => ({ ...held, ...over }));
  const own =
    draft.name.trim().length < 2 ? 'Give it a name.' : bad.size > 0 ? 'One of the figures is not readable yet.' : '';
  const needed = neededOr(own, signed.by);
  const send = (event: SyntheticEvent) => {
    event.preventDefault();
    const { name, like, sizeM, airM3s, amps, retired } = draft;
    const size = TOOLS[like].size === 'none' ? null : sizeM;
    if (needed === '')
      void signed.save('/api/tools', { key: tool?.key ?? null, name, like, sizeM: size, airM3s, amps, retired });
  };
  return (
    <form className="grid gap-3 py-3" onSubmit={send}>
      <div className="flex flex-wrap gap-3">
        <TextField label="Name" value={draft.name} maxLength={60} onValue={(name) => set({ name })} />
        <label className="block w-44">
          <span className="caption">Kind of tool</span>
          <select
            className="field"
            value={draft.like}
            onChange={(e) => set({ like: e.currentTarget.value as ToolKey, sizeM: null })}
          >
            {TOOL_KEYS.map((t) => (
              <option key={t} value={t}>
                {TOOL_WORDS[t]}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="flex flex-wrap gap-3">
        {figuresOf(draft.like, units).map(({ key, ...f }) => (
          <div key={`${draft.like}-${key}`} className="w-52">
            <QuantityField
              id={`tool-${tool?.key ?? 'new'}-${key}`}
              {...f}
              valueSi={draft[key]}
              units={units}
              mayBeEmpty
              onValue={(value) => set({ [key]: value })}
              onBad={(id, is) => setBad((held) => new Set(is ? [...held, id] : [...held].filter((x) => x !== id)))}
            />
          </div>
        ))}
      </div>
      {tool && (
        <RetiredTick on={draft.retired} onTick={(retired) => set({ retired })}>
          No longer used: not offered any more
        </RetiredTick>
      )}
      <SaveRow id={`tool-${tool?.key ?? 'new'}`} signed={signed} needed={needed}>
        {tool ? 'Save the tool' : 'Add the tool'}
      </SaveRow>
    </form>
  );
};
