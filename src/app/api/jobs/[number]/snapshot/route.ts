import { appDb } from '@/server/db';
import { answerIfNewer, jobNumber } from '@/server/http';
import { newerSnapshot } from '@/server/job/snapshot';

/** The job as it stands; 204 where `since` names the state the asker has. */
export async function GET(request: Request, context: { params: Promise<{ number: string }> }): Promise<Response> {
  return answerIfNewer(async (actor) => {
    const since = new URL(request.url).searchParams.get('since') ?? undefined;
    return newerSnapshot(appDb(), actor, jobNumber((await context.params).number), since);
  });
}
