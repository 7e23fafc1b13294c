import { appDb } from '@/server/db';
import { answerWith, jobNumber } from '@/server/http';
import { packJob } from '@/server/job/jobArchive';

/** The job with its photos as one file. */
export async function GET(_: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return answerWith(async (actor) => {
    const number = jobNumber((await params).number);
    const file = await packJob(appDb(), actor, number);
    return new Response(new Uint8Array(file), {
      headers: {
        'content-type': 'application/zip',
        'content-disposition': `attachment; filename="job-${number}.surrik.zip"`,
        'cache-control': 'no-store',
      },
    });
  }, 'paper');
}
