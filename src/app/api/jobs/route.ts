import { appDb } from '@/server/db';
import { boardPage, boardQuery } from '@/server/job/board';
import { answer, answerIfNewer, jsonBody, sameSite } from '@/server/http';
import { tellChange } from '@/server/live/changes';
import { openJob } from '@/server/job/openJob';

/** The board; 204 where `since` names the state the asker has. */
export async function GET(request: Request): Promise<Response> {
  return answerIfNewer((actor) => boardPage(appDb(), actor, boardQuery(request.url)));
}

/** Opens a job. */
export async function POST(request: Request): Promise<Response> {
  return answer(async (actor) => {
    sameSite(request);
    const opened = await openJob(appDb(), actor, await jsonBody(request), new Date());
    tellChange(appDb, actor.shopId, { job: opened.number });
    return opened;
  }, 'command');
}
