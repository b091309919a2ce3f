import type { MachineKind } from '../machine/kinds';
import type { CautionKey, StepKey } from './step';

/** What feeds a machine, and so what is shut before hands go in. */
export type Feed = 'plug' | 'breaker' | 'air';

/** Fixed units hang on a breaker, an air-driven one on its air. Source: 29 CFR 1910.147, from memory; which kind is fixed is common practice, no published source. */
export const feedOf = (kind: MachineKind): Feed =>
  kind === 'pneumaticHepa'
    ? 'air'
    : kind === 'centralUnit' || kind === 'singleStageCollector' || kind === 'cycloneCollector'
      ? 'breaker'
      : 'plug';

export const ISOLATION: Record<Feed, readonly [StepKey, CautionKey]> = {
  plug: ['isolate', 'unplug'],
  breaker: ['isolateBreaker', 'locked'],
  air: ['isolateAir', 'vented'],
};

export const ISOLATIONS: ReadonlySet<StepKey> = new Set<StepKey>(['isolate', 'isolateBreaker', 'isolateAir']);
