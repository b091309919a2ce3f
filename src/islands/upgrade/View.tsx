import { type SyntheticEvent, useState } from 'react';
import type { UpgradeChange } from '@/core/upgrade/change';
import { neededOr, SaveRow, useSigned } from '@/ui/save-row';
import { TextField } from '@/ui/text-fields';

interface KeepProps {
  readonly tag: string;
  readonly changes: readonly UpgradeChange[];
  readonly price: number | null;
  readonly by: string;
}

/** Keeps a plan with its prediction. */
export const KeepPlan = ({ tag, changes, price, by }: KeepProps) => {
  const [note, setNote] = useState('');
  const base = `/m/${encodeURIComponent(tag)}`;
  const signed = useSigned(by, () => window.location.assign(`${base}/upgrades`));
  const needed = neededOr('', signed.by);
  const send = (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed === '')
      void signed.save(`/api/machines/${encodeURIComponent(tag)}/upgrades`, { note: note.trim(), changes, price });
  };
  return (
    <form className="grid gap-3 py-2" onSubmit={send}>
      <TextField label="What for" value={note} maxLength={300} onValue={setNote} />
      <SaveRow id="upgrade-plan" signed={signed} needed={needed}>
        Keep this plan
      </SaveRow>
    </form>
  );
};

export interface Act {
  readonly action: 'book' | 'undo' | 'drop';
  readonly label: string;
  /** The condition to confirm before the button works; '' for none. */
  readonly confirm: string;
}

interface ActProps {
  readonly tag: string;
  readonly upgradeId: number;
  readonly acts: readonly Act[];
  readonly by: string;
}

const One = ({ tag, upgradeId, by, act }: Omit<ActProps, 'acts'> & { readonly act: Act }) => {
  const [note, setNote] = useState('');
  const [sure, setSure] = useState(false);
  const signed = useSigned(by, () => window.location.reload());
  const needed = neededOr(act.confirm !== '' && !sure ? 'Tick it first.' : '', signed.by);
  const send = (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed === '')
      void signed.save(`/api/machines/${encodeURIComponent(tag)}/upgrades/actions`, {
        note: note.trim(),
        upgradeId,
        action: act.action,
      });
  };
  return (
    <form className="grid gap-2 py-2" onSubmit={send}>
      {act.confirm !== '' && (
        <label className="flex min-h-11 items-center gap-2">
          <input type="checkbox" className="checkbox" checked={sure} onChange={(e) => setSure(e.target.checked)} />
          <span>{act.confirm}</span>
        </label>
      )}
      <TextField label="Note" value={note} maxLength={300} onValue={setNote} />
      <SaveRow id={`upgrade-${upgradeId}-${act.action}`} signed={signed} needed={needed}>
        {act.label}
      </SaveRow>
    </form>
  );
};

/** Possible actions of an upgrade. */
export const UpgradeActs = ({ acts, ...props }: ActProps) => (
  <div className="divide-base-300 divide-y">
    {acts.map((act) => (
      <One key={act.action} {...props} act={act} />
    ))}
  </div>
);
