'use client';
/** Where the job stands in the shop. */
import type { Job } from '../../core/job/job';
import { useJobFile, useEntries } from './jobPage';

export const STATUSES: readonly { id: Job['status']; label: string }[] = [
  { id: 'waiting', label: 'Waiting' },
  { id: 'in-the-bay', label: 'In the bay' },
  { id: 'waiting-approval', label: 'Waiting approval' },
  { id: 'waiting-parts', label: 'Waiting parts' },
  { id: 'done', label: 'Done' },
];

export function StatusMenu() {
  const { job } = useJobFile();
  const { send } = useEntries();
  return (
    <label className="flex items-center flex-none max-narrow:min-h-11.5">
      <span className="sr-only">Status of the job</span>
      <select
        className="select h-11 w-37 border border-ink bg-card font-cond font-semibold text-ink text-large"
        value={job.status}
        onChange={(e) => send('job.set-status', { status: e.target.value as Job['status'] })}
      >
        {STATUSES.map((s) => (
          <option key={s.id} value={s.id}>
            {s.label}
          </option>
        ))}
      </select>
    </label>
  );
}
