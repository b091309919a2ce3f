import { SecretReply } from '@/contracts/people';
import { ProblemReply } from '@/contracts/responses';
import { failure } from '@/core/failure/failure';
import { type Problem, problemOf } from '@/messages/failures';

export type Told =
  { readonly ok: true; readonly secret: SecretReply } | { readonly ok: false; readonly problems: readonly Problem[] };

/** Asks for something that is shown once. Never throws. */
export const postForSecret = async (url: string, body: unknown): Promise<Told> => {
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    const data: unknown = await response.json();
    if (response.ok) return { ok: true, secret: SecretReply.parse(data) };
    return { ok: false, problems: ProblemReply.parse(data).problems };
  } catch {
    return { ok: false, problems: [problemOf(failure('action.busy'))] };
  }
};
