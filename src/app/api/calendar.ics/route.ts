import { calendarFile } from '@/server/calendarFile';
import { appDb } from '@/server/db';
import { shopCalendar } from '@/server/job/history';
import { answerWith } from '@/server/http';
import { shopSnapshot } from '@/server/shop';

/** The shop's bays and follow-ups as a calendar file. */
export async function GET(): Promise<Response> {
  return answerWith(async (actor) => {
    const { shop } = await shopSnapshot(appDb(), actor);
    const now = new Date();
    return new Response(calendarFile(shop.name, await shopCalendar(appDb(), actor, now), now), {
      headers: {
        'content-type': 'text/calendar; charset=utf-8',
        'content-disposition': 'attachment; filename="bays.ics"',
        'cache-control': 'no-store',
      },
    });
  });
}
