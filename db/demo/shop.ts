/** The invented demo shop: its people, its instruments, and how a demo reading is taken. */
import type { HiddenRig } from '../../src/core/diagnose/hiddenRig';
import type { Reading } from '../../src/core/job/jobSchema';
import { USUAL_INSTRUMENT } from '../../src/core/probe/instrument';
import type { Instrument } from '../../src/core/probe/instrumentSchema';
import { seedFrom, seededRng } from '../../src/core/units/rng';

export const DEMO_SHOP = { id: demoUuid('shop'), name: 'Larkspur Basin Coachworks' };
export const DEMO_PEOPLE = [
  { id: demoUuid('bay-1'), handle: 'bay1', name: 'Bay 1 technician', role: 'technician' },
  // Who tries the demo may try everything on a job.
  { id: demoUuid('bay-2'), handle: 'bay2', name: 'Bay 2 technician', role: 'lead' },
  { id: demoUuid('owner'), handle: 'owner', name: 'Owner', role: 'owner' },
  { id: demoUuid('apprentice'), handle: 'apprentice', name: 'Apprentice', role: 'apprentice' },
  { id: demoUuid('desk'), handle: 'desk', name: 'Front desk', role: 'front-desk' },
  { id: demoUuid('viewer'), handle: 'viewer', name: 'Viewer', role: 'viewer' },
] as const;

/** A UUID that is the same on every machine, from a name. */
export function demoUuid(name: string): string {
  const rng = seededRng(seedFrom(`surrik demo ${name}`));
  const hex = Array.from({ length: 32 }, () => Math.floor(rng.uniform() * 16).toString(16)).join('');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20)}`;
}

/** The coach's usual point for the black lead. */
export const REFERENCE = 'frame.bay-2';

/** The demo shop's instruments: one in date, one that was never verified. */
export const demoInstruments = (now: Date): Instrument[] => {
  const months = (n: number) =>
    new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth() - n, 12)).toISOString().slice(0, 10);
  return [
    { ...BAY_METER, calibratedOn: months(4) },
    { ...USUAL_INSTRUMENT, id: 'bay-meter-1', name: 'Bay meter 1', voltPercent: 0.8, voltDigits: 3 },
  ];
};
export const BAY_METER: Instrument = { ...USUAL_INSTRUMENT, id: 'bay-meter-2', name: 'Bay meter 2, with clamp' };

export interface Taken {
  state: string;
  probe: string;
  ref?: string;
  minute: number;
}

/** Readings of a hidden rig, taken so many minutes after the job began. */
export function take(
  job: string,
  rig: HiddenRig,
  epoch: number,
  start: Date,
  list: readonly Taken[],
  by: string,
): Reading[] {
  return list.map((t) => {
    const clamp = t.probe.endsWith('.clamp');
    const ref = clamp ? undefined : (t.ref ?? REFERENCE);
    const { value, unit } = rig.read(t.state, t.probe, ref);
    return {
      id: demoUuid(`${job} ${epoch} ${t.state} ${t.probe} ${ref ?? ''}`),
      epoch,
      state: t.state,
      probe: t.probe,
      ...(ref === undefined ? {} : { ref }),
      status: 'measured',
      value,
      unit,
      secondsInState: t.state === 'rested' ? 1900 + t.minute * 60 : 60 + ((t.minute * 37) % 240),
      meter: BAY_METER.id,
      takenAt: new Date(start.getTime() + t.minute * 60_000).toISOString(),
      by,
    };
  });
}
