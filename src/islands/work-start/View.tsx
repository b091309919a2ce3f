import { type SyntheticEvent } from 'react';
import type { DustStatement } from '@/core/dust/assess';
import { neededOr, SaveRow, useSigned } from '@/ui/save-row';

interface StartProps {
  readonly tag: string;
  readonly dust: DustStatement;
  /** The day it starts, in the site's time zone. */
  readonly today: string;
  readonly by: string;
}

/** The machine goes to this work: its dust is on record from today, so that it is opened by it afterwards. */
export const StartWork = ({ tag, dust, today, by }: StartProps) => {
  const signed = useSigned(by, () => window.location.assign(`/m/${encodeURIComponent(tag)}/dust`));
  const needed = neededOr('', signed.by);
  const send = (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed === '') void signed.save(`/api/machines/${encodeURIComponent(tag)}/dust`, { dust, since: today });
  };
  return (
    <form className="grid gap-2 print:hidden" onSubmit={send}>
      <p className="soft text-sm">
        Notes "{dust.text}" as what {tag} collects from today: from then on it is opened, cleaned and labelled by it.
      </p>
      <SaveRow id="work-start" signed={signed} needed={needed}>
        {tag} goes to this work
      </SaveRow>
    </form>
  );
};
