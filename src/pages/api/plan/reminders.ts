import { SendRemindersBody } from '@/contracts/plan';
import { ok } from '@/core/failure/failure';
import { notThatWay, recordingSite } from '@/server/http/endpoint';
import { plainReply } from '@/server/http/replies';
import { sendReminders } from '@/server/http/reminders';

export const POST = recordingSite({
  body: SendRemindersBody,
  run: async (context) => ok({ id: await sendReminders(context) }),
  reply: plainReply,
});
export const ALL = notThatWay;
