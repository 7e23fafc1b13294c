import { appDb } from '@/server/db';
import { shopCalendar } from '@/server/job/history';
import { answer } from '@/server/http';

/** What is booked, what falls due, what has no time yet. */
export async function GET(): Promise<Response> {
  return answer((actor) => shopCalendar(appDb(), actor, new Date()));
}
