import { submitCommand } from '@/server/job/commands';
import { appDb } from '@/server/db';
import { answer, jobNumber, jsonBody, sameSite } from '@/server/http';
import { tellChange } from '@/server/live/changes';
import { submitShopCommand } from '@/server/shop';

/** Every change comes in here: `?job=N` to a job, `?shop` to what the shop sets for itself. */
export async function POST(request: Request): Promise<Response> {
  return answer(async (actor) => {
    sameSite(request);
    const { searchParams } = new URL(request.url);
    if (searchParams.has('shop')) {
      const taken = await submitShopCommand(appDb(), actor, await jsonBody(request));
      tellChange(appDb, actor.shopId, { shop: true });
      return taken;
    }
    const job = jobNumber(searchParams.get('job'));
    const taken = await submitCommand(appDb(), actor, job, await jsonBody(request));
    tellChange(appDb, actor.shopId, { job });
    return taken;
  }, 'command');
}
