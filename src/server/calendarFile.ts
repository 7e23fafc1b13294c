/** Bookings and follow-ups as an iCalendar file that any calendar takes; the text itself is the library's work. */
import ical, { ICalCalendarMethod } from 'ical-generator';
import type { ShopCalendar } from './job/history';

/** @param only a job's number, where the file is about one job. */
export function calendarFile(
  shop: string,
  calendar: Pick<ShopCalendar, 'bookings' | 'followUps'>,
  now: Date,
  only?: number,
): string {
  const file = ical({
    name: only === undefined ? `${shop}: bays` : `${shop}: job ${only}`,
    method: ICalCalendarMethod.PUBLISH,
    prodId: { company: 'Surrik', product: 'Surrik' },
  });
  for (const b of calendar.bookings) {
    if (only !== undefined && b.job !== only) continue;
    const start = new Date(b.start);
    file.createEvent({
      id: `booking-${b.id}`,
      stamp: now,
      start,
      end: new Date(start.getTime() + b.minutes * 60_000),
      summary: `${b.job} ${b.rig}`,
      location: b.bay,
      description: `Job ${b.job}, ${b.rig}, ${b.minutes} min in ${b.bay}. Booked by ${b.by}.`,
    });
  }
  for (const f of calendar.followUps) {
    if (f.done !== undefined || (only !== undefined && f.job !== only)) continue;
    const event = file.createEvent({
      id: `follow-up-${f.id}`,
      stamp: now,
      start: new Date(`${f.due}T00:00:00Z`),
      allDay: true,
      summary: `${f.rig}: ${f.what}`,
      description: `Follow-up of job ${f.job}, ${f.rig}.`,
    });
    event.createAlarm({ type: 'display' as never, trigger: 0, description: `${f.rig}: ${f.what}` });
  }
  return file.toString();
}
