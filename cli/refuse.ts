import type { Failure } from '@/core/failure/failure';
import { problemsOf } from '@/messages/failures';
import type { CliWorld } from './run';

/** Says what was refused, a sentence and a hint each. Answers the exit code. */
export const refuse = (world: Pick<CliWorld, 'complain'>, failures: readonly Failure[]): number => {
  for (const p of problemsOf(failures)) world.complain(`${p.sentence} ${p.hint}`);
  return 1;
};
