import { appDb } from '@/server/db';
import { answerWith, jobNumber } from '@/server/http';
import { jobSnapshot } from '@/server/job/snapshot';
import { onRun } from '@/server/runs/ask';

/** The report as a PDF. */
export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return answerWith(async (actor) => {
    const number = jobNumber((await params).number);
    const { job, shop, identity } = await jobSnapshot(appDb(), actor, number);
    const pdf = await onRun(
      actor.shopId,
      'report',
      [{ job, shop, identity }, new Date().toISOString()],
      request.signal,
    );
    return new Response(pdf, {
      headers: {
        'content-type': 'application/pdf',
        'content-disposition': `attachment; filename="job-${number}-report.pdf"`,
        'cache-control': 'no-store',
      },
    });
  }, 'paper');
}
