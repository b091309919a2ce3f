import { type SyntheticEvent, useState } from 'react';
import type { DustHazard } from '@/core/machine/machine';
import { neededOr, SaveRow, useSigned } from '@/ui/save-row';

interface RetireProps {
  readonly tag: string;
  readonly gone: boolean;
  readonly hazard: DustHazard;
  readonly by: string;
}

const HOWS = [
  ['retired', 'Retired'],
  ['sold', 'Sold or given away'],
] as const;

/** Takes a machine out of the yard, or brings it back. */
export const Retire = ({ tag, gone, hazard, by }: RetireProps) => {
  const [how, setHow] = useState<'retired' | 'sold'>('retired');
  const [note, setNote] = useState('');
  const base = `/m/${encodeURIComponent(tag)}`;
  const signed = useSigned(by, () => window.location.assign(base));
  const asks = !gone && hazard !== 'plain' && note.trim() === '';
  const needed = neededOr(asks ? 'Say how it was decontaminated, or how it is sealed.' : '', signed.by);
  const send = (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed === '')
      void signed.save(`/api/machines/${encodeURIComponent(tag)}/retire`, {
        how: gone ? 'back' : how,
        note: note.trim(),
      });
  };
  return (
    <form className="grid max-w-2xl gap-3 pb-4" onSubmit={send}>
      {!gone && (
        <div className="flex flex-wrap gap-2" role="group" aria-label="What becomes of it">
          {HOWS.map(([key, words]) => (
            <button key={key} type="button" className="choice" aria-pressed={how === key} onClick={() => setHow(key)}>
              {words}
            </button>
          ))}
        </div>
      )}
      <label className="block">
        <span className="caption">{gone ? 'Where it was' : 'Why, to whom, and in what state'}</span>
        <input
          className="field"
          value={note}
          maxLength={300}
          autoComplete="off"
          onChange={(e) => setNote(e.target.value)}
        />
      </label>
      <SaveRow id="retire-problems" signed={signed} needed={needed}>
        {gone ? 'Bring it back' : 'Take it out of the yard'}
      </SaveRow>
    </form>
  );
};
