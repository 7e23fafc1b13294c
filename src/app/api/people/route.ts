import { appDb } from '@/server/db';
import { answer, jsonBody, sameSite } from '@/server/http';
import { changePeople, listPeople } from '@/server/people';

export const dynamic = 'force-dynamic';

/** Who works in the shop. */
export async function GET(): Promise<Response> {
  return answer((actor) => listPeople(appDb(), actor));
}

/** One change of who works in the shop. */
export async function POST(request: Request): Promise<Response> {
  return answer(async (actor) => {
    sameSite(request);
    return changePeople(appDb(), actor, await jsonBody(request));
  }, 'command');
}
