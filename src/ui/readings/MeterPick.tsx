'use client';
/** Which meter is in hand: its accuracy goes with every reading. */
import { Gauge } from 'lucide-react';
import { isOverdue } from '../../core/probe/instrument';
import { useJobFile, useEntries } from '../shell/jobPage';

export function MeterPick() {
  const { job, shop } = useJobFile();
  const { send } = useEntries();
  const live = shop.instruments.filter((i) => !i.retired);
  const inHand = job.instruments.find((i) => i.id === job.meter);
  if (live.length === 0 && !inHand) return null;
  const late = inHand && isOverdue(inHand, job.rigState.since);
  return (
    <label className={`flex items-center gap-1.25 ml-auto text-note meterpick${late ? ' late' : ''}`}>
      <Gauge size={17} aria-hidden="true" />
      <span className="sr-only">Meter in hand</span>
      <select
        className="select h-9 w-auto min-h-9 max-w-54 border-ink bg-card text-ink text-note"
        value={job.meter ?? ''}
        onChange={(e) => {
          const set = live.find((i) => i.id === e.target.value);
          send('meter.choose', { ...(inHand ? { was: inHand } : {}), ...(set ? { set } : {}) });
        }}
      >
        <option value="">a usual meter</option>
        {[...live, ...(inHand && !live.some((i) => i.id === inHand.id) ? [inHand] : [])].map((i) => (
          <option key={i.id} value={i.id}>
            {i.name}
          </option>
        ))}
      </select>
      {late && <b>compare it</b>}
    </label>
  );
}
