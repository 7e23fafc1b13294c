import { submitCommand } from '@/server/commands';
import { appDb } from '@/server/db';
import { answer, jobNumber, jsonBody, sameSite } from '@/server/http';

/** Every change to a job comes in here. */
export async function POST(request: Request): Promise<Response> {
  return answer(async (actor) => {
    sameSite(request);
    const number = jobNumber(new URL(request.url).searchParams.get('job'));
    return submitCommand(appDb(), actor, number, await jsonBody(request));
  });
}
