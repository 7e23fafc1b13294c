import { appDb } from '@/server/db';
import { answerWith, jobNumber } from '@/server/http';
import { jobSnapshot } from '@/server/job/snapshot';
import { onPaper } from '@/server/pdf/client';

/** The report as a PDF. */
export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return answerWith(async (actor) => {
    const number = jobNumber((await params).number);
    const { job, shop, identity } = await jobSnapshot(appDb(), actor, number);
    const pdf = await onPaper(
      actor.shopId,
      (paper) => paper.report({ job, shop, identity }, new Date()),
      request.signal,
    );
    return new Response(pdf, {
      headers: {
        'content-type': 'application/pdf',
        'content-disposition': `attachment; filename="job-${number}-report.pdf"`,
        'cache-control': 'no-store',
      },
    });
  });
}
