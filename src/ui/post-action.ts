import type { RecordedReply } from '@/contracts/responses';
import { noAnswer } from '@/messages/failure-texts/no-answer';
import type { Problem } from '@/messages/problem';

export type Posted = { readonly ok: true; readonly reply: RecordedReply } | Refused;

interface Refused {
  readonly ok: false;
  readonly problems: readonly Problem[];
}

/** The problems that a refusal's body says. Throws when it says none. */
const problemsOfBody = async (data: unknown): Promise<readonly Problem[]> => {
  const { ProblemReply } = await import('@/contracts/responses');
  return ProblemReply.parse(data).problems;
};

/** The problems of a refused request. Never throws: an answer that cannot be read counts as none. */
export const problemsIn = async (response: Response): Promise<readonly Problem[]> => {
  try {
    return await problemsOfBody(await response.json());
  } catch {
    return [noAnswer()];
  }
};

/**
 * Sends a request and reads the answer by `read`, which is loaded with the first answer because it is a third of a
 * page. Never throws: a network fault is a problem like others.
 */
export const postFor = async <T>(
  url: string,
  body: unknown,
  read: () => Promise<(data: unknown) => T>,
): Promise<{ readonly ok: true; readonly value: T } | Refused> => {
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    const data: unknown = await response.json();
    if (response.ok) return { ok: true, value: (await read())(data) };
    return { ok: false, problems: await problemsOfBody(data) };
  } catch {
    return { ok: false, problems: [noAnswer()] };
  }
};

/** Sends one user action and reads the answer into its shape. Never throws. */
export const postAction = async (url: string, body: unknown): Promise<Posted> => {
  const sent = await postFor(url, body, async () => {
    const { RecordedReply: shape } = await import('@/contracts/responses');
    return (data) => shape.parse(data);
  });
  return sent.ok ? { ok: true, reply: sent.value } : sent;
};

/** A fresh id for one user action; works where the page is not served securely too. */
export const newClientId = (): string =>
  [...crypto.getRandomValues(new Uint8Array(16))].map((b) => b.toString(16).padStart(2, '0')).join('');
