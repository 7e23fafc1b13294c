import { appDb } from '@/server/db';
import { answerWith, jobNumber } from '@/server/http';
import { jobSnapshot } from '@/server/job/snapshot';
import { onRun } from '@/server/runs/ask';

/** The owner's card as a PDF. */
export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return answerWith(async (actor) => {
    const number = jobNumber((await params).number);
    const { job, shop } = await jobSnapshot(appDb(), actor, number);
    const pdf = await onRun(actor.shopId, 'card', [{ job, shop }], request.signal);
    return new Response(pdf, {
      headers: {
        'content-type': 'application/pdf',
        'content-disposition': `attachment; filename="job-${number}-owners-card.pdf"`,
        'cache-control': 'no-store',
      },
    });
  }, 'paper');
}
