'use client';
/** What was done on a rig, newest first, job by job and version by version. */
import { clsx } from 'clsx';
import { format } from 'date-fns';
import Link from 'next/link';
import type { Job } from '../../core/job/job';
import { useJobFile } from '../shell/jobPage';

interface Entry {
  at: string;
  what: string;
  by?: string;
}

const REVISION = {
  'as-found': 'Taken in, described as found',
  proposed: 'A link proposed',
  'as-built': 'The rig is another',
} as const;

/** What a job's record says happened, in its order. */
function entriesOf(job: Job): Entry[] {
  const made = new Set(job.repairs.map((r) => r.revision));
  return [
    ...job.revisions
      .filter((r) => !r.withdrawn && !made.has(r.id))
      .map((r) => ({ at: r.at, what: r.reason ? `Opened again: ${r.reason}` : REVISION[r.kind] })),
    ...job.verdicts.filter((v) => !v.withdrawn).map((v) => ({ at: v.at, what: `Verdict: ${v.name}`, by: v.by })),
    ...job.approvals
      .filter((a) => !a.withdrawn)
      .map((a) => ({ at: a.at, what: `Approved up to ${a.upTo} ${a.currency} by ${a.who}`, by: a.by })),
    ...job.repairs.filter((r) => !r.withdrawn).map((r) => ({ at: r.at, what: `Repair: ${r.did}`, by: r.by })),
    ...job.choices
      .filter((c) => !c.withdrawn)
      .map((c) => ({ at: c.at, what: `Picked: ${c.name}. ${c.reasons}`, by: c.by })),
    ...(job.planChanges ?? []).map((p) => ({
      at: p.at,
      what: `Changed the plan: ${p.what}, because: ${p.reason}`,
      by: p.by,
    })),
    ...(job.checks ?? [])
      .filter((c) => !c.retracted && c.result !== 'entry')
      .map((c) => ({
        at: c.at,
        what: `Check ${c.check.replace(/-/g, ' ')}: ${c.result.replace(/-/g, ' ')}`,
        by: c.by,
      })),
    ...(job.signOffs ?? []).map((s) => ({ at: s.at, what: `Signed: ${s.words}`, by: s.by })),
    ...job.observations
      .filter((o) => !o.retracted && o.kind === 'note')
      .map((o) => ({ at: o.at, what: `Note: ${o.text}`, by: o.by })),
    ...(job.logs ?? []).map((l) => ({ at: l.at, what: `Log ${l.name}: ${l.says[0] ?? ''}`, by: l.by })),
  ].sort((a, b) => (a.at < b.at ? -1 : 1));
}

export function History({ jobs }: { jobs: readonly Job[] }) {
  const { job: here, words } = useJobFile();
  const newest = [...jobs].sort((a, b) => b.number - a.number);
  return (
    <ol className="hist grid">
      {newest.map((j) => {
        const entries = entriesOf(j);
        const taken = j.readings.filter((r) => !r.retracted).length;
        return (
          <li className="px-4 pt-2.5 pb-3 border-b-2 border-ink" key={j.number}>
            <header className="flex flex-wrap items-baseline gap-x-3.5 gap-y-0.5">
              <Link href={`/jobs/${j.number}/report`}>
                Job {j.number}
                {j.number === here.number ? ', this one' : ''}
              </Link>
              <span className="text-ink-2 text-note">
                {format(new Date(j.revisions[0]!.at), 'd MMM yyyy')}, {j.status.replace(/-/g, ' ')}, {taken}{' '}
                {taken === 1 ? 'reading' : 'readings'}
              </span>
            </header>
            <p>{words(j.complaint.words)}</p>
            <table className="w-full mt-1 text-note">
              <tbody>
                {entries.map((e, i) => (
                  <tr key={i}>
                    <td
                      className={clsx(
                        'when',
                        'w-28 pr-2 py-1 border-t-1 border-rule',
                        'font-cond text-plain leading-tight align-top whitespace-nowrap',
                      )}
                    >
                      {format(new Date(e.at), 'd MMM, HH:mm')}
                    </td>
                    <td className="pr-2 py-1 border-t-1 border-rule leading-tight align-top">{words(e.what)}</td>
                    <td className="by w-37.5 pr-2 py-1 border-t-1 border-rule text-ink-2 leading-tight align-top max-small:hidden">
                      {e.by}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </li>
        );
      })}
      {newest.length === 1 && (
        <li className="quiet px-4 pt-2.5 pb-3 border-b-2 border-ink">
          This is the first job of this rig here. Later visits stand above it, and what it reads becomes a trend.
        </li>
      )}
    </ol>
  );
}
