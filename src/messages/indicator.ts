import type { DiscVerdict } from '@/core/path/disc';
import type { NotReady } from '@/core/path/fresh';

export const NOT_READY_WORDS: Record<NotReady['because'], string> = {
  missing: 'not there: fit it first',
  old: 'past half of its interval',
  unsaid: 'no interval on record',
};

/** The sensor verdict: in a few words, and what follows. */
export const VERDICT_WORDS: Record<DiscVerdict, readonly [verdict: string, follows: string]> = {
  good: [
    'The indicator is good',
    'On when a fifth is left open, out when it is free. When it lights in use, believe it.',
  ],
  blind: [
    'The indicator does not light',
    'It would not warn. Live adjustment is for trained persons and is not guided here: send it, and measure the flow meanwhile.',
  ],
  stuck: [
    'The indicator stays on',
    'Fresh filters, free hose, and still lit: it lies, or the selector is wrong. Check the selector; live adjustment is for trained persons and is not guided here.',
  ],
};
