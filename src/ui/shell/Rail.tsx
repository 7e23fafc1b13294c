'use client';
/** Stations in working order; each says what it still lacks. */
import { FoldVertical, LayoutList, Moon, Sun, UnfoldVertical } from 'lucide-react';
import Link from 'next/link';
import { useJobPage } from './jobPage';
import type { Pip } from './stationMarks';
import { STATION_REGISTRY } from './stationRegistry';
import { STATIONS } from './stations';
import { useTheme } from '../theme';

function PipMark({ pip }: { pip: Pip }) {
  return (
    <svg width={14} height={14} viewBox="-7 -7 14 14" aria-hidden="true" className={`pip ${pip}`}>
      {pip === 'done' ? (
        <>
          <circle r={6} className="pf" />
          <path d="M-2.8 .2L-.8 2.2L3-2" className="pt" />
        </>
      ) : (
        <circle r={5.5} className="pc" strokeDasharray={pip === 'wait' ? '3 2.4' : undefined} />
      )}
      {pip === 'part' && <path d="M0 0V-5.5A5.5 5.5 0 0 1 0 5.5Z" className="pf" />}
    </svg>
  );
}

export function Rail({ strip }: { strip?: { tall: boolean; toggle(): void } }) {
  const page = useJobPage();
  const { job, station } = page;
  const [theme, toggle] = useTheme();
  return (
    <nav className="rail" aria-label="Stations">
      <Link href="/" className="word" aria-label="Surrik, all jobs">
        <LayoutList size={18} aria-hidden="true" />
        <span>Surrik</span>
      </Link>
      {STATIONS.map((s, i) => {
        const { name, hotkey, mark } = STATION_REGISTRY[s];
        const { pip, says } = mark(page);
        const here = s === station;
        return (
          <Link
            key={s}
            href={`/jobs/${job.number}/${s}`}
            prefetch={false}
            onNavigate={(e) => {
              e.preventDefault();
              page.go(s);
            }}
            className={`stn${here ? ' here' : pip === 'wait' ? ' todo' : ''}`}
            aria-current={here ? 'step' : undefined}
            aria-keyshortcuts={hotkey}
            title={`${name}: ${says} (${hotkey})`}
          >
            <span className="l">
              <span className="n">{i + 1}</span>
              <PipMark pip={pip} />
            </span>
            <span className="tx">
              <span className="t">{name}</span>
              <span className="m">{says}</span>
            </span>
          </Link>
        );
      })}
      {strip && (
        <button
          type="button"
          className="railbtn"
          onClick={strip.toggle}
          aria-label={strip.tall ? 'Make the strip slim' : 'Show the whole strip'}
          aria-keyshortcuts="t"
          title={`${strip.tall ? 'Make the strip slim' : 'Show the whole strip'} (t)`}
        >
          {strip.tall ? <FoldVertical size={18} aria-hidden="true" /> : <UnfoldVertical size={18} aria-hidden="true" />}
          <span>{strip.tall ? 'Slim' : 'Strip'}</span>
        </button>
      )}
      <button type="button" className="railbtn" onClick={toggle}>
        {theme === 'carbon' ? <Sun size={18} aria-hidden="true" /> : <Moon size={18} aria-hidden="true" />}
        <span>{theme === 'carbon' ? 'Light' : 'Dark'}</span>
      </button>
    </nav>
  );
}
