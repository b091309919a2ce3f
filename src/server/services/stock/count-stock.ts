import { CountAnswer, PlainAnswer } from '@/contracts/action-answer';
import type { CountStockBody, ReceivedBody } from '@/contracts/requests';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { countDifference } from '@/core/stock/ledger';
import { insertMovement, loadParts } from '../../repositories/stock';
import { type Context, runOnce } from '../yard/user-action';

/** Sets a part's ledger to the count on the shelf. Returns the booked difference. */
export const countStock = async (
  { db, now }: Context,
  body: CountStockBody,
): Promise<Result<{ id: number; difference: number }>> => {
  const at = now();
  return runOnce(db, { kind: 'count stock', body, at, answers: CountAnswer }, async (tx) => {
    const part = (await loadParts(tx)).find((p) => p.id === body.partId);
    if (!part) return fail(failure('part.unknown', 'partId'));
    const difference = countDifference({ counted: body.counted, ledger: part.onHand });
    const movement = {
      partId: part.id,
      quantity: difference,
      reason: 'counted' as const,
      at,
      by: body.by,
      of: { kind: 'none' as const },
    };
    await insertMovement(tx, { ...movement, note: body.note });
    return ok({ id: part.id, difference });
  });
};

/** Books in pieces that came without an order on record. */
export const receiveParts = async (
  { db, now }: Context,
  { partId, pieces, note, ...body }: ReceivedBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  const action = { kind: 'received', body: { partId, pieces, note, ...body }, at, answers: PlainAnswer };
  return runOnce(db, action, async (tx) => {
    if (!(await loadParts(tx)).some((p) => p.id === partId)) return fail(failure('part.unknown', 'partId'));
    await insertMovement(tx, {
      partId,
      quantity: pieces,
      reason: 'delivery',
      at,
      by: body.by,
      of: { kind: 'none' },
      note: note === '' ? 'without an order' : note,
    });
    return ok({ id: partId });
  });
};
