'use client';
/** Stations still to come say in a sentence what they will hold. */
import { stationName } from './Rail';
import { useBench, type Station } from './bench';

const WORDS: Partial<Record<Station, string>> = {
  intake: 'What the owner says, how the rig is used and stored, what was tried: it will set where to begin.',
  options: 'Ways of linking the batteries, simulated on this customer’s own use and compared.',
  sizing: 'Cable, fuses, connectors and thresholds for the chosen link, each with its working.',
  build: 'Parts, cut list and ordered steps with cautions and minutes, from the difference between as found and proposed.',
  logbook: 'Every reading of this rig across the years, follow-ups and recorder logs.',
};

export function LaterStation({ station }: { station: Station }) {
  const { job, go } = useBench();
  return (
    <div className="empty">
      <h2>{stationName(station)}</h2>
      <p>{WORDS[station]}</p>
      {station === 'intake' && (
        <p>
          <b>Complaint on this job:</b> {job.complaint.words}
        </p>
      )}
      <p className="quiet">This station is not built yet. Rig, Readings, Fault and Prove work today.</p>
      <button type="button" className="bx" onClick={() => go('readings')}>
        To the readings
      </button>
    </div>
  );
}
