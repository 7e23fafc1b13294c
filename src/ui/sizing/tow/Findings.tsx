'use client';
/** What goes wrong when the two are coupled, the smallest set of changes, and what is so after them. */
import { CircleCheck, TriangleAlert } from 'lucide-react';
import type { TowReport } from '../../../core/rules/tow/report';
import { useJobPage } from '../../shell/jobPage';

const hours = (h: number): string =>
  h > 24 * 60 ? 'over 60 days' : h > 96 ? `${Math.round(h / 24)} days` : `${Math.round(h)} h`;

interface FindingsProps {
  report: TowReport;
  pick(at: string): void;
  apply(): void;
  applies: string;
}

export function Findings({ report, pick, apply, applies }: FindingsProps) {
  const { words } = useJobPage();
  const { before, after, changes, left, contradictions, smallest } = report.audit;
  const figures = (s: typeof before) => (
    <dl className="twfigures">
      <div>
        <dt>Left coupled, still starts after</dt>
        <dd>{hours(s.hoursToNoStart)}</dd>
      </div>
      {s.hoursToFlat !== undefined && (
        <div>
          <dt>Accessory battery lasts</dt>
          <dd>{hours(s.hoursToFlat)}</dd>
        </div>
      )}
      {Number.isFinite(s.breakawayMinutes) && (
        <div>
          <dt>Breakaway holds</dt>
          <dd>{Math.round(s.breakawayMinutes)} min</dd>
        </div>
      )}
    </dl>
  );
  return (
    <div className="twfindings">
      <h3>Coupled as it is</h3>
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
          className={`twtrouble ${t.severity.replaceAll(' ', '-')}`}
          onClick={() => pick(t.at)}
          title={t.source}
        >
          <TriangleAlert size={18} aria-hidden="true" />
          <span>
            <b>{words(t.title)}</b> {words(t.says)}
            <small>
              {words(t.why)} <i>{t.source}.</i>
            </small>
          </span>
        </button>
      ))}
      {before.troubles.length === 0 && (
        <p className="twgood">
          <CircleCheck size={18} aria-hidden="true" /> Parked overnight, just stopped, on the road and braking: nothing
          goes wrong.
        </p>
      )}
      {changes.length > 0 && (
        <>
          <h3>
            {smallest ? 'The smallest change' : 'A change'} that puts it right{' '}
            <small>about {changes.reduce((sum, c) => sum + c.minutes, 0)} min</small>
          </h3>
          <ol className="twchanges">
            {changes.map((c) => (
              <li key={c.id}>
                {words(c.says)} <small>{c.minutes} min</small>
              </li>
            ))}
          </ol>
          {after && (
            <>
              <h4>After it</h4>
              {figures(after)}
              {left.length === 0 ? (
                <p className="twgood">
                  <CircleCheck size={18} aria-hidden="true" /> Nothing goes wrong in any state.
                </p>
              ) : (
                left.map((t, i) => (
                  <p key={i} className="twleft">
                    <TriangleAlert size={18} aria-hidden="true" /> Still: {words(t.says)}
                  </p>
                ))
              )}
              <button type="button" className="bx" onClick={apply}>
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
