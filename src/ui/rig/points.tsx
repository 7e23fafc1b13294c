'use client';
/** Where a wire may end, and how one says what an edit means: what adding a wire and moving one have in common. */
import { PART_KINDS } from '../../core/parts/kinds';
import type { Endpoint } from '../../core/rig/schema';
import { useJobPage } from '../shell/jobPage';

export type MeansId = 'described-wrong' | 'changed';
/** Whether it was there all along, or is there from now on. */
export function Means({ disabled, add }: { disabled: boolean; add(means: MeansId): void }) {
  return (
    <div className="editbar">
      <p>
        <b>Which is it?</b> Found there: the readings stay evidence. Fitted now: new ones start.
      </p>
      <button type="button" className="bx" disabled={disabled} onClick={() => add('changed')}>
        I fitted it now
      </button>
      <button type="button" className="bx ink" disabled={disabled} onClick={() => add('described-wrong')}>
        It was there
      </button>
    </div>
  );
}
/** What an edit carries of it: a change from now on makes a revision of its own. */
export const meaning = (means: MeansId) => ({
  means,
  ...(means === 'changed' ? { revision: crypto.randomUUID() } : {}),
});

/** Every terminal and ground a wire may end on, with the words for it. */
export function usePoints(): { key: string; label: string }[] {
  const { rig } = useJobPage();
  return [
    ...rig.parts.flatMap((p) =>
      (PART_KINDS.get(p.kind)?.terminals ?? []).map((t) => ({
        key: `${p.id}.${t.id}`,
        label: `${p.name}, ${t.label}`,
      })),
    ),
    ...rig.grounds.flatMap((g) => g.points.map((p) => ({ key: `${g.id}.${p.id}`, label: p.label }))),
  ];
}
export const endpoint = (key: string): Endpoint => {
  const [part, terminal] = key.split('.') as [string, string];
  return { part, terminal };
};

export function Pick({
  label,
  value,
  onChange,
  points,
}: {
  label: string;
  value: string;
  onChange(key: string): void;
  points: readonly { key: string; label: string }[];
}) {
  return (
    <label className="field">
      <span>{label}</span>
      <select className="select" value={value} onChange={(e) => onChange(e.target.value)}>
        <option value="">choose …</option>
        {points.map((p) => (
          <option key={p.key} value={p.key}>
            {p.label}
          </option>
        ))}
      </select>
    </label>
  );
}
