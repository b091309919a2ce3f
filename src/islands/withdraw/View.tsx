import { useState } from 'react';
import type { Problem } from '@/messages/failures';
import { newClientId, postAction } from '@/ui/post-action';
import { FieldProblems } from '@/ui/problems';

interface WithdrawProps {
  readonly tag: string;
  readonly of: 'tests' | 'changes';
  readonly id: number;
  readonly by: string;
  readonly clientId: string;
}

/** Withdraws a record that never was: asks for the reason once; the original stays readable. */
export const Withdraw = ({ tag, of, id, by, clientId }: WithdrawProps) => {
  const [reason, setReason] = useState('');
  const [initials, setInitials] = useState(by);
  const [actionId, setActionId] = useState(clientId);
  const [sending, setSending] = useState(false);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const send = async () => {
    setSending(true);
    const body = { clientId: actionId, by: initials.trim().toUpperCase(), supersedesId: id, correctionReason: reason };
    const posted = await postAction(`/api/machines/${encodeURIComponent(tag)}/${of}/withdraw`, body);
    if (posted.ok) {
      window.location.assign(`/m/${tag}/file?saved=withdrawn`);
      return;
    }
    setProblems(posted.problems);
    setSending(false);
    if (posted.problems.some((p) => p.code === 'action.reused')) setActionId(newClientId());
  };
  return (
    <details className="panel px-3">
      <summary className="flex min-h-11 cursor-pointer items-center font-semibold">
        Wrong machine, or never done: withdraw it
      </summary>
      <div className="flex flex-wrap items-end gap-2 pb-3">
        <label className="block w-24">
          <span className="caption">Initials</span>
          <input className="field" value={initials} maxLength={12} onChange={(e) => setInitials(e.target.value)} />
        </label>
        <label className="block min-w-52 flex-1">
          <span className="caption">Why is it withdrawn?</span>
          <input className="field" value={reason} maxLength={300} onChange={(e) => setReason(e.target.value)} />
        </label>
        <button type="button" className="choice font-bold" disabled={sending} onClick={() => void send()}>
          Withdraw the record
        </button>
        <FieldProblems id="withdraw-problems" problems={problems} />
      </div>
    </details>
  );
};
