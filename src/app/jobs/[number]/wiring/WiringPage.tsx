'use client';
/** The wiring diagram of each version of a rig: to read, to print, to take along as SVG or PDF. */
import { clsx } from 'clsx';
import { useQuery } from '@tanstack/react-query';
import { FileDown } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import { engine } from '@/client/engine';
import { useJob } from '@/client/useJob';
import { currentRevision, type Revision } from '@/core/job/job';
import { download } from '@/ui/download';
import { MadeFile } from '@/ui/MadeFile';
import { PrintButton } from '@/ui/PrintButton';

const KIND: Readonly<Record<Revision['kind'], string>> = {
  'as-found': 'As found',
  proposed: 'Proposed',
  'as-built': 'As built',
};

export function WiringPage({ number }: { number: number }) {
  const { job, shop, error } = useJob(number);
  const [picked, pick] = useState<string>();
  const standing = job?.revisions.filter((r) => !r.withdrawn) ?? [];
  const revision = standing.find((r) => r.id === picked) ?? (job && currentRevision(job));
  const result = useQuery({
    queryKey: [
      'wiring',
      revision?.id,
      JSON.stringify(revision?.doc),
      shop?.settings.vocabulary,
      shop?.settings.gauge,
      shop?.settings.length,
    ],
    queryFn: () => engine().wiring(revision!.doc, shop!.settings),
    enabled: revision !== undefined && shop !== undefined,
    staleTime: Infinity,
  });
  if (error && !job) return <p role="alert">{error.message}</p>;
  if (!job || !shop || !revision)
    return (
      <p className="boot" role="status">
        Opening job {number} …
      </p>
    );
  const wiring = result.data;
  return (
    <main className="report max-w-310 mx-auto p-4 print:p-0 print:text-small-print max-phone:p-2">
      <div className="no-print flex flex-wrap gap-2 pb-3">
        <Link className="btn" href={`/jobs/${number}/rig`}>
          Back to the job
        </Link>
        <label className="field flex items-center gap-2">
          <span>Version of the rig</span>
          <select className="select min-h-11" value={revision.id} onChange={(e) => pick(e.target.value)}>
            {standing.map((r, i) => (
              <option key={r.id} value={r.id}>
                {i + 1}. {KIND[r.kind]}
                {r.reason ? `: ${r.reason.slice(0, 40)}` : ''}
              </option>
            ))}
          </select>
        </label>
        {wiring && (
          <button
            type="button"
            className="btn"
            onClick={() => download(`job-${number}-wiring.svg`, 'image/svg+xml', wiring.svg)}
          >
            <FileDown size={20} aria-hidden="true" />
            SVG
          </button>
        )}
        <MadeFile href={`/api/jobs/${number}/wiring.pdf?revision=${revision.id}`}>PDF</MadeFile>
        <PrintButton />
      </div>
      {result.error && (
        <p role="alert">The diagram could not be drawn: {(result.error as Error).message}. Reload to try again.</p>
      )}
      {!wiring ? (
        <p role="status">Drawing …</p>
      ) : (
        <article
          className={clsx(
            'grid gap-2.75',
            'px-6.5 py-5.5 border-2 border-ink rounded bg-card',
            'max-phone:p-3 max-phone:overflow-x-auto print:gap-1.5 print:p-0 print:border-0 print:bg-white',
          )}
        >
          <div
            className="border-1 border-rule bg-white print:border-0 [&>svg]:h-auto [&>svg]:w-full"
            // In the page, not beside it as a picture: only so it has the page's own narrow face, which its boxes are made for.
            // It has its title in itself; the table below says the same in words.
            dangerouslySetInnerHTML={{ __html: wiring.svg.replace(/^<\?xml.*?\?>\s*/, '') }}
          />
          <section>
            <h2 className="print:text-note">Wires</h2>
            <table className="w-full text-fine print:text-small-print">
              <thead>
                <tr>
                  <th className="print:px-1.25 print:py-0.5">Wire</th>
                  <th className="print:px-1.25 print:py-0.5">Name</th>
                  <th className="print:px-1.25 print:py-0.5">Gauge</th>
                  <th className="print:px-1.25 print:py-0.5">From</th>
                  <th className="print:px-1.25 print:py-0.5">To</th>
                  <th className="text-right whitespace-nowrap print:px-1.25 print:py-0.5">Length</th>
                </tr>
              </thead>
              <tbody>
                {wiring.wires.map((w) => (
                  <tr key={w.wire}>
                    <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
                      <b>{w.wire}</b>
                    </td>
                    <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
                      {w.name}
                      {w.use === 'feed' ? '' : `, ${w.use}`}
                    </td>
                    <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
                      {w.gauge}
                    </td>
                    <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
                      {w.from}
                    </td>
                    <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
                      {w.to}
                    </td>
                    <td
                      className={clsx(
                        'px-1.5 py-0.75 border-b-1 border-rule',
                        'text-right leading-tight whitespace-nowrap',
                        'print:px-1.25 print:py-0.5',
                      )}
                    >
                      {w.length}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
          <section>
            <h2 className="print:text-note">Grounds</h2>
            {wiring.grounds.map((g) => (
              <p key={g.ground}>
                <b>{g.ground}</b> {g.name}: {g.place}
              </p>
            ))}
          </section>
        </article>
      )}
    </main>
  );
}
