'use client';
/** The wiring diagram of each version of a rig: to read, to print, to take along as SVG or PDF. */
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
  if (error && !job)
    return (
      <p className="boot" role="alert">
        {error.message}
      </p>
    );
  if (!job || !shop || !revision)
    return (
      <p className="boot" role="status">
        Opening job {number} …
      </p>
    );
  const wiring = result.data;
  return (
    <main className="report wiring">
      <div className="report-bar no-print">
        <Link className="bx" href={`/jobs/${number}/rig`}>
          Back to the job
        </Link>
        <label className="field inline-field">
          <span>Version of the rig</span>
          <select className="select" value={revision.id} onChange={(e) => pick(e.target.value)}>
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
            className="bx"
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
        <article>
          {/* eslint-disable-next-line @next/next/no-img-element -- a drawing made here: nothing to optimise */}
          <img
            className="sheet"
            alt={`${wiring.title}. The table below says the same in words.`}
            src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(wiring.svg)}`}
          />
          <section>
            <h2>Wires</h2>
            <table>
              <thead>
                <tr>
                  <th>Wire</th>
                  <th>Name</th>
                  <th>Gauge</th>
                  <th>From</th>
                  <th>To</th>
                  <th className="num">Length</th>
                </tr>
              </thead>
              <tbody>
                {wiring.wires.map((w) => (
                  <tr key={w.wire}>
                    <td>
                      <b>{w.wire}</b>
                    </td>
                    <td>
                      {w.name}
                      {w.use === 'feed' ? '' : `, ${w.use}`}
                    </td>
                    <td>{w.gauge}</td>
                    <td>{w.from}</td>
                    <td>{w.to}</td>
                    <td className="num">{w.length}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
          <section>
            <h2>Grounds</h2>
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
