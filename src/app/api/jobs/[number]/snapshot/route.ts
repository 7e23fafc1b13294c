import { appDb } from '@/server/db';
import { answer, jobNumber } from '@/server/http';
import { jobSnapshot } from '@/server/jobs';

export async function GET(_request: Request, context: { params: Promise<{ number: string }> }): Promise<Response> {
  return answer(async (actor) => jobSnapshot(appDb(), actor, jobNumber((await context.params).number)));
}
