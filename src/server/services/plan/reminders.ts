import { standInSender } from '../../instruments/stand-in-sender';
import { loadOutbox, type OutboxMessage } from '../../repositories/plans';
import { addDays } from '@/core/calendar/calendar-date';
import { type PlanEvent, planEvents } from './plan-events';
import { planYard } from './plan-yard';
import { loadStockDesk, type StockLine } from '../stock/stock-desk';
import type { Context } from '../yard/user-action';

/** Days before an opening at which its reminder goes out. */
const AHEAD_DAYS = 2;

/** Today's reminders; the caller makes the words. */
export interface ToTell {
  readonly openings: readonly PlanEvent[];
  readonly orders: readonly StockLine[];
  readonly month: string;
}

/** Openings that come up and parts to order. */
export const toTell = async (context: Context): Promise<ToTell> => {
  const plan = await planYard(context);
  const { today } = plan.outlook.yard;
  const last = addDays(today, AHEAD_DAYS);
  const { lines } = await loadStockDesk(context);
  return {
    openings: planEvents(plan).filter((e) => e.day <= last),
    orders: lines.filter((l) => l.reorder.packs > 0),
    month: today.slice(0, 7),
  };
};

/** Sends messages, each key once however often it is asked. Answers how many went out. */
export const sendMessages = async (
  context: Context,
  messages: readonly Pick<OutboxMessage, 'key' | 'subject' | 'body'>[],
): Promise<number> => {
  const sender = standInSender(context.db);
  const at = context.now();
  let sent = 0;
  for (const m of messages) if (await sender.send({ ...m, at })) sent += 1;
  return sent;
};

/** Every message that went out, newest first. */
export const readOutbox = ({ db }: Pick<Context, 'db'>): Promise<readonly OutboxMessage[]> => loadOutbox(db);
