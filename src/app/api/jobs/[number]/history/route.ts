import { appDb } from '@/server/db';
import { rigHistory } from '@/server/job/history';
import { answer, jobNumber } from '@/server/http';

/** Every job of this job's rig. */
export async function GET(_: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return answer(async (actor) => rigHistory(appDb(), actor, jobNumber((await params).number)));
}
