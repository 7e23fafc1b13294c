'use client';
/** Two deliberate taps: a row, then a button that states a fact and starts the clock. */
import { clsx } from 'clsx';
import { TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { statesOf } from '../../core/operate/states';
import { useJobFile, useMeasuring, useEntries } from '../shell/jobPage';
import { Sheet } from '../Dialog';

export function StateChooser({ suggested, onClose }: { suggested: string | undefined; onClose(): void }) {
  const { job, rig, stateOf } = useJobFile();
  const { readings, measurements } = useMeasuring();
  const { send } = useEntries();
  const now = job.rigState.id;
  const [picked, pick] = useState(suggested ?? now);
  const total = measurements.filter((m) => m.kind !== 'drop').length;
  const state = stateOf(picked);
  const confirm = () => {
    send('state.set', { state: picked });
    onClose();
  };
  return (
    <Sheet title="What is the rig doing?" onClose={onClose}>
      <p className="text-note leading-tight">New readings are filed under this. The rig is parked for all of them.</p>
      <div role="radiogroup" aria-label="Operating state" className="states grid gap-1.75">
        {statesOf(rig)
          .map(({ id }) => stateOf(id))
          .map((s) => (
            <button
              key={s.id}
              type="button"
              role="radio"
              aria-checked={s.id === picked}
              className={clsx(
                'flex justify-between items-center gap-2',
                'min-h-13.5 px-3 py-1 border border-ink rounded bg-card',
                'text-left',
                'is-on:bg-ink is-on:text-paper',
                `${s.id === picked ? ' on' : ''}`,
              )}
              onClick={() => pick(s.id)}
            >
              <span>
                <b className="block font-cond text-head leading-close">{s.label}</b>
                <span className="text-note leading-close">{s.how}</span>
              </span>
              <span className="font-cond font-medium text-plain text-right whitespace-nowrap">
                {s.id === now && <b className="block font-cond text-head leading-close">now</b>}
                {readings.filter((r) => r.state === s.id && r.status === 'measured').length} of {total}
              </span>
            </button>
          ))}
      </div>
      <div className="sheet-foot sticky grid grid-cols-start gap-2 -bottom-3.5 pt-2 pb-0.5 bg-card">
        <ul className="grid col-span-full gap-1.25 pt-2 border-t border-ink">
          {state.cautions.map((c) => (
            <li className="grid grid-cols-icon items-start gap-1.5 text-fine leading-tight" key={c}>
              <TriangleAlert size={18} aria-hidden="true" />
              <span>{c}</span>
            </li>
          ))}
        </ul>
        <button type="button" className="btn" onClick={onClose}>
          Stay as it is
        </button>
        <button type="button" className="btn btn-accent min-h-15 w-full text-head" onClick={confirm}>
          It is now: {state.label}
        </button>
      </div>
    </Sheet>
  );
}
