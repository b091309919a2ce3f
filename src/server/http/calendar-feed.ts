import { MINUTE_MS } from '@/core/calendar/time';
import ical, { ICalCalendarMethod } from 'ical-generator';
import { sayEvent } from '@/messages/plan-event';
import { planEvents } from '../services/plan/plan-events';
import type { YardPlan } from '../services/plan/plan-yard';

/** The plan as an iCalendar feed of whole days. An event that moved is newer than it was. Source: RFC 5545. */
export const calendarFeed = (plan: YardPlan, now: string): string => {
  const stamp = new Date(now);
  const calendar = ical({
    name: `Moorwind, ${plan.outlook.yard.site.name}`,
    method: ICalCalendarMethod.PUBLISH,
    prodId: '//moorwind//plan//EN',
    ttl: 3600,
  });
  const sequence = Math.floor(stamp.getTime() / MINUTE_MS);
  for (const e of planEvents(plan)) {
    const { summary, text } = sayEvent(e);
    calendar.createEvent({
      id: e.uid,
      start: new Date(`${e.day}T00:00:00Z`),
      allDay: true,
      summary,
      description: text,
      location: e.place,
      stamp,
      sequence,
    });
  }
  return calendar.toString();
};
