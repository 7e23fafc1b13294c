'use client';
/** What the rig is doing, for how long: one ink plate. Two deliberate taps change it. */
import { clsx } from 'clsx';
import { ChevronDown } from 'lucide-react';
import { useEffect, useState } from 'react';
import { showClock } from '../../core/units/format';
import { useJobFile, useMeasuring } from '../shell/jobPage';

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
  const { job, stateOf } = useJobFile();
  const { openStates } = useMeasuring();
  const state = stateOf(job.rigState.id);
  const seconds = useSecondsSince(job.rigState.since);
  // Past an hour and a half nobody has been counting: say so in hours.
  const clock = showClock(seconds);
  return (
    <button
      type="button"
      className={clsx(
        'flex items-stretch flex-none',
        'overflow-hidden border-2 border-ink rounded bg-ink',
        'font-cond text-paper text-left',
        'is-sm:shrink is-sm:min-w-0 max-narrow:within-top:min-h-11.5',
        `stateplate${small ? ' sm' : ''}`,
      )}
      aria-haspopup="dialog"
      onClick={() => openStates()}
      aria-label={`The rig is now ${state.label}, for ${clock}. Change`}
    >
      <span className="a grid content-center px-3 leading-none within-sm:min-w-0 within-sm:px-2">
        <b
          className={clsx(
            'text-figure leading-none whitespace-nowrap',
            'within-sm:overflow-hidden within-sm:text-large within-sm:text-ellipsis',
          )}
        >
          {state.label}
        </b>
        <span className="mt-0.5 font-sans font-medium text-note leading-close whitespace-nowrap">
          rig now{small ? '' : `, ${settledWords(seconds, state.inputs.dwell)}`}
        </span>
      </span>
      <span
        className={clsx(
          'grid content-center',
          'pr-3 pl-0.5',
          'font-bold text-title leading-none',
          'within-sm:pr-2.25 within-sm:pl-0 within-sm:text-figure',
        )}
      >
        {clock}
      </span>
      {!small && (
        <span className="flex items-center gap-1.25 px-2.75 bg-card font-semibold text-ink text-lead">
          Change
          <ChevronDown size={18} aria-hidden="true" />
        </span>
      )}
    </button>
  );
}
