import { SecretReply } from '@/contracts/people';
import type { Problem } from '@/messages/failures';
import { postFor } from './post-action';

export type Told =
  { readonly ok: true; readonly secret: SecretReply } | { readonly ok: false; readonly problems: readonly Problem[] };

/** Asks for something that is shown once. Never throws. */
export const postForSecret = async (url: string, body: unknown): Promise<Told> => {
  const sent = await postFor(url, body, () => Promise.resolve((data: unknown) => SecretReply.parse(data)));
  return sent.ok ? { ok: true, secret: sent.value } : sent;
};
