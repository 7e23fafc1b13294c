/** The board's ticket of a job: what is to be done next, by whom it was last touched. Written with the job. */
import type Type from 'typebox';
import type { TicketSchema } from '../../core/openFormats/answers';
import {
  currentRevision,
  madeBy,
  presentVerdict,
  standingChoice,
  standingReadings,
  type Job,
} from '../../core/job/job';

export type Ticket = Type.Static<typeof TicketSchema>;

/** What is to be done next on a job, from its record alone. */
function nextStep(job: Job): Ticket['next'] {
  const verdict = presentVerdict(job);
  const made = madeBy(job);
  if (job.status === 'done')
    return {
      station: 'Done',
      words:
        made === 'build'
          ? (standingChoice(job)?.name ?? 'built')
          : (job.verdicts.findLast((v) => !v.withdrawn)?.repair ?? 'nothing was wrong'),
    };
  const count = standingReadings(job, currentRevision(job).epoch).length;
  if (made && !verdict) return { station: 'Prove', words: `${count} taken after the ${made}` };
  if (verdict) return { station: 'Fault', words: verdict.repair };
  return { station: 'Readings', words: count === 0 ? 'take the first reading' : `${count} taken so far` };
}

/** When somebody last did something about the job. */
function lastTouched(job: Job): string {
  const times = [
    ...job.revisions.map((r) => r.at),
    ...job.readings.map((r) => r.takenAt),
    ...job.observations.map((o) => o.at),
    ...job.verdicts.map((v) => v.at),
    ...job.repairs.map((r) => r.at),
  ];
  return new Date(Math.max(...times.map((t) => Date.parse(t)))).toISOString();
}

export function ticketOf(job: Job): Ticket {
  const { doc } = currentRevision(job);
  return {
    rig: doc.name,
    kind: doc.kind,
    changedAt: lastTouched(job),
    by: job.readings.at(-1)?.by ?? 'No one yet',
    next: nextStep(job),
  };
}
