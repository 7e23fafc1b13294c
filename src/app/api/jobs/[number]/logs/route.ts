import { appDb } from '@/server/db';
import { answer, binaryBody, jobNumber, sameSite } from '@/server/http';
import { LOGS_LIMIT_BYTES, storeLog } from '@/server/job/logs';

/** Takes in a packed log; the command that makes it part of the job follows. */
export async function POST(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return answer(async (actor) => {
    sameSite(request, 'application/gzip');
    return storeLog(appDb(), actor, jobNumber((await params).number), await binaryBody(request, LOGS_LIMIT_BYTES));
  }, 'upload');
}
