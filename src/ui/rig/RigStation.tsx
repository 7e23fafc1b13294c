'use client';
/**
 * The rig as real parts at real places: pick one, see its terminals and what is on them, edit its figures
 * with unit, spread and how they are known. The strip redraws as one types; what is saved asks whether the
 * description was wrong or the rig was changed.
 */
import { clsx } from 'clsx';
import { partWith } from '../../core/rig/value';
import { Plus, TriangleAlert, Workflow } from 'lucide-react';
import Link from 'next/link';
import { useEffect, useMemo, useState } from 'react';
import { withConductor, withPart } from '../../core/rig/applyEdit';
import type { ConductorChange, PartChange } from '../../core/rig/edit';
import type { Conductor, Part, Rig } from '../../core/rig/schema';
import { unworkable } from '../../core/rig/workable';
import { lengthShown } from '../../core/units/preferences';
import { gaugeShown } from '../../core/units/wire';
import { partKind, partOptions } from '../../core/parts/kinds';
import { useJobFile, useEntries, usePlace } from '../shell/jobPage';
import { AddPieces } from './AddPieces';
import { ConductorEditor, PartEditor } from './RigEditors';

type Picked = { part: string } | { conductor: string } | { add: true };
type Means = 'described-wrong' | 'changed';

/** What a change would replace, field by field: its inverse. */
function wasOfPart(part: Part, set: PartChange): PartChange {
  const options = partOptions(partKind(part.kind), part);
  return {
    ...(set.name === undefined ? {} : { name: part.name }),
    ...(set.note === undefined ? {} : { note: part.note ?? '' }),
    ...(set.station === undefined ? {} : { station: part.station }),
    ...(set.lamps === undefined ? {} : { lamps: part.lamps ?? [] }),
    ...(set.options ? { options: Object.fromEntries(Object.keys(set.options).map((k) => [k, options[k]!])) } : {}),
    ...(set.params
      ? {
          params: Object.fromEntries(
            Object.keys(set.params).map((k) => [k, part.params[k] ?? partKind(part.kind).params[k]!.default]),
          ),
        }
      : {}),
  };
}
const wasOfConductor = (c: Conductor, set: ConductorChange): ConductorChange => ({
  ...(set.gauge === undefined ? {} : { gauge: c.gauge }),
  ...(set.length === undefined ? {} : { length: c.length }),
  ...(set.joints === undefined ? {} : { joints: c.joints }),
  ...(set.ends === undefined ? {} : { ends: c.ends ?? 'crimped' }),
});

