import type { RecordedReply } from '@/contracts/responses';
import type { ChangeRecorded } from '../services/jobs/record-change';
import type { Recorded } from '../services/measuring/record-test';
import { sayQuestion, sayShort } from '@/messages/warnings';

export const testReply = ({ id, questions }: Recorded): RecordedReply => ({
  id,
  warnings: questions.map((q) => ({ code: q.code, sentence: sayQuestion(q) })),
});

export const changeReply = ({ id, short }: ChangeRecorded): RecordedReply => ({
  id,
  warnings: short ? [{ code: 'stock.negative', sentence: sayShort(short) }] : [],
});

/** For an action without warnings. */
export const plainReply = ({ id }: { readonly id: number }): RecordedReply => ({ id, warnings: [] });
