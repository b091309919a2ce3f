import { type SyntheticEvent, useState } from 'react';
import { DayField } from '@/ui/day-field';
import { neededOr, SaveRow, useSigned } from '@/ui/save-row';
import { TextField } from '@/ui/text-fields';

interface BondingProps {
  readonly tag: string;
  readonly today: string;
  readonly by: string;
  /** Paths measured before: the same words make the same path. */
  readonly paths: readonly string[];
}

const ohmOf = (text: string): number => Number(text.trim().replace(',', '.'));

/** Writes down a continuity reading. */
export const KeepBonding = ({ tag, today, by, paths }: BondingProps) => {
  const [on, setOn] = useState(today);
  const [between, setBetween] = useState(paths[0] ?? 'hose end to earth pin, lead clamped');
  const [ohm, setOhm] = useState('');
  const [open, setOpen] = useState(false);
  const signed = useSigned(by, () => window.location.reload());
  const readable = open || (ohm.trim() !== '' && ohmOf(ohm) >= 0 && ohmOf(ohm) <= 1e12);
  const own =
    between.trim().length < 2
      ? 'Say from where to where.'
      : readable
        ? ''
        : 'Type what the meter read, in ohm, or tick that it read open.';
  const needed = neededOr(own, signed.by);
  const send = (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed === '')
      void signed.save(`/api/machines/${encodeURIComponent(tag)}/bonding`, {
        on,
        between: between.trim(),
        ohm: open ? null : ohmOf(ohm),
      });
  };
  return (
    <form className="grid gap-3 py-3" onSubmit={send}>
      <div className="flex flex-wrap gap-3">
        <div className="w-44">
          <DayField label="Measured on" value={on} onValue={setOn} />
        </div>
        <TextField label="From where to where" value={between} maxLength={120} onValue={setBetween} />
        <label className="block w-36">
          <span className="caption">Ohm</span>
          <input
            className="field dial"
            inputMode="decimal"
            value={ohm}
            disabled={open}
            maxLength={14}
            onChange={(e) => setOhm(e.target.value)}
          />
        </label>
      </div>
      <label className="flex min-h-11 items-center gap-2">
        <input type="checkbox" className="checkbox" checked={open} onChange={(e) => setOpen(e.target.checked)} />
        <span>The meter read open: no way to earth</span>
      </label>
      <SaveRow id={`bonding-${tag}`} signed={signed} needed={needed}>
        Record the reading
      </SaveRow>
    </form>
  );
};
