import { type SyntheticEvent, useState } from 'react';
import { neededOr, SaveRow, useSigned } from '@/ui/save-row';

/** Corrects a wrong tag; the old one still finds the machine. */
export const Retag = ({ tag, by }: { readonly tag: string; readonly by: string }) => {
  const [wanted, setWanted] = useState(tag);
  const next = wanted.trim().toUpperCase();
  const signed = useSigned(by, () => window.location.assign(`/m/${encodeURIComponent(next)}/edit`));
  const own = next === tag ? 'Type the tag it should have.' : next === '' ? 'A machine needs a tag.' : '';
  const needed = neededOr(own, signed.by);
  const send = (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed === '') void signed.save(`/api/machines/${encodeURIComponent(tag)}/tag`, { tag: next });
  };
  return (
    <form className="grid gap-2 pb-2" onSubmit={send}>
      <label className="block w-44">
        <span className="caption">Tag</span>
        <input
          className="field dial"
          value={wanted}
          maxLength={16}
          autoComplete="off"
          onChange={(e) => setWanted(e.target.value)}
        />
      </label>
      <p className="soft text-sm">
        Old labels with {tag} still lead to this machine. No other machine can take that tag.
      </p>
      <SaveRow id="tag-problems" signed={signed} needed={needed}>
        Correct the tag
      </SaveRow>
    </form>
  );
};
