'use client';
/** Where red and black go, in words; the sign tells them apart without colour. */
import { useJobPage } from '../shell/jobPage';

export function LeadMark({ lead }: { lead: 'red' | 'black' }) {
  return (
    <span className={`lead ${lead}`} aria-hidden="true">
      <svg width={14} height={14} viewBox="-7 -7 14 14">
        <path d={lead === 'red' ? 'M-5.5 0h11M0-5.5v11' : 'M-5.5 0h11'} stroke="currentColor" strokeWidth={2.8} />
      </svg>
    </span>
  );
}

/** Words for a point: its probe's label and where on it. */
export function usePointWords(): (key: string) => string {
  const { rig, point } = useJobPage();
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
    <div className="leads">
      <span>
        <LeadMark lead="red" />
        <b>{clamp ? 'Clamp' : 'Red'}</b>
        {words(red)}
      </span>
      {!clamp && (
        <span>
          <LeadMark lead="black" />
          <b>Black</b>
          {words(black)}
        </span>
      )}
    </div>
  );
}
