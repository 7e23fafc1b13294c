import { appDb } from '@/server/db';
import { answer, jsonBody, sameSite } from '@/server/http';
import { jobBoard } from '@/server/jobs';
import { openJob } from '@/server/openJob';

export async function GET(): Promise<Response> {
  return answer((actor) => jobBoard(appDb(), actor));
}

/** Opens a job. */
export async function POST(request: Request): Promise<Response> {
  return answer(async (actor) => {
    sameSite(request);
    return openJob(appDb(), actor, await jsonBody(request), new Date());
  });
}
