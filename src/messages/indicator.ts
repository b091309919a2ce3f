import type { DiscVerdict } from '@/core/path/disc';
import type { NotReady } from '@/core/path/fresh';

export const NOT_READY_WORDS: Record<NotReady['because'], string> = {
  missing: 'missing: fit it first',
  old: 'past half its interval',
  unsaid: 'no interval on record',
};

/** The sensor verdict: in a few words, and what follows. */
export const VERDICT_WORDS: Record<DiscVerdict, readonly [verdict: string, follows: string]> = {
  good: [
    'The indicator is good',
    'It came on with a fifth of the hose open and went out with the hose free. Trust it when it comes on in use.',
  ],
  blind: [
    'The indicator does not light',
    'It gives no warning. Send it for adjustment (a job for a trained person) and measure the flow meanwhile.',
  ],
  stuck: [
    'The indicator stays on',
    'Fresh filters, free hose and still on: a false light, or the selector is wrong. Check the selector. Adjustment is a job for a trained person.',
  ],
};
