'use client';
/** Stations still to come say in a sentence what they will hold. */
import { stationName } from './Rail';
import { useBench, type Station } from './bench';

const WORDS: Partial<Record<Station, string>> = {
  sizing: 'Cable, fuses, connectors and thresholds for the chosen link, each with its working.',
  build: 'Parts, cut list and ordered steps with cautions and minutes, from the difference between as found and proposed.',
  logbook: 'Every reading of this rig across the years, follow-ups and recorder logs.',
};

export function LaterStation({ station }: { station: Station }) {
  const { go } = useBench();
  return (
    <div className="empty">
      <h2>{stationName(station)}</h2>
      <p>{WORDS[station]}</p>
      <p className="quiet">This station is not built yet. Intake, Rig, Readings, Fault, Options and Prove work today.</p>
      <button type="button" className="bx" onClick={() => go('readings')}>
        To the readings
      </button>
    </div>
  );
}
