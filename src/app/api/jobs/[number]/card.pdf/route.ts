import { cardPdf } from '@/server/cardPdf';
import { appDb } from '@/server/db';
import { answerWith, jobNumber } from '@/server/http';
import { jobSnapshot } from '@/server/jobs';

/** The owner's card as a PDF. */
export async function GET(_: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return answerWith(async (actor) => {
    const number = jobNumber((await params).number);
    const pdf = await cardPdf(await jobSnapshot(appDb(), actor, number));
    return new Response(new Uint8Array(pdf), {
      headers: { 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="job-${number}-owners-card.pdf"`, 'cache-control': 'no-store' },
    });
  });
}
