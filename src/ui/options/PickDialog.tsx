'use client';
/** Picking a link: what changes on the rig, what it costs, the reasons as the customer will read them. */
import { useMemo } from 'react';
import { TriangleAlert } from 'lucide-react';
import type { Compared } from '../../core/plan/compare';
import { showRange } from '../../core/units/money';
import { useJobFile } from '../shell/jobPage';
import { Sheet } from '../Dialog';
import { useDraft } from '../draft';

interface Props {
  row: Compared;
  reasons: readonly { good: boolean; says: string }[];
  onClose(): void;
  onPick(reasons: string): void;
}

export function PickDialog({ row, reasons, onClose, onPick }: Props) {
  const { job, words, settings } = useJobFile();
  const { candidate, estimate } = row;
  const usual = useMemo(() => reasons.map((r) => words(r.says)).join(' '), [reasons, words]);
  const [text, setText, forget] = useDraft(`${job.number}/pick/${candidate.id}`, usual);
  const hours = (m: number) => `${Number((m / 60).toFixed(1))} h`;
  return (
    <Sheet
      title={candidate.id === 'leave' ? 'Leave it as it is' : `Pick: ${words(candidate.name)}`}
      onClose={onClose}
      wide
    >
      {row.scored.ruledOut.length > 0 && (
        <div role="alert" className="alert alert-error alert-soft items-start">
          <TriangleAlert size={20} aria-hidden="true" />
          <div>
            <b>Found against it</b>
            <ul className="list-disc pl-5">
              {row.scored.ruledOut.map((says) => (
                <li key={says}>{words(says)}</li>
              ))}
            </ul>
            <p>It can be picked all the same: the reasons below are yours to give.</p>
          </div>
        </div>
      )}
      {candidate.differences.length > 0 ? (
        <>
          <h3>What changes on the rig</h3>
          <ul className="odiffs mt-1.5 mb-2.5 text-note leading-tight">
            {candidate.differences.map((d) => (
              <li key={`${d.kind}${d.id}`} className={d.kind}>
                <span className="font-cond font-bold text-large leading-none" aria-hidden="true">
                  {d.kind === 'removed' ? '–' : d.kind === 'added' ? '+' : '~'}
                </span>
                {words(d.says)}
              </li>
            ))}
          </ul>
          <p>
            About {hours(estimate.minutes[0])} to {hours(estimate.minutes[1])}, parts{' '}
            {showRange(estimate.parts[0], estimate.parts[1], settings.currency)}, all in{' '}
            <b>{showRange(estimate.total[0], estimate.total[1], settings.currency)}</b>. Prices and times are assumed
            until they are quoted.
          </p>
        </>
      ) : (
        <p>The rig stays as it is{candidate.effects?.length ? ', its fault with it' : ''}.</p>
      )}
      <label className="field">
        <span>Reasons, for the customer</span>
        <textarea
          className="textarea w-full"
          rows={5}
          maxLength={2000}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <div className="row flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-neutral"
          disabled={text.trim() === ''}
          onClick={() => (forget(), onPick(text.trim()))}
        >
          It is this one
        </button>
        <button type="button" className="btn" onClick={onClose}>
          Not yet
        </button>
      </div>
    </Sheet>
  );
}
