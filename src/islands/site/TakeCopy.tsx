import { type SyntheticEvent, useState } from 'react';
import { neededOr, SaveRow, useSigned } from '@/ui/save-row';

/** Takes a copy of the records here and now. */
export const TakeCopy = ({ by }: { readonly by: string }) => {
  const [working, setWorking] = useState(false);
  const signed = useSigned(by, () => window.location.reload());
  const needed = neededOr('', signed.by);
  const send = async (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed !== '' || working) return;
    setWorking(true);
    await signed.save('/api/backups', {});
    setWorking(false);
  };
  return (
    <form className="grid gap-2" onSubmit={(e) => void send(e)}>
      <SaveRow id="copy-problems" signed={signed} needed={needed}>
        {working ? 'Making and checking a backup...' : 'Make a backup now'}
      </SaveRow>
    </form>
  );
};
