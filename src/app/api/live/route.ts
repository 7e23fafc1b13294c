import { appDb } from '@/server/db';
import { answerWith } from '@/server/http';
import { hearChanges } from '@/server/live/changes';
import { liveStream } from '@/server/live/stream';
import { actorOf } from '@/server/signIn';

export const dynamic = 'force-dynamic';

/** What changes in the shop, as it changes. */
export async function GET(request: Request): Promise<Response> {
  return answerWith((actor) => {
    const stream = liveStream(
      (tell) => hearChanges(actor.shopId, tell),
      async () => (await actorOf(appDb(), actor)) !== undefined,
      request.signal,
    );
    return Promise.resolve(
      new Response(stream, {
        // Packed, it would wait until there is enough to pack.
        headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store, no-transform' },
      }),
    );
  });
}
