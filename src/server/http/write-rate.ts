import { MINUTE_MS } from '@/core/calendar/time';
/** Tries to sign in from one address in a minute. A Moorwind default. */
const MOST_SIGN_INS = 30;
/** Askers that are remembered; more at once is a flood, and the oldest are forgotten. */
const MOST_HELD = 5000;

interface Counted {
  readonly since: number;
  readonly n: number;
}
const held = new Map<string, Counted>();

/** Counts one write of an asker; false when it was one too many in this minute. */
export const mayWrite = (
  asker: string,
  { path, now, most }: { readonly path: string; readonly now: number; readonly most: number },
): boolean => {
  const signsIn = path.startsWith('/api/sessions');
  const key = `${signsIn ? 'in' : 'w'} ${asker}`;
  const known = held.get(key);
  const counted = known && now - known.since < MINUTE_MS ? { ...known, n: known.n + 1 } : { since: now, n: 1 };
  held.delete(key);
  held.set(key, counted);
  if (held.size > MOST_HELD) for (const [oldest] of [...held].slice(0, MOST_HELD / 10)) held.delete(oldest);
  return counted.n <= (signsIn ? MOST_SIGN_INS : most);
};
