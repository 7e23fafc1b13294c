import { appDb } from '@/server/db';
import { answerWith, jobNumber } from '@/server/http';
import { jobSnapshot } from '@/server/jobs';
import { reportPdf } from '@/server/reportPdf';

/** The report as a PDF. */
export async function GET(_: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return answerWith(async (actor) => {
    const number = jobNumber((await params).number);
    const pdf = await reportPdf(await jobSnapshot(appDb(), actor, number), new Date());
    return new Response(new Uint8Array(pdf), {
      headers: { 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="job-${number}-report.pdf"`, 'cache-control': 'no-store' },
    });
  });
}
