import { type SyntheticEvent, useState } from 'react';
import { neededOr, SaveRow, useSigned } from '@/ui/save-row';

interface RestoreProps {
  readonly name: string;
  /** The records a restore would lose, in a sentence. */
  readonly lost: string;
  readonly by: string;
}

/** Restores a backup, after the person has confirmed the loss. */
export const Restore = ({ name, lost, by }: RestoreProps) => {
  const [sure, setSure] = useState(false);
  const [working, setWorking] = useState(false);
  const signed = useSigned(by, () => window.location.assign('/backups?restored'));
  const needed = neededOr(sure ? '' : 'Read what would be lost, and tick the box.', signed.by);
  const send = async (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed !== '' || working) return;
    setWorking(true);
    await signed.save('/api/backups/restore', { name });
    setWorking(false);
  };
  return (
    <form className="grid gap-2 py-2" onSubmit={(e) => void send(e)}>
      <p>{lost}</p>
      <label className="flex min-h-11 items-center gap-2">
        <input type="checkbox" className="checkbox" checked={sure} onChange={(e) => setSure(e.target.checked)} />
        <span>Replace the records with this backup. The present records are kept as a backup.</span>
      </label>
      <SaveRow id={`restore-${name}`} signed={signed} needed={needed}>
        {working ? 'Restoring...' : 'Restore it'}
      </SaveRow>
    </form>
  );
};
