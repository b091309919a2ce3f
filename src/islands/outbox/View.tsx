import { useState } from 'react';
import type { Problem } from '@/messages/failures';
import { FieldProblems } from '@/ui/problems';
import { usePostOnce } from '@/ui/use-post-once';

/** Sends today's reminders; each goes out once. */
export const Send = () => {
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [sending, setSending] = useState(false);
  const post = usePostOnce();
  const send = async () => {
    setSending(true);
    const posted = await post('/api/plan/reminders', {});
    setSending(false);
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (posted.ok) window.location.reload();
  };
  return (
    <div>
      <button type="button" className="go" disabled={sending} onClick={() => void send()}>
        {sending ? 'Sending...' : 'Send reminders now'}
      </button>
      <FieldProblems id="send-problems" problems={problems} />
    </div>
  );
};
