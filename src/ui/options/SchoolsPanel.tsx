'use client';
/** Schools of thought of the trade, and what each comes to on this rig. */
import type { Comparison } from '../../core/plan/compare';
import { LETTERS } from '../../core/plan/letters';
import { useJobFile } from '../shell/jobPage';

export function SchoolsPanel({ comparison }: { comparison: Comparison }) {
  const { words } = useJobFile();
  return (
    <div>
      <ul className="oschools m-0 list-none px-3.5 py-1.5">
        {comparison.schools.map((s) => (
          <li key={s.title} className="grid gap-1 border-b border-rule py-2.5 text-base leading-tight">
            <b className="font-cond text-xl">{words(s.title)}</b>
            <span className="text-ink-2">{words(s.claim)}</span>
            <span>
              Here, {LETTERS[comparison.rows.findIndex((r) => r.candidate.id === s.candidate)]}: {words(s.here)}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
