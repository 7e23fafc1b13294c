'use client';
/** Where a wire may end, and how one says what an edit means: what adding a wire and moving one have in common. */
import { PART_KINDS } from '../../core/parts/kinds';
import { standingChoice } from '../../core/job/job';
import type { OptionChoice } from '../../core/job/jobSchema';
import { changeCost } from '../../core/price/prices';
import { withPieces } from '../../core/rig/applyEdit';
import type { Pieces } from '../../core/rig/edit';
import type { Endpoint, Rig } from '../../core/rig/schema';
import { useJobFile, useEntries } from '../shell/jobPage';

/** A pick made here, not by comparing. */
const PLANNED_BY_HAND = 'by-hand';

export type MeansId = 'described-wrong' | 'changed' | 'planned';
/** Whether it was there all along, is there from now on, or is to be fitted. */
export function Means({ disabled, add }: { disabled: boolean; add(means: MeansId): void }) {
  return (
    <div className="editbar flex-wrap sticky flex items-center gap-2 -bottom-3.5 py-2 border-t-2 border-ink bg-paper">
      <p className="text-note leading-tight">
        <b>Which is it?</b> Found there: the readings stay evidence. Fitted now: new ones start. Planned: it goes into
        the pick, with Build and Prove.
      </p>
      <button type="button" className="btn" disabled={disabled} onClick={() => add('planned')}>
        Plan it
      </button>
      <button type="button" className="btn" disabled={disabled} onClick={() => add('changed')}>
        I fitted it now
      </button>
      <button type="button" className="btn btn-neutral" disabled={disabled} onClick={() => add('described-wrong')}>
        It was there
      </button>
    </div>
  );
}
/** The rig a pick proposes, where one stands. */
export const usePlanned = (): { choice: OptionChoice; doc: Rig } | undefined => {
  const { job } = useJobFile();
  const choice = standingChoice(job);
  const doc = job.revisions.find((r) => r.id === choice?.revision)?.doc;
  return choice && doc ? { choice, doc } : undefined;
};

/** Puts pieces in, or moves ends: as found, as fitted now, or into the plan, which is made where there is none. */
export function useAddPieces(): (pieces: Pieces, means: MeansId) => void {
  const { described } = useJobFile();
  const { send } = useEntries();
  const planned = usePlanned();
  return (pieces, means) => {
    const change = {
      parts: [...pieces.parts],
      conductors: [...pieces.conductors],
      ...(pieces.moved ? { moved: [...pieces.moved] } : {}),
    };
    if (means === 'changed') send('pieces.add', { ...change, means, revision: crypto.randomUUID() });
    else if (means === 'described-wrong') send('pieces.add', { ...change, means });
    else if (planned) send('pieces.add', { ...change, means: 'proposed', revision: planned.choice.revision });
    else {
      const doc = withPieces(described, pieces);
      const { minutes, parts } = changeCost(described, doc);
      send('option.choose', {
        id: crypto.randomUUID(),
        candidate: PLANNED_BY_HAND,
        name: pieces.parts[0]?.name ?? pieces.conductors[0]?.name ?? 'Wires moved',
        reasons: 'Planned by hand: see what is to be fitted.',
        minutes: [...minutes],
        parts: [...parts],
        revision: crypto.randomUUID(),
        doc,
      });
    }
  };
}

/** Every terminal and ground a wire may end on, what is planned among them, with the words for it. */
export function usePoints(): { key: string; label: string }[] {
  const { rig } = useJobFile();
  const planned = usePlanned();
  const here = new Set(rig.parts.map((p) => p.id));
  const parts = [...rig.parts, ...(planned?.doc.parts.filter((p) => !here.has(p.id)) ?? [])];
  return [
    ...parts.flatMap((p) =>
      (PART_KINDS.get(p.kind)?.terminals ?? []).map((t) => ({
        key: `${p.id}.${t.id}`,
        label: `${p.name}, ${t.label}${here.has(p.id) ? '' : ' (planned)'}`,
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
      <select
        className="select h-12 w-full border-ink bg-card text-ink text-plain"
        value={value}
        onChange={(e) => onChange(e.target.value)}
      >
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
