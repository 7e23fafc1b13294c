'use client';
/** The comparison by the trade's criteria, a row a candidate. Every figure stands with its unit. */
import { clsx } from 'clsx';
import { CircleCheck, TriangleAlert } from 'lucide-react';
import type { Compared, Comparison } from '../../core/plan/compare';
import type { Spread } from '../../core/plan/sensitivity';
import { DASHES, LETTERS } from '../../core/plan/letters';
import { showRange } from '../../core/units/money';
import { useJobFile } from '../shell/jobPage';

const percent = (x: number) => Math.round(x * 100);

/** The line's sample, as on the chart. */
export function LineSample({ index, picked }: { index: number; picked: boolean }) {
  return (
    <svg width={34} height={8} viewBox="0 0 34 8" aria-hidden="true">
      <path
        className="stroke-current fill-none"
        d="M0 4H34"
        strokeWidth={picked ? 4 : 2.4}
        strokeDasharray={picked ? undefined : DASHES[index]!.join(' ') || undefined}
      />
    </svg>
  );
}

const Mark = ({ good, children }: { good: boolean; children: React.ReactNode }) => (
  <span className={`omark${good ? '' : ' bad'}`}>
    {good ? <CircleCheck size={16} aria-hidden="true" /> : <TriangleAlert size={16} aria-hidden="true" />}
    {children}
  </span>
);

function startWords(row: Compared): { good: boolean; words: string } {
  const s = row.outcome.start;
  if (!s) return { good: true, words: 'no engine' };
  const inHand = s.volts - s.limit;
  return s.starts
    ? { good: true, words: `${inHand.toFixed(1)} V in hand` }
    : { good: false, words: `${(-inHand).toFixed(1)} V short` };
}

interface Props {
  comparison: Comparison;
  spreads: readonly Spread[] | undefined;
  picked: string;
  onPick(id: string): void;
  onWorking(id: string): void;
}

export function OptionTable({ comparison, spreads, picked, onPick, onWorking }: Props) {
  const { settings, words } = useJobFile();
  const hasShore = comparison.rows.some((r) => r.outcome.startOnShore !== undefined);
  const hadBoost = comparison.rows.some((r) => r.outcome.boost === 'keeps');
  return (
    <table className="options-table w-full text-note leading-close">
      <thead>
        <tr>
          <th scope="col">Link</th>
          <th scope="col">Arrives at</th>
          <th scope="col">Alternator, idle</th>
          <th scope="col">Hardest start</th>
          {hadBoost && <th scope="col">Boost</th>}
          {hasShore && <th scope="col">On shore</th>}
          <th scope="col">Right volts</th>
          <th scope="col">All in</th>
          <th scope="col">Points</th>
        </tr>
      </thead>
      <tbody>
        {comparison.rows.map((row, i) => {
          const { candidate, outcome, estimate, scored } = row;
          const on = candidate.id === picked;
          const spread = spreads?.find((s) => s.candidate === candidate.id);
          const start = startWords(row);
          const wrong = outcome.profiles.filter((p) => !p.ok);
          const idle = outcome.alternator?.idleShare ?? 0;
          return (
            <tr key={candidate.id} className={on ? 'on' : ''} aria-selected={on} onClick={() => onPick(candidate.id)}>
              <th
                className="border-b-1 border-rule font-normal text-left align-middle within-on:bg-ink within-on:text-paper"
                scope="row"
              >
                <button
                  className={clsx(
                    'grid items-center gap-2.25',
                    'min-h-11.5 w-full pr-1 pl-2.5 py-0.5',
                    'font-semibold text-left text-note text-inherit leading-close',
                  )}
                  type="button"
                  onClick={() => onPick(candidate.id)}
                  aria-pressed={on}
                >
                  <span
                    className={clsx(
                      'inline-grid place-items-center flex-none',
                      'w-6.25 h-6.25 border border-current rounded',
                      'font-cond font-bold text-lead',
                    )}
                  >
                    {LETTERS[i]}
                  </span>
                  <LineSample index={i} picked={on} />
                  <span>
                    {words(candidate.name)}
                    {scored.ruledOut.length > 0 ? (
                      <small>{words(scored.ruledOut[0]!)}</small>
                    ) : outcome.starves.length > 0 ? (
                      <small>{words(outcome.starves[0]!.says)}</small>
                    ) : candidate.school === 'leave' ? (
                      <small>{words(candidate.says)}</small>
                    ) : null}
                  </span>
                </button>
              </th>
              <td className="whitespace-nowrap cursor-pointer within-on:bg-ink within-on:text-paper">
                <b className="font-cond text-head leading-none">{percent(outcome.arrives)} %</b>
                {spread && (
                  <small>
                    {percent(spread.arrives.lo)} to {percent(spread.arrives.hi)}
                  </small>
                )}
              </td>
              <td className="whitespace-nowrap cursor-pointer within-on:bg-ink within-on:text-paper">
                {outcome.alternator ? (
                  <>
                    <b className="font-cond text-head leading-none">{percent(idle)} %</b>
                    {idle >= 0.95 && (
                      <TriangleAlert
                        size={17}
                        className="inline-block ml-1.25 text-fail align-middle within-on:text-inherit"
                        role="img"
                        aria-label="no margin"
                      />
                    )}
                    {spread && idle < 0.95 && (
                      <small>
                        {percent(spread.idleShare.lo)} to {percent(spread.idleShare.hi)}
                      </small>
                    )}
                  </>
                ) : (
                  '–'
                )}
              </td>
              <td className="whitespace-nowrap cursor-pointer within-on:bg-ink within-on:text-paper">
                <Mark good={start.good}>{start.words}</Mark>
                {spread && spread.starts < 1 && <small>starts in {percent(spread.starts)} of 100</small>}
              </td>
              {hadBoost && (
                <td className="whitespace-nowrap cursor-pointer within-on:bg-ink within-on:text-paper">
                  <Mark good={outcome.boost === 'keeps'}>{outcome.boost === 'keeps' ? 'keeps' : 'lost'}</Mark>
                </td>
              )}
              {hasShore && (
                <td className="whitespace-nowrap cursor-pointer within-on:bg-ink within-on:text-paper">
                  <Mark good={outcome.startOnShore ?? false}>{outcome.startOnShore ? 'both kept' : 'coach only'}</Mark>
                </td>
              )}
              <td
                className="whitespace-nowrap cursor-pointer within-on:bg-ink within-on:text-paper"
                title={outcome.profiles.map((p) => `${p.name} ${p.says}`).join('; ')}
              >
                <Mark good={wrong.length === 0}>
                  {wrong.length === 0
                    ? 'every bank'
                    : `${outcome.profiles.length - wrong.length} of ${outcome.profiles.length}`}
                </Mark>
              </td>
              <td
                className={clsx(
                  'font-cond font-semibold text-plain whitespace-nowrap cursor-pointer',
                  'within-on:bg-ink within-on:text-paper',
                )}
              >
                {estimate.total[1] === 0 ? '–' : showRange(estimate.total[0], estimate.total[1], settings.currency)}
              </td>
              <td className="whitespace-nowrap cursor-pointer within-on:bg-ink within-on:text-paper">
                <button
                  type="button"
                  className={clsx(
                    'opoints',
                    'min-w-11 min-h-11',
                    'font-cond font-bold text-inherit text-head underline underline-offset-3',
                  )}
                  onClick={(e) => (e.stopPropagation(), onWorking(candidate.id))}
                  aria-label={`How ${candidate.name} gets ${scored.total.toFixed(0)} points`}
                >
                  {scored.total.toFixed(0)}
                </button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
