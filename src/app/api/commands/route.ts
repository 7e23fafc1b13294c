import { submitCommand } from '@/server/job/commands';
import { appDb } from '@/server/db';
import { answer, jobNumber, jsonBody, sameSite } from '@/server/http';
import { submitShopCommand } from '@/server/shop';

/** Every change comes in here: `?job=N` to a job, `?shop` to what the shop sets for itself. */
export async function POST(request: Request): Promise<Response> {
  return answer(async (actor) => {
    sameSite(request);
    const { searchParams } = new URL(request.url);
    if (searchParams.has('shop')) return submitShopCommand(appDb(), actor, await jsonBody(request));
    return submitCommand(appDb(), actor, jobNumber(searchParams.get('job')), await jsonBody(request));
  });
}
