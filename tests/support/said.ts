import type { Result } from '@/core/failure/failure';

/** How an action ended: "accepted", or the code of its refusal with why. */
export const said = (r: Result<unknown>): string => {
  const first = r.ok ? undefined : r.failures[0];
  if (!first) return 'accepted';
  const { why, fits, tests } = first.facts;
  return `${first.code} ${String(why ?? fits ?? tests ?? first.path)}`.trim();
};
