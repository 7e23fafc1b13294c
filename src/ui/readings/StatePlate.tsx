'use client';
/** What the rig is doing, for how long: one ink plate. Two deliberate taps change it. */
import { ChevronDown } from 'lucide-react';
import { useEffect, useState } from 'react';
import { showClock } from '../../core/units/format';
import { useJobPage } from '../shell/jobPage';

/** Seconds since an instant, ticking. */
export function useSecondsSince(instant: string): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  return Math.max(0, (now - Date.parse(instant)) / 1000);
}

/** "settled" once every delay of the state has run out. */
export function settledWords(seconds: number, dwell: number): string {
  return seconds >= dwell ? 'settled' : `settles in ${showClock(dwell - seconds)}`;
}

export function StatePlate({ small = false }: { small?: boolean }) {
  const { job, openStates, stateOf } = useJobPage();
  const state = stateOf(job.rigState.id);
  const seconds = useSecondsSince(job.rigState.since);
  // Past an hour and a half nobody has been counting: say so in hours.
  const clock = showClock(seconds);
  return (
    <button
      type="button"
      className={`stateplate${small ? ' sm' : ''}`}
      aria-haspopup="dialog"
      onClick={() => openStates()}
      aria-label={`The rig is now ${state.label}, for ${clock}. Change`}
    >
      <span className="a">
        <b>{state.label}</b>
        <span>rig now{small ? '' : `, ${settledWords(seconds, state.inputs.dwell)}`}</span>
      </span>
      <span className="tm">{clock}</span>
      {!small && (
        <span className="ch">
          Change
          <ChevronDown size={18} aria-hidden="true" />
        </span>
      )}
    </button>
  );
}
