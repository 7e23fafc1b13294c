'use client';
/** Where the job stands in the shop. */
import type { Job } from '../../core/job/job';
import { useJobPage } from './jobPage';

export const STATUSES: readonly { id: Job['status']; label: string }[] = [
  { id: 'waiting', label: 'Waiting' },
  { id: 'in-the-bay', label: 'In the bay' },
  { id: 'waiting-approval', label: 'Waiting approval' },
  { id: 'waiting-parts', label: 'Waiting parts' },
  { id: 'done', label: 'Done' },
];

export function StatusMenu() {
  const { job, send } = useJobPage();
  return (
    <label className="jobstatus">
      <span className="sr-only">Status of the job</span>
      <select
        className="select"
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
