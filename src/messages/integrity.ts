import type { IntegrityTest } from '@/core/machine/integrity';

/** The words of each look at a filter's seat. */
export const INTEGRITY_WORDS: Record<
  IntegrityTest,
  { readonly name: string; readonly how: string; readonly passed: string; readonly failed: string }
> = {
  cleanSide: {
    name: 'Look at the clean side',
    how: 'Do this one first, with the machine off and isolated. Look in at the exhaust with a light and wipe the clean side with a damp white cloth: the cloth stays clean. Where the clean side cannot be seen from outside, open the machine as for a change.',
    passed: 'Clean',
    failed: 'Dust behind it',
  },
  smoke: {
    name: 'Smoke test along the seals',
    how: 'With the machine closed and running, move smoke along the seat and the lid. It should neither be drawn in nor blown away. Do not open the machine after this.',
    passed: 'Smoke stays still',
    failed: 'Drawn in or blown away',
  },
  particles: {
    name: 'Particle count at the exhaust',
    how: 'Count the room first, then the exhaust: same size, several minutes each. The limits of the count decide.',
    passed: 'Judge the count',
    failed: '',
  },
};
