import { appDb } from '@/server/db';
import { answer, binaryBody, sameSite } from '@/server/http';
import { tellChange } from '@/server/live/changes';
import { onRun } from '@/server/runs/ask';
import { ARCHIVE_LIMIT_BYTES, importJob, type CheckJob } from '@/server/job/jobArchive';

/** Takes a job file in. */
export async function POST(request: Request): Promise<Response> {
  return answer(async (actor) => {
    sameSite(request, 'application/octet-stream');
    const file = await binaryBody(request, ARCHIVE_LIMIT_BYTES);
    const check: CheckJob = (text) => onRun(actor.shopId, 'checkJob', [text], request.signal) as ReturnType<CheckJob>;
    const taken = await importJob(appDb(), actor, file, check);
    tellChange(appDb, actor.shopId, { job: taken.number });
    return taken;
  }, 'import');
}
