'use client';
/** What goes wrong when the two are coupled, the smallest set of changes, and what is so after them. */
import { clsx } from 'clsx';
import { CircleCheck, TriangleAlert } from 'lucide-react';
import type { TowReport } from '../../../core/rules/tow/report';
import { useJobFile } from '../../shell/jobPage';

const hours = (h: number): string =>
  h > 24 * 60 ? 'over 60 days' : h > 96 ? `${Math.round(h / 24)} days` : `${Math.round(h)} h`;

interface FindingsProps {
  report: TowReport;
  pick(at: string): void;
  apply(): void;
  applies: string;
}

export function Findings({ report, pick, apply, applies }: FindingsProps) {
  const { words } = useJobFile();
  const { before, after, changes, left, contradictions, smallest } = report.audit;
  const figures = (s: typeof before) => (
    <dl className="flex flex-wrap gap-x-5.5 gap-y-0.5">
      <div className="flex items-baseline gap-1.75">
        <dt className="text-ink-2">Left coupled, still starts after</dt>
        <dd className="font-cond font-bold text-large">{hours(s.hoursToNoStart)}</dd>
      </div>
      {s.hoursToFlat !== undefined && (
        <div className="flex items-baseline gap-1.75">
          <dt className="text-ink-2">Accessory battery lasts</dt>
          <dd className="font-cond font-bold text-large">{hours(s.hoursToFlat)}</dd>
        </div>
      )}
      {Number.isFinite(s.breakawayMinutes) && (
        <div className="flex items-baseline gap-1.75">
          <dt className="text-ink-2">Breakaway holds</dt>
          <dd className="font-cond font-bold text-large">{Math.round(s.breakawayMinutes)} min</dd>
        </div>
      )}
    </dl>
  );
  return (
    <div className="twfindings grid content-start gap-1.75 px-3.5 pt-2 pb-3 text-note leading-tight">
      <h3 className="font-cond font-bold text-head leading-close">Coupled as it is</h3>
      {figures(before)}
      {contradictions.map((c, i) => (
        <button key={i} type="button" className="twtrouble" onClick={() => pick(c.at)}>
          <TriangleAlert size={18} aria-hidden="true" />
          <span>
            <b>Readings that do not fit</b> {words(c.says)}
          </span>
        </button>
      ))}
      {before.troubles.map((t, i) => (
        <button
          key={i}
          type="button"
          className={clsx(
            'grid grid-cols-icon gap-1.5',
            'min-h-11 py-1.25 border-b-1 border-rule',
            'text-left text-inherit leading-tight',
            `twtrouble ${t.severity.replaceAll(' ', '-')}`,
          )}
          onClick={() => pick(t.at)}
          title={t.source}
        >
          <TriangleAlert size={18} aria-hidden="true" />
          <span>
            <b className="block font-cond text-large leading-close">{words(t.title)}</b> {words(t.says)}
            <small className="block text-fine text-ink-2">
              {words(t.why)} <i>{t.source}.</i>
            </small>
          </span>
        </button>
      ))}
      {before.troubles.length === 0 && (
        <p className="twgood grid grid-cols-icon gap-1.5">
          <CircleCheck size={18} aria-hidden="true" /> Parked overnight, just stopped, on the road and braking: nothing
          goes wrong.
        </p>
      )}
      {changes.length > 0 && (
        <>
          <h3 className="font-cond font-bold text-head leading-close">
            {smallest ? 'The smallest change' : 'A change'} that puts it right{' '}
            <small className="font-cond font-medium text-plain text-ink-2 whitespace-nowrap">
              about {changes.reduce((sum, c) => sum + c.minutes, 0)} min
            </small>
          </h3>
          <ol className="grid gap-1 pl-5.5 font-medium list-decimal">
            {changes.map((c) => (
              <li key={c.id}>
                {words(c.says)}{' '}
                <small className="font-cond font-medium text-plain text-ink-2 whitespace-nowrap">{c.minutes} min</small>
              </li>
            ))}
          </ol>
          {after && (
            <>
              <h4 className="font-cond font-semibold text-large">After it</h4>
              {figures(after)}
              {left.length === 0 ? (
                <p className="twgood grid grid-cols-icon gap-1.5">
                  <CircleCheck size={18} aria-hidden="true" /> Nothing goes wrong in any state.
                </p>
              ) : (
                left.map((t, i) => (
                  <p key={i} className="twleft">
                    <TriangleAlert size={18} aria-hidden="true" /> Still: {words(t.says)}
                  </p>
                ))
              )}
              <button type="button" className="btn" onClick={apply}>
                {applies}
              </button>
            </>
          )}
        </>
      )}
      {changes.length === 0 && before.troubles.length > 0 && (
        <p className="twleft">No change from our list puts this right: look at what is described.</p>
      )}
      <p className="quiet">
        Minutes are assumed. Brakes, lights and breakaway are proved after any work at the connector.
      </p>
    </div>
  );
}
