import type { DustStatement } from '@/core/dust/assess';
import { type ChangeReason } from '@/core/record/records';

/** What the start of a job has been told so far. */
export interface StartState {
  readonly dust: DustStatement;
  readonly reason: ChangeReason;
  readonly by: string;
  readonly partInHand: boolean;
}
