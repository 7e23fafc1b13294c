'use client';
/** Stations still to come say in a sentence what they will hold. */
import { stationName } from './Rail';
import { useBench, type Station } from './bench';

const WORDS: Partial<Record<Station, string>> = {
  logbook: 'Every reading of this rig across the years, follow-ups and recorder logs.',
};

export function LaterStation({ station }: { station: Station }) {
  const { go } = useBench();
  return (
    <div className="empty">
      <h2>{stationName(station)}</h2>
      <p>{WORDS[station]}</p>
      <p className="quiet">This station is not there yet. The others work today.</p>
      <button type="button" className="bx" onClick={() => go('readings')}>
        To the readings
      </button>
    </div>
  );
}
