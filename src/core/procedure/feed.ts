import type { Feed } from '../machine/kinds';
import type { CautionKey, StepKey } from './step';

/** How each feed is shut, and how it comes back. Source: 29 CFR 1910.147, from memory. */
export const ISOLATION: Record<Feed, { readonly off: StepKey; readonly on: StepKey; readonly caution: CautionKey }> = {
  plug: { off: 'isolate', on: 'restorePlug', caution: 'unplug' },
  breaker: { off: 'isolateBreaker', on: 'restoreBreaker', caution: 'locked' },
  air: { off: 'isolateAir', on: 'restoreAir', caution: 'vented' },
};
