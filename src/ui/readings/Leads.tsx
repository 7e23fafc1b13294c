'use client';
/** Where red and black go, in words; the sign tells them apart without colour. */
import { clsx } from 'clsx';
import { useJobFile, useMeasuring } from '../shell/jobPage';

export function LeadMark({ lead }: { lead: 'red' | 'black' }) {
  return (
    <span
      className={clsx(
        'inline-grid place-items-center flex-none',
        'w-6 h-6 rounded-full',
        'is-black:bg-black-lead is-red:bg-red-lead',
        `lead ${lead}`,
      )}
      aria-hidden="true"
    >
      <svg width={14} height={14} viewBox="-7 -7 14 14">
        <path d={lead === 'red' ? 'M-5.5 0h11M0-5.5v11' : 'M-5.5 0h11'} stroke="currentColor" strokeWidth={2.8} />
      </svg>
    </span>
  );
}

/** Words for a point: its probe's label and where on it. */
export function usePointWords(): (key: string) => string {
  const { rig } = useJobFile();
  const { point } = useMeasuring();
  return (key) => {
    const probe = rig.probes.find((p) => p.key === key);
    const lead = point(key)?.lead ?? key;
    return probe ? `${probe.label}, ${lead}` : lead;
  };
}

export function LeadLines({ red, black }: { red: string; black: string | undefined }) {
  const words = usePointWords();
  const clamp = black === undefined;
  return (
    <div
      className={clsx(
        'grid gap-1',
        'within-phone:px-3.5 within-phone:pt-0 within-phone:pb-1.75 within-phone:border-b within-phone:border-ink',
      )}
    >
      <span className="flex items-center gap-1.75 text-fine leading-tight within-phone:text-note">
        <LeadMark lead="red" />
        <b className="min-w-10 font-semibold">{clamp ? 'Clamp' : 'Red'}</b>
        {words(red)}
      </span>
      {!clamp && (
        <span className="flex items-center gap-1.75 text-fine leading-tight within-phone:text-note">
          <LeadMark lead="black" />
          <b className="min-w-10 font-semibold">Black</b>
          {words(black)}
        </span>
      )}
    </div>
  );
}
