import { calendarFile } from '@/server/calendarFile';
import { appDb } from '@/server/db';
import { shopCalendar } from '@/server/job/history';
import { answerWith, jobNumber } from '@/server/http';
import { shopSnapshot } from '@/server/shop';

/** Bookings and follow-ups of one job as a calendar file. */
export async function GET(_: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return answerWith(async (actor) => {
    const number = jobNumber((await params).number);
    const { shop } = await shopSnapshot(appDb(), actor);
    const now = new Date();
    return new Response(calendarFile(shop.name, await shopCalendar(appDb(), actor, now), now, number), {
      headers: {
        'content-type': 'text/calendar; charset=utf-8',
        'content-disposition': `attachment; filename="job-${number}.ics"`,
        'cache-control': 'no-store',
      },
    });
  });
}
