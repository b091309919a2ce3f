import { type SyntheticEvent, useState } from 'react';
import { neededOr, SaveRow, useSigned } from '@/ui/save-row';

interface ReceiveProps {
  readonly partId: number;
  readonly partName: string;
  readonly packSize: number;
  readonly by: string;
}

/** Books in parts that came without an order. */
export const Receive = ({ partId, partName, packSize, by }: ReceiveProps) => {
  const [pieces, setPieces] = useState(String(packSize));
  const [note, setNote] = useState('');
  const signed = useSigned(by, () => window.location.assign(`/stock?saved=${partId}#part-${partId}`));
  const count = /^\d{1,5}$/.test(pieces.trim()) ? Number(pieces) : 0;
  const needed = neededOr(count > 0 ? '' : 'Say how many pieces came.', signed.by);
  const send = (event: SyntheticEvent) => {
    event.preventDefault();
    if (needed === '') void signed.save('/api/stock/received', { partId, pieces: count, note: note.trim() });
  };
  return (
    <form className="grid gap-2" onSubmit={send} aria-label={`${partName} came without an order`}>
      <div className="flex flex-wrap items-end gap-2">
        <label className="w-24">
          <span className="caption">Pieces</span>
          <input
            className="field dial"
            inputMode="numeric"
            value={pieces}
            maxLength={5}
            onChange={(e) => setPieces(e.target.value)}
          />
        </label>
        <label className="min-w-0 flex-1 basis-40">
          <span className="caption">From whom, paper</span>
          <input
            className="field"
            value={note}
            maxLength={120}
            autoComplete="off"
            onChange={(e) => setNote(e.target.value)}
          />
        </label>
      </div>
      <SaveRow id={`received-${partId}`} signed={signed} needed={needed}>
        Book them in
      </SaveRow>
    </form>
  );
};
