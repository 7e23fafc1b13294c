'use client';
/** Logs kept with the job: what each said, and the log itself where it is there to be read again. */
import { format } from 'date-fns';
import { FileDown, RotateCcw } from 'lucide-react';
import type { KeptLog } from '../../core/job/job';
import { useJobFile, useEntries } from '../shell/jobPage';

export function KeptLogs({ again }: { again(log: KeptLog): void }) {
  const { job, words } = useJobFile();
  const { send } = useEntries();
  return (job.logs ?? []).map((l) => (
    <article key={l.id} className="keptlog px-3 py-2 border border-ink rounded bg-card text-note">
      <b>{l.name}</b>{' '}
      <small className="text-fine text-ink-2">
        {format(new Date(l.from), 'd MMM yyyy HH:mm')} to {format(new Date(l.to), 'd MMM HH:mm')}, {l.rows} lines, kept
        by {l.by}
      </small>
      <ul className="mt-1 mb-2 pl-5 list-disc">
        {l.says.slice(0, 4).map((s) => (
          <li key={s}>{words(s)}</li>
        ))}
      </ul>
      <div className="row flex flex-wrap gap-2">
        {l.file && (
          <>
            <button type="button" className="btn btn-sm" onClick={() => again(l)}>
              <RotateCcw size={16} aria-hidden="true" /> Read again
            </button>
            <a className="btn btn-sm" href={`/api/jobs/${job.number}/logs/${l.file.sha256}`} download={l.name}>
              <FileDown size={16} aria-hidden="true" /> The log,{' '}
              {(l.file.bytes / 1e6).toFixed(l.file.bytes < 1e6 ? 2 : 1)} MB
            </a>
          </>
        )}
        <button type="button" className="btn btn-sm" onClick={() => send('log.set', { was: l })}>
          Take out
        </button>
      </div>
    </article>
  ));
}
