import { format } from 'date-fns';
import Link from 'next/link';
import { redirect } from 'next/navigation';
import { Refused } from '@/server/actor';
import { appDb } from '@/server/db';
import { currentActor } from '@/server/http';
import { jobTrail } from '@/server/job/trail';
import { MadeFile } from '@/ui/MadeFile';
import { PageTop } from '@/ui/PageTop';
import { jobOfPage } from '../jobOfPage';

export const metadata = { title: 'Who did what · Surrik' };

/** Minutes a device's clock may differ from ours, and its entry may have waited, without a word about it. */
const LATE_MINUTES = 5;

/** Everything that was given on a job, line by line. */
export default async function TrailPage({ params }: { params: Promise<{ number: string }> }) {
  const actor = await currentActor();
  if (!actor) redirect('/sign-in');
  const number = await jobOfPage(params);
  const lines = await jobTrail(appDb(), actor, number).catch((e: unknown) => {
    if (e instanceof Refused) return undefined;
    throw e;
  });
  const when = (at: string) => format(new Date(at), 'd MMM yyyy, HH:mm:ss');
  return (
    <div className="flex h-dvh flex-col">
      <PageTop
        title="Who did what"
        name={`Job ${number}`}
        sub={lines ? `${lines.length} ${lines.length === 1 ? 'entry' : 'entries'}` : 'no such job'}
      >
        <Link className="btn" href={`/jobs/${number}/readings`}>
          Back to the job
        </Link>
        {lines && <MadeFile href={`/api/jobs/${number}/trail.csv`}>As a table (CSV)</MadeFile>}
      </PageTop>
      <main className="min-h-0 flex-1 overflow-auto p-3" tabIndex={0}>
        {lines?.length === 0 && <p>Nothing was entered since the job was opened or taken in.</p>}
        {lines && lines.length > 0 && (
          <table className="table-zebra table text-base">
            <thead>
              <tr>
                <th scope="col">No.</th>
                <th scope="col">Taken by the server</th>
                <th scope="col">By</th>
                <th scope="col">What</th>
                <th scope="col">Entered, by the device’s clock</th>
              </tr>
            </thead>
            <tbody>
              {lines.map((l) => {
                const apart = (new Date(l.received).getTime() - new Date(l.at).getTime()) / 60_000;
                return (
                  <tr key={l.seq}>
                    <td>{l.seq}</td>
                    <td className="whitespace-nowrap">{when(l.received)}</td>
                    <td>{l.by}</td>
                    <td>
                      {l.words} <span className="text-sm opacity-70">({l.type})</span>
                    </td>
                    <td className="whitespace-nowrap">
                      {when(l.at)}
                      {Math.abs(apart) > LATE_MINUTES && (
                        <b>
                          {' '}
                          {apart > 0
                            ? `${Math.round(apart)} min before: it waited, or the clock is slow`
                            : `${Math.round(-apart)} min ahead: the clock is fast`}
                        </b>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
      </main>
    </div>
  );
}
