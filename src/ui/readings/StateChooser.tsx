'use client';
/** Two deliberate taps: a row, then a button that states a fact and starts the clock. */
import { TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { statesOf } from '../../core/operate/states';
import { useJobPage } from '../shell/jobPage';
import { Sheet } from '../Dialog';

export function StateChooser({ suggested, onClose }: { suggested: string | undefined; onClose(): void }) {
  const { job, rig, readings, measurements, send, stateOf } = useJobPage();
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
      <p className="lead-in">New readings are filed under this. The rig is parked for all of them.</p>
      <div role="radiogroup" aria-label="Operating state" className="states">
        {statesOf(rig)
          .map(({ id }) => stateOf(id))
          .map((s) => (
            <button
              key={s.id}
              type="button"
              role="radio"
              aria-checked={s.id === picked}
              className={`strow${s.id === picked ? ' on' : ''}`}
              onClick={() => pick(s.id)}
            >
              <span>
                <b>{s.label}</b>
                <span>{s.how}</span>
              </span>
              <span className="c">
                {s.id === now && <b>now</b>}
                {readings.filter((r) => r.state === s.id && r.status === 'measured').length} of {total}
              </span>
            </button>
          ))}
      </div>
      <div className="sheet-foot">
        <ul className="cautions">
          {state.cautions.map((c) => (
            <li key={c}>
              <TriangleAlert size={18} aria-hidden="true" />
              <span>{c}</span>
            </li>
          ))}
        </ul>
        <button type="button" className="bx" onClick={onClose}>
          Stay as it is
        </button>
        <button type="button" className="bx go wide" onClick={confirm}>
          It is now: {state.label}
        </button>
      </div>
    </Sheet>
  );
}
