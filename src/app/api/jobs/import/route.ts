import { appDb } from '@/server/db';
import { answer, binaryBody, sameSite } from '@/server/http';
import { ARCHIVE_LIMIT_BYTES, importJob } from '@/server/job/jobArchive';

/** Takes a job file in. */
export async function POST(request: Request): Promise<Response> {
  return answer(async (actor) => {
    sameSite(request, 'application/octet-stream');
    return importJob(appDb(), actor, await binaryBody(request, ARCHIVE_LIMIT_BYTES));
  });
}
