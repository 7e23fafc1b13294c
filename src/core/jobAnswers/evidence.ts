/** A job's standing readings as evidence for the diagnosis. */
import type { Evidence } from '../diagnose/belief';
import { accuracyOf } from '../probe/instrument';
import { confirmedIds, standingReadings, type Job } from '../job/job';

/** Measured readings of an epoch. "Can't reach" and overload are stored but say nothing about the rig. */
export function jobEvidence(job: Job, epoch: number): Evidence[] {
  const confirmed = confirmedIds(job, epoch);
  const instruments = new Map(job.instruments.map((i) => [i.id, i]));
  return standingReadings(job, epoch).flatMap((r): Evidence[] => {
    const meter = r.meter === undefined ? undefined : instruments.get(r.meter);
    return r.status !== 'measured' || r.value === undefined
      ? []
      : [
          {
            id: r.id,
            state: r.state,
            probe: r.probe,
            ...(r.ref === undefined ? {} : { ref: r.ref }),
            value: r.value,
            secondsInState: r.secondsInState,
            ...(confirmed.has(r.id) ? { confirmed: true } : {}),
            ...(meter ? { meter: accuracyOf(meter, r.takenAt) } : {}),
          },
        ];
  });
}

/** What could not be reached in an epoch, as `state/measurementId`. */
export function jobUnreachable(job: Job, epoch: number): string[] {
  return standingReadings(job, epoch)
    .filter((r) => r.status === 'cannot-reach')
    .map((r) => `${r.state}/${r.ref === undefined ? r.probe : `${r.probe}~${r.ref}`}`);
}
