import { useEffect, useState } from 'react';
import { failure } from '@/core/failure/failure';
import { type Problem, problemOf } from '@/messages/failures';
import { setChoice } from '@/ui/cookies';
import { postAction } from '@/ui/post-action';
import { FieldProblems, problemsAt } from '@/ui/problems';

interface CountProps {
  readonly partId: number;
  readonly partName: string;
  readonly onHand: number;
  readonly by: string;
  readonly clientId: string;
}

/** Settles one part's ledger to what lies on the shelf. */
export const Count = ({ partId, partName, onHand, by, clientId }: CountProps) => {
  const [counted, setCounted] = useState('');
  const [initials, setInitials] = useState(by);
  const [note, setNote] = useState('');
  const [sending, setSending] = useState(false);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  useEffect(() => {
    document.documentElement.dataset['stock'] = 'ready';
  }, []);
  const send = async () => {
    if (!/^\d+$/.test(counted.trim())) {
      setProblems([problemOf(failure('count.range', 'counted'))]);
      return;
    }
    setSending(true);
    const body = { clientId, by: initials.trim().toUpperCase(), partId, counted: Number(counted), note };
    const posted = await postAction('/api/stock/counts', body);
    if (posted.ok) {
      setChoice('mw_by', initials.trim().toUpperCase());
      window.location.reload();
      return;
    }
    setProblems(posted.problems);
    setSending(false);
  };
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void send();
      }}
    >
      <label className="block w-28">
        <span className="caption">Pieces counted</span>
        <input
          className="field dial"
          inputMode="numeric"
          value={counted}
          maxLength={7}
          placeholder={String(Math.max(0, onHand))}
          aria-label={`Pieces of ${partName} counted`}
          aria-invalid={problems.length > 0}
          onChange={(e) => setCounted(e.target.value)}
        />
      </label>
      <label className="block w-40">
        <span className="caption">Why it differs</span>
        <input className="field" value={note} maxLength={120} onChange={(e) => setNote(e.target.value)} />
      </label>
      <label className="block w-20">
        <span className="caption">Initials</span>
        <input className="field" value={initials} maxLength={12} onChange={(e) => setInitials(e.target.value)} />
      </label>
      <button type="submit" className="choice font-bold" disabled={sending || counted.trim() === ''}>
        Save the count
      </button>
      <FieldProblems
        id={`count-${partId}`}
        problems={problemsAt(problems, 'counted').length > 0 ? problemsAt(problems, 'counted') : problems}
      />
    </form>
  );
};
