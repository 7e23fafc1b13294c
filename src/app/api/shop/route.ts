import { appDb } from '@/server/db';
import { answer } from '@/server/http';
import { shopSnapshot } from '@/server/shop';

/** Settings and instruments of the shop. */
export async function GET(): Promise<Response> {
  return answer((actor) => shopSnapshot(appDb(), actor));
}
