import { PlainAnswer } from '@/contracts/action-answer';
import type { OrderArrivedBody, OrderPartBody } from '@/contracts/plan';
import { fail, failure, ok, type Result } from '@/core/failure/failure';
import { dayAt } from '@/core/calendar/calendar-date';
import { insertArrival, insertOrder, loadOpenOrders } from '../../repositories/plans';
import { loadSite } from '../../repositories/site';
import { insertMovement, loadParts } from '../../repositories/stock';
import { type Context, runOnce } from '../yard/user-action';

/** Notes that whole packs of a part are ordered, and when they should be here. */
export const orderPart = async (
  { db, now }: Context,
  body: OrderPartBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: 'order part', body, at, answers: PlainAnswer }, async (tx) => {
    const part = (await loadParts(tx)).find((p) => p.id === body.partId);
    if (!part) return fail(failure('part.unknown', 'partId'));
    if (body.arrivesOn < dayAt(at, (await loadSite(tx)).timeZone)) return fail(failure('order.past', 'arrivesOn'));
    return ok({
      id: await insertOrder(tx, {
        partId: part.id,
        quantity: body.packs * part.packSize,
        arrivesOn: body.arrivesOn,
        at,
        by: body.by,
      }),
    });
  });
};

/** An order has arrived: it is on the shelf, and the ledger has its line. */
export const orderArrived = async (
  { db, now }: Context,
  body: OrderArrivedBody,
): Promise<Result<{ readonly id: number }>> => {
  const at = now();
  return runOnce(db, { kind: 'order arrived', body, at, answers: PlainAnswer }, async (tx) => {
    const order = (await loadOpenOrders(tx)).find((o) => o.id === body.orderId);
    if (!order) return fail(failure('order.unknown', 'orderId'));
    await insertArrival(tx, { orderId: order.id, at, by: body.by });
    await insertMovement(tx, {
      partId: order.partId,
      quantity: order.quantity,
      reason: 'delivery',
      at,
      by: body.by,
      of: { kind: 'none' as const },
      note: `order ${order.id}`,
    });
    return ok({ id: order.id });
  });
};
