/** What a rig read over the years: each measurement through its jobs, and what only two readings together tell. */
import { partsWith } from '../rig/value';
import { contactVerdict } from '../probe/contact';
import { currentRevision, standingReadings, type Job } from '../job/job';

export interface TrendPoint {
  at: string;
  value: number;
  job: number;
  /** The rig itself was changed before it. */
  changed: boolean;
}

export interface Trend {
  id: string;
  label: string;
  name: string;
  /** Absent where it is no reading but made of two. */
  state?: string;
  probe?: string;
  ref?: string;
  unit: 'V' | 'A' | 'ohm';
  points: TrendPoint[];
}

/** Trends of a rig's jobs, those with most points first; a single reading is one too. */
export function trendsOf(jobs: readonly Job[]): Trend[] {
  const list = new Map<string, Trend>();
  const add = (t: Omit<Trend, 'points'>, p: TrendPoint) => {
    const known = list.get(t.id);
    if (known) known.points.push(p);
    else list.set(t.id, { ...t, points: [p] });
  };
  for (const job of [...jobs].sort((a, b) => (a.revisions[0]!.at < b.revisions[0]!.at ? -1 : 1))) {
    const { doc } = currentRevision(job);
    const epochs = [
      ...new Set(job.revisions.filter((r) => !r.withdrawn && r.kind !== 'proposed').map((r) => r.epoch)),
    ].sort((a, b) => a - b);
    for (const epoch of epochs) {
      const readings = standingReadings(job, epoch).filter((r) => r.value !== undefined);
      const changed = epoch > epochs[0]!;
      for (const r of readings) {
        const probe = doc.probes.find((p) => p.key === r.probe);
        const other = doc.probes.find((p) => p.key === r.ref);
        const ground = doc.grounds
          .flatMap((g) => g.points.map((p) => ({ key: `${g.id}.${p.id}`, label: p.label })))
          .find((p) => p.key === r.ref);
        const against = other
          ? ` to ${other.name.toLowerCase()}`
          : ground && r.ref !== `${doc.reference.part}.${doc.reference.terminal}`
            ? ` to ${ground.label}`
            : '';
        // Another place of the black lead is another measurement.
        add(
          {
            id: `${r.state}/${r.probe}~${r.ref ?? ''}`,
            label: `${probe?.label ?? r.probe}${other ? `–${other.label}` : ''}`,
            name: `${probe?.name ?? r.probe}${against}`,
            state: r.state,
            probe: r.probe,
            ...(r.ref === undefined ? {} : { ref: r.ref }),
            unit: r.unit,
          },
          { at: r.takenAt, value: r.value!, job: job.number, changed },
        );
      }
      for (const link of partsWith(doc, 'solenoid')) {
        const cable = doc.conductors.find((c) => c.from.part === link.id && c.use === 'feed');
        for (const state of new Set(readings.map((r) => r.state))) {
          const drop = readings.find(
            (r) => r.state === state && r.probe === `${link.id}.chassis-stud` && r.ref === `${link.id}.coach-stud`,
          );
          const amps = readings.find((r) => r.state === state && r.probe === `${cable?.id}.clamp`);
          if (!drop || !amps) continue;
          const { milliohms, says } = contactVerdict(drop.value!, amps.value!);
          // Too few amps say nothing of a contact, and would draw a wild line.
          if (Number.isFinite(milliohms) && !says.includes('not enough'))
            add(
              { id: `contact ${link.id}`, label: 'Ω', name: `${link.name} contact`, unit: 'ohm' },
              { at: drop.takenAt, value: milliohms / 1000, job: job.number, changed },
            );
        }
      }
    }
  }
  return [...list.values()].sort(
    (a, b) => Number(b.unit === 'ohm') - Number(a.unit === 'ohm') || b.points.length - a.points.length,
  );
}