export function RigStation() {
  const file = useJobFile();
  const entries = useEntries();
  const { rig, described, settings } = file;
  const { setPreview } = usePlace();
  const { send } = entries;
  const [picked, pick] = useState<Picked>(() => ({
    part: (partWith(described, 'solenoid') ?? described.parts[0]!).id,
  }));
  const [partSet, setPart] = useState<PartChange>({});
  const [conductorSet, setConductor] = useState<ConductorChange>({});
  const [leaving, setLeaving] = useState(false);
  const part = 'part' in picked ? rig.parts.find((p) => p.id === picked.part) : undefined;
  const conductor = 'conductor' in picked ? rig.conductors.find((c) => c.id === picked.conductor) : undefined;
  const dirty = Object.keys(partSet).length + Object.keys(conductorSet).length > 0;
  const problems = useMemo(() => unworkable(rig), [rig]);

  const draw = (next: Rig | undefined) => setPreview(next);
  useEffect(() => () => setPreview(undefined), [setPreview]);
  const changePart = (more: PartChange) => {
    const set = { ...partSet, ...more };
    setPart(set);
    if (part) draw(withPart(rig, part.id, set));
  };
  const changeConductor = (more: ConductorChange) => {
    const set = { ...conductorSet, ...more };
    setConductor(set);
    if (conductor) draw(withConductor(rig, conductor.id, set));
  };
  const drop = () => {
    setPart({});
    setConductor({});
    setLeaving(false);
    draw(undefined);
  };
  const choose = (next: Picked) => {
    drop();
    pick(next);
  };
  const how = (means: Means) => ({ means, ...(means === 'changed' ? { revision: crypto.randomUUID() } : {}) });
  const save = (means: Means) => {
    if (part) {
      const plain = described.parts.find((p) => p.id === part.id)!;
      send('part.edit', { part: part.id, was: wasOfPart(plain, partSet), set: partSet, ...how(means) });
    } else if (conductor)
      send('conductor.edit', {
        conductor: conductor.id,
        was: wasOfConductor(conductor, conductorSet),
        set: conductorSet,
        ...how(means),
      });
    drop();
  };
  /** Takes out the picked piece, with the wires that end on it. */
  const takeOut = (means: Means) => {
    const parts = part ? described.parts.filter((p) => p.id === part.id) : [];
    const conductors = described.conductors.filter((c) =>
      part ? c.from.part === part.id || c.to.part === part.id : c.id === conductor?.id,
    );
    send('pieces.remove', { parts, conductors, ...how(means) });
    choose({ part: described.parts.find((p) => p.id !== part?.id)?.id ?? '' });
  };
  // A part that ends a bond is bolted to metal: it is not taken out at a page.
  const removable =
    conductor !== undefined ||
    (part !== undefined && !rig.bonds.some((b) => b.from.part === part.id || b.to.part === part.id));

  const ordered = [...rig.parts].sort((a, b) => a.station - b.station);
  return (
    <div className="rigst grid grid-cols-list h-full min-h-0 max-phone:h-auto">
      <nav
        className={clsx(
          'partlist',
          'overflow-y-auto border-r-2 border-ink',
          'max-phone:max-h-57.5 max-phone:border-r-0 max-phone:border-b-2 max-phone:border-ink',
        )}
        aria-label="Parts, nose to tail"
      >
        <button
          type="button"
          className={clsx(
            'grid grid-cols-end items-center gap-x-2 gap-y-0.5',
            'w-full min-h-12 px-3 py-1.25 border-b-1 border-rule',
            'font-cond font-semibold text-left text-large leading-close',
            'is-on:bg-ink is-on:text-paper',
            'add' in picked ? 'on' : '',
          )}
          onClick={() => choose({ add: true })}
        >
          <Plus size={18} aria-hidden="true" /> Add a part, wire or probe
        </button>
        <Link
          className={clsx(
            'flex items-center gap-1.5',
            'min-h-12 px-3 py-1.25 border-b-1 border-rule',
            'font-cond font-semibold text-large text-inherit no-underline',
          )}
          href={`/jobs/${file.job.number}/wiring`}
        >
          <Workflow size={18} aria-hidden="true" /> Wiring diagram
        </Link>
        {ordered.map((p) => (
          <button
            key={p.id}
            type="button"
            className={clsx(
              'grid grid-cols-end items-center gap-x-2 gap-y-0.5',
              'w-full min-h-12 px-3 py-1.25 border-b-1 border-rule',
              'font-cond font-semibold text-left text-large leading-close',
              'is-on:bg-ink is-on:text-paper',
              part?.id === p.id ? 'on' : '',
            )}
            aria-current={part?.id === p.id}
            onClick={() => choose({ part: p.id })}
          >
            {problems.some((x) => x.part === p.id) && <TriangleAlert size={16} aria-label="cannot work:" />}
            {p.name}
            <small className="font-medium text-note text-ink-2 within-on:text-inherit">
              {lengthShown(p.station, settings.length).toFixed(0)} {settings.length}
            </small>
          </button>
        ))}
        <div
          className={clsx(
            'flex items-center gap-2',
            'h-6 px-2 border-y-1 border-rule bg-paper',
            'font-cond font-semibold text-note',
          )}
        >
          <i className="w-4.5 border-t-3 border-ink" />
          Cables and wires
        </div>
        {rig.conductors.map((c) => (
          <button
            key={c.id}
            type="button"
            className={clsx(
              'grid grid-cols-end items-center gap-x-2 gap-y-0.5',
              'w-full min-h-12 px-3 py-1.25 border-b-1 border-rule',
              'font-cond font-semibold text-left text-large leading-close',
              'is-on:bg-ink is-on:text-paper',
              conductor?.id === c.id ? 'on' : '',
            )}
            aria-current={conductor?.id === c.id}
            onClick={() => choose({ conductor: c.id })}
          >
            {c.name}
            <small className="font-medium text-note text-ink-2 within-on:text-inherit">
              {gaugeShown(c.gauge, settings.gauge)}
            </small>
          </button>
        ))}
      </nav>
      <section
        className="grid content-start gap-3 px-3.5 pt-2.5 pb-3.5 overflow-y-auto"
        aria-label={part?.name ?? conductor?.name ?? 'Add to the rig'}
      >
        {problems.length > 0 && (
          <ul
            className="alert alert-warning alert-outline grid gap-1 text-note text-left leading-tight"
            aria-label="What cannot work"
          >
            {problems.map((p) => (
              <li key={p.says}>
                <b>{file.words(p.says)}</b> {file.words(p.remedy)}
              </li>
            ))}
          </ul>
        )}
        {'add' in picked && <AddPieces onAdded={choose} />}
        {part && <PartEditor key={part.id} rig={rig} part={part} set={partSet} change={changePart} />}
        {conductor && (
          <ConductorEditor key={conductor.id} conductor={conductor} set={conductorSet} change={changeConductor} />
        )}
        {!('add' in picked) && (
          <div className="editbar sticky flex items-center flex-wrap gap-2 -bottom-3.5 py-2 border-t-2 border-ink bg-paper">
            {dirty || leaving ? (
              <>
                <p className="text-note leading-tight">
                  <b>{leaving ? `Take out ${part?.name ?? conductor?.name}. Which is it?` : 'Which is it?'}</b> A wrong
                  description keeps the readings as evidence; a changed rig starts new ones.
                </p>
                <button type="button" className="btn" onClick={drop}>
                  Leave it
                </button>
                <button type="button" className="btn" onClick={() => (leaving ? takeOut('changed') : save('changed'))}>
                  I changed the rig
                </button>
                <button
                  type="button"
                  className="btn btn-neutral"
                  onClick={() => (leaving ? takeOut('described-wrong') : save('described-wrong'))}
                >
                  I described it wrong
                </button>
              </>
            ) : (
              <>
                <p className="quiet text-note leading-tight">Change a figure and the strip and every band follow.</p>
                <button type="button" className="btn" onClick={() => setLeaving(true)} disabled={!removable}>
                  It is not there
                </button>
                <button type="button" className="btn" onClick={entries.undo} disabled={entries.undoable === undefined}>
                  Undo
                </button>
              </>
            )}
          </div>
        )}
      </section>
    </div>
  );
}
