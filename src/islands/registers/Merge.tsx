import { type SyntheticEvent, useState } from 'react';
import type { Part } from '@/core/stock/part';
import { neededOr, SaveRow, useSigned } from '@/ui/save-row';

interface MergeProps {
  readonly part: Part;
  readonly others: readonly { readonly id: number; readonly code: string; readonly name: string }[];
  readonly by: string;
}

const neededOf = (into: string, same: boolean): string =>
  into === '' ? 'Choose the entry that stays.' : same ? '' : 'Hold the two side by side first.';

/** Says that this entry is another one's part: only with both in hand. */
export const MergePart = ({ part, others, by }: MergeProps) => {
  const [into, setInto] = useState('');
  const [same, setSame] = useState(false);
  const signed = useSigned(by, () => window.location.assign(`/stock/parts/${into}`));
  const needed = neededOr(neededOf(into, same), signed.by);
  const kept = others.find((o) => String(o.id) === into);
  const send = (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed === '') void signed.save('/api/stock/merges', { partId: part.id, intoId: Number(into) });
  };
  return (
    <form className="grid gap-3 py-3" onSubmit={send}>
      <p className="soft text-sm">
        {part.code} goes, the other one stays. What lies on the shelf is booked over, and every machine that takes{' '}
        {part.code} takes the other one. Past changes on file stay unchanged. You cannot undo this.
      </p>
      <label className="block">
        <span className="caption">The entry that stays</span>
        <select
          className="field"
          value={into}
          onChange={(e) => {
            setInto(e.target.value);
            setSame(false);
          }}
        >
          <option value="">choose</option>
          {others.map((o) => (
            <option key={o.id} value={o.id}>
              {o.code}, {o.name}
            </option>
          ))}
        </select>
      </label>
      {kept && (
        <label className="flex min-h-11 items-center gap-2">
          <input type="checkbox" className="checkbox" checked={same} onChange={(e) => setSame(e.target.checked)} />
          <span>
            I held {part.code} and {kept.code} side by side: same medium, area, rating, size and seal.
          </span>
        </label>
      )}
      <SaveRow id={`merge-${part.id}`} signed={signed} needed={needed}>
        Make them one
      </SaveRow>
    </form>
  );
};
