import { csvRows } from '@/core/openFormats/csv';
import { appDb } from '@/server/db';
import { answerWith, jobNumber } from '@/server/http';
import { jobTrail } from '@/server/job/trail';

/** Everything that was given on a job, as a table. */
export async function GET(_: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return answerWith(async (actor) => {
    const number = jobNumber((await params).number);
    const lines = await jobTrail(appDb(), actor, number);
    const rows = lines.map((l) => [l.seq, l.received, l.at, l.by, l.type, l.words, JSON.stringify(l.payload)]);
    const head = ['number', 'received', 'entered by the device’s clock', 'by', 'kind', 'in words', 'content'];
    return new Response(csvRows([head, ...rows]), {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': `attachment; filename="job-${number}-trail.csv"`,
        'cache-control': 'no-store',
      },
    });
  }, 'paper');
}
