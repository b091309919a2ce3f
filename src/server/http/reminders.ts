import { sayEvent } from '@/messages/plan-event';
import { sendMessages, toTell } from '../services/plan/reminders';
import type { Context } from '../services/yard/user-action';

/** Sends today's reminders in words: coming openings, parts to order. Returns their number. */
export const sendReminders = async (context: Context): Promise<number> => {
  const { openings, orders, month } = await toTell(context);
  const upcoming = openings.map((e) => {
    const { summary, text } = sayEvent(e);
    return { key: `${e.uid} ${e.day}`, subject: `${e.day} ${summary}`, body: text };
  });
  const short = orders.map(({ part, reorder }) => ({
    key: `order ${part.code} ${month}`,
    subject: `Order ${part.name}: ${reorder.packs} ${reorder.packs === 1 ? 'pack' : 'packs'} of ${part.packSize}`,
    body: `${part.onHand} on hand in bin ${part.bin}; ${part.leadDays} days to come.`,
  }));
  return sendMessages(context, [...upcoming, ...short]);
};
