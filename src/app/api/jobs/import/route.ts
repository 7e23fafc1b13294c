import { appDb } from '@/server/db';
import { answer, binaryBody, sameSite } from '@/server/http';
import { tellChange } from '@/server/live/changes';
import { onPaper } from '@/server/pdf/client';
import { ARCHIVE_LIMIT_BYTES, importJob, type CheckJob } from '@/server/job/jobArchive';

/** Takes a job file in. */
export async function POST(request: Request): Promise<Response> {
  return answer(async (actor) => {
    sameSite(request, 'application/octet-stream');
    const file = await binaryBody(request, ARCHIVE_LIMIT_BYTES);
    const check: CheckJob = (text) =>
      onPaper(
        actor.shopId,
        async (paper) => (await paper.checkJob(text)) as Awaited<ReturnType<CheckJob>>,
        request.signal,
      );
    const taken = await importJob(appDb(), actor, file, check);
    tellChange(appDb, actor.shopId, { job: taken.number });
    return taken;
  });
}
