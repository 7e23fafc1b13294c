import { appDb } from '@/server/db';
import { answer, jsonBody, sameSite } from '@/server/http';
import { changeOwnSignIn, ownSignIn } from '@/server/ownSignIn';

export const dynamic = 'force-dynamic';

/** How one signs in. */
export async function GET(): Promise<Response> {
  return answer((actor) => ownSignIn(appDb(), actor));
}

/** One change of it. */
export async function POST(request: Request): Promise<Response> {
  return answer(async (actor) => {
    sameSite(request);
    return changeOwnSignIn(appDb(), actor, await jsonBody(request), new Date());
  }, 'command');
}
