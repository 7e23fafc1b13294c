'use client';
/** Stations in working order; each says what it still lacks. */
import { clsx } from 'clsx';
import { FoldVertical, LayoutList, Moon, Sun, UnfoldVertical, UserRound } from 'lucide-react';
import Link from 'next/link';
import { useJobFile, useMeasuring, useAnswers, usePlace } from './jobPage';
import type { Pip } from './stationMarks';
import { STATION_REGISTRY } from './stationRegistry';
import { STATIONS } from './stations';
import { useTheme } from '../theme';

function PipMark({ pip }: { pip: Pip }) {
  return (
    <svg
      width={14}
      height={14}
      viewBox="-7 -7 14 14"
      aria-hidden="true"
      className={`text-ink-2 is-done:text-ok within-here:text-paper pip ${pip}`}
    >
      {pip === 'done' ? (
        <>
          <circle r={6} className="fill-current" />
          <path d="M-2.8 .2L-.8 2.2L3-2" className="pt fill-none stroke-card within-here:stroke-ink" />
        </>
      ) : (
        <circle
          r={5.5}
          className="pc fill-none stroke-current"
          strokeDasharray={pip === 'wait' ? '3 2.4' : undefined}
        />
      )}
      {pip === 'part' && <path d="M0 0V-5.5A5.5 5.5 0 0 1 0 5.5Z" className="fill-current" />}
    </svg>
  );
}

export function Rail({ strip }: { strip?: { tall: boolean; toggle(): void } }) {
  const file = useJobFile();
  const measuring = useMeasuring();
  const answers = useAnswers();
  const place = usePlace();
  const { job } = file;
  const { station } = place;
  const [theme, toggle] = useTheme();
  return (
    <nav
      className="rail flex row-span-3 flex-col min-h-0 overflow-y-auto border-r-2 border-ink bg-card"
      aria-label="Stations"
    >
      <Link
        href="/"
        className={clsx(
          'word',
          'flex flex-none items-center justify-center gap-1.75',
          'h-14 border-b border-ink',
          'font-cond font-bold text-title text-ink no-underline',
        )}
        aria-label="Surrik, all jobs"
      >
        <LayoutList size={18} aria-hidden="true" />
        <span className="max-narrow:within-word:hidden">Surrik</span>
      </Link>
      {STATIONS.map((s, i) => {
        const { name, hotkey, mark } = STATION_REGISTRY[s];
        const { pip, says } = mark({ ...file, ...measuring, ...answers });
        const here = s === station;
        return (
          <Link
            key={s}
            href={`/jobs/${job.number}/${s}`}
            prefetch={false}
            onNavigate={(e) => {
              e.preventDefault();
              place.go(s);
            }}
            className={clsx(
              'grid flex-none items-center',
              'h-16.5 pl-1.5 border-b-1 border-rule',
              'text-ink no-underline',
              'is-here:bg-ink is-here:text-paper',
              'max-narrow:grid-cols-1 max-narrow:content-center max-narrow:justify-items-center',
              'max-narrow:gap-0.5 max-narrow:h-14.5 max-narrow:p-0',
              `stn${here ? ' here' : pip === 'wait' ? ' todo' : ''}`,
            )}
            aria-current={here ? 'step' : undefined}
            aria-keyshortcuts={hotkey}
            title={`${name}: ${says} (${hotkey})`}
          >
            <span className="grid justify-items-center gap-0.75">
              <span
                className={clsx(
                  'font-cond font-bold text-title leading-none',
                  'max-narrow:hidden within-here:text-paper within-todo:font-semibold within-todo:text-ink-2',
                )}
              >
                {i + 1}
              </span>
              <PipMark pip={pip} />
            </span>
            <span className="tx">
              <span
                className={clsx(
                  't',
                  'block',
                  'font-cond font-bold text-lead leading-close',
                  'within-here:text-paper within-todo:font-semibold within-todo:text-ink-2',
                )}
              >
                {name}
              </span>
              <span
                className={clsx(
                  'block',
                  'mt-0.5',
                  'font-cond font-medium text-note text-ink-2 leading-close',
                  'max-narrow:hidden within-here:text-paper',
                )}
              >
                {says}
              </span>
            </span>
          </Link>
        );
      })}
      {strip && (
        <button
          type="button"
          className="railbtn max-narrow:text-fine"
          onClick={strip.toggle}
          aria-label={strip.tall ? 'Make the strip slim' : 'Show the whole strip'}
          aria-keyshortcuts="t"
          title={`${strip.tall ? 'Make the strip slim' : 'Show the whole strip'} (t)`}
        >
          {strip.tall ? <FoldVertical size={18} aria-hidden="true" /> : <UnfoldVertical size={18} aria-hidden="true" />}
          <span>{strip.tall ? 'Slim' : 'Strip'}</span>
        </button>
      )}
      {/* Side by side: under nine stations there is no room for one more row. */}
      <div className={clsx('flex flex-none', !strip && 'mt-auto')}>
        <Link
          href={`/switch?to=/jobs/${job.number}/${station}`}
          prefetch={false}
          className="railbtn m-0 flex-1 border-r-1 border-rule text-fine"
          title="Somebody else takes this device over, with a PIN"
        >
          <UserRound size={18} aria-hidden="true" />
          <span>Switch</span>
        </Link>
        <button type="button" className="railbtn m-0 flex-1 text-fine" onClick={toggle}>
          {theme === 'carbon' ? <Sun size={18} aria-hidden="true" /> : <Moon size={18} aria-hidden="true" />}
          <span>{theme === 'carbon' ? 'Light' : 'Dark'}</span>
        </button>
      </div>
    </nav>
  );
}
