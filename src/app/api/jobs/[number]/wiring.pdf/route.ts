import { appDb } from '@/server/db';
import { Refused } from '@/server/actor';
import { answerWith, jobNumber } from '@/server/http';
import { jobSnapshot } from '@/server/job/snapshot';
import { onRun } from '@/server/runs/ask';

/** The wiring diagram of a revision as a PDF. */
export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return answerWith(async (actor) => {
    const number = jobNumber((await params).number);
    const { job, shop } = await jobSnapshot(appDb(), actor, number);
    const id = new URL(request.url).searchParams.get('revision');
    const revision = job.revisions.find((r) => r.id === id);
    if (!revision) throw new Refused(404, 'no-revision', 'There is no such version of this rig.');
    const pdf = await onRun(actor.shopId, 'wiring', [number, revision, shop, new Date().toISOString()], request.signal);
    return new Response(pdf, {
      headers: {
        'content-type': 'application/pdf',
        'content-disposition': `attachment; filename="job-${number}-wiring.pdf"`,
        'cache-control': 'no-store',
      },
    });
  }, 'paper');
}
