'use client';
/** Which links are compared, at most six at once. */
import { useState } from 'react';
import type { Candidate } from '../../core/plan/candidates';
import { LETTERS } from '../../core/plan/letters';
import { useJobFile } from '../shell/jobPage';
import { Sheet } from '../Dialog';

export function CandidatePicker({
  list,
  ids,
  onClose,
  onSet,
}: {
  list: readonly Candidate[];
  ids: readonly string[];
  onClose(): void;
  onSet(ids: readonly string[]): void;
}) {
  const { words } = useJobFile();
  const [on, setOn] = useState<readonly string[]>(ids);
  const full = on.length >= LETTERS.length;
  return (
    <Sheet title="Which links to compare" onClose={onClose}>
      <div className="grid mb-2.5">
        {list.map((c) => {
          const has = on.includes(c.id);
          return (
            <label key={c.id} className="tick py-1.25 border-b-1 border-rule">
              <input
                type="checkbox"
                className="checkbox flex-none border-ink"
                checked={has}
                disabled={(!has && full) || (has && on.length === 1)}
                onChange={() => setOn(list.filter((x) => (x.id === c.id ? !has : on.includes(x.id))).map((x) => x.id))}
              />
              <span>
                <b>{words(c.name)}</b>
                <small className="block text-ink-2 text-fine">{words(c.says)}</small>
              </span>
            </label>
          );
        })}
      </div>
      {full && <p className="quiet">Six at once: take one out to put another in.</p>}
      <button type="button" className="btn btn-neutral" onClick={() => (onSet(on), onClose())}>
        Compare these {on.length}
      </button>
    </Sheet>
  );
}
