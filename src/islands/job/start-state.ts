import type { DustStatement } from '@/core/dust/assess';
import { type ChangeReason } from '@/core/record/records';

/** Choices made at the start of a job. */
export interface StartState {
  readonly dust: DustStatement;
  readonly reason: ChangeReason;
  readonly by: string;
  readonly partInHand: boolean;
}
