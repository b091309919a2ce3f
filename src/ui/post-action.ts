import type { RecordedReply } from '@/contracts/responses';
import { failure } from '@/core/failure/failure';
import { type Problem, problemOf } from '@/messages/failures';

export type Posted =
  { readonly ok: true; readonly reply: RecordedReply } | { readonly ok: false; readonly problems: readonly Problem[] };

const notReached: Posted = { ok: false, problems: [problemOf(failure('action.busy'))] };

/** Sends one user action and reads the answer into its shape. Never throws: a dead line is a problem like another. */
export const postAction = async (url: string, body: unknown): Promise<Posted> => {
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    const data: unknown = await response.json();
    // Fetched with the first answer: what reads answers into their shape is a third of a page.
    const replies = await import('@/contracts/responses');
    if (response.ok) return { ok: true, reply: replies.RecordedReply.parse(data) };
    return { ok: false, problems: replies.ProblemReply.parse(data).problems };
  } catch {
    return notReached;
  }
};

/** A fresh id for one user action; works where the page is not served securely too. */
export const newClientId = (): string =>
  [...crypto.getRandomValues(new Uint8Array(16))].map((b) => b.toString(16).padStart(2, '0')).join('');
