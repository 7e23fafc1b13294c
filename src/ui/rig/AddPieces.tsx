'use client';
/** A part, a wire or a probe the rig has beyond its archetype. */
import { useState } from 'react';
import { PART_KINDS, type PartKindId } from '../../core/parts/kinds';
import { freeId } from '../../core/rig/freeId';
import type { Conductor, Part } from '../../core/rig/schema';
import { assumed } from '../../core/units/parameter';
import { lengthShown, lengthStored } from '../../core/units/preferences';
import { gaugesOf, gaugeShown, type Gauge } from '../../core/units/wire';
import { Choose, NumberField } from '../fields';
import { useJobFile, useMeasuring, useEntries } from '../shell/jobPage';
import { endpoint, Means, Pick, useAddPieces, usePlanned, usePoints, type MeansId } from './points';

const WHAT = [
  { id: 'wire', label: 'Cable or wire' },
  { id: 'part', label: 'Part' },
  { id: 'probe', label: 'Probe' },
] as const;
const USES = [
  { id: 'feed', label: 'Feed' },
  { id: 'return', label: 'Return' },
  { id: 'control', label: 'Control' },
] as const;
/** Two lugs on clean studs, from memory; thin wire more. */
const JOINTS_OHMS = { feed: 0.0008, return: 0.0008, control: 0.01 } as const;

/** m between two vehicles, at the most. */
const GAP_METRES = 2;

export function AddPieces({ onAdded }: { onAdded(picked: { part: string } | { conductor: string }): void }) {
  const [what, setWhat] = useState<(typeof WHAT)[number]['id']>('wire');
  return (
    <>
      <header className="flex items-baseline justify-between gap-3">
        <h2 className="font-cond font-bold text-title leading-none">Add to the rig</h2>
        <span className="quiet">The strip draws it at once; undo takes it out again.</span>
      </header>
      <InThePlan />
      <Choose label="What is it?" choices={WHAT} value={what} onChange={(id) => setWhat(id)} />
      {what === 'wire' ? (
        <AddWire onAdded={(conductor) => onAdded({ conductor })} />
      ) : what === 'part' ? (
        <AddPart onAdded={(part) => onAdded({ part })} />
      ) : (
        <AddProbe />
      )}
    </>
  );
}

/** What the pick adds to the rig as it stands. */
function InThePlan() {
  const { described } = useJobFile();
  const planned = usePlanned();
  if (!planned) return null;
  const here = new Set([...described.parts, ...described.conductors].map((x) => x.id));
  const names = [...planned.doc.parts, ...planned.doc.conductors].filter((x) => !here.has(x.id)).map((x) => x.name);
  if (names.length === 0) return null;
  return (
    <div role="note" className="alert alert-info alert-soft">
      <p>
        <b>In the plan:</b> {names.join(', ')}. Build has its steps; it is taken back under Options.
      </p>
    </div>
  );
}

function AddWire({ onAdded }: { onAdded(id: string): void }) {
  const { described, settings } = useJobFile();
  const planned = usePlanned();
  const addPieces = useAddPieces();
  const points = usePoints();
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [use, setUse] = useState<Conductor['use']>('feed');
  const [gauge, setGauge] = useState<Gauge>('6');
  const [metres, setMetres] = useState(1);
  const name =
    from && to
      ? `${points.find((p) => p.key === from)!.label} to ${points.find((p) => p.key === to)!.label}`.slice(0, 120)
      : '';
  const add = (means: MeansId) => {
    const id = freeId(
      means === 'planned' && planned ? planned.doc : described,
      `${endpoint(from).part} ${endpoint(to).part}`,
    );
    const conductor: Conductor = {
      id,
      name,
      use,
      from: endpoint(from),
      to: endpoint(to),
      gauge,
      length: metres,
      joints: assumed(JOINTS_OHMS[use], 0.45),
    };
    addPieces({ parts: [], conductors: [conductor] }, means);
    if (means !== 'planned') onAdded(id);
  };
  return (
    <>
      <Pick label="From" value={from} onChange={setFrom} points={points} />
      <Pick label="To" value={to} onChange={setTo} points={points.filter((p) => p.key !== from)} />
      <Choose label="Use" choices={USES} value={use} onChange={(u) => setUse(u)} />
      <Choose
        label="Gauge"
        choices={gaugesOf(settings.gauge, gauge).map((g) => ({
          id: g,
          label: gaugeShown(g, settings.gauge).replace(' AWG', ''),
        }))}
        value={gauge}
        onChange={(g) => setGauge(g)}
      />
      <NumberField
        label="Length, one way"
        unit={settings.length}
        value={lengthShown(metres, settings.length)}
        min={lengthShown(0.05, settings.length)}
        max={lengthShown(90, settings.length)}
        onChange={(x) => setMetres(lengthStored(x, settings.length))}
      />
      <Means disabled={!from || !to} add={add} />
    </>
  );
}

function AddPart({ onAdded }: { onAdded(id: string): void }) {
  const { described, settings } = useJobFile();
  const planned = usePlanned();
  const addPieces = useAddPieces();
  const kinds = [...PART_KINDS.values()];
  const places = [...new Set(described.parts.map((p) => p.place))];
  const [kind, setKind] = useState<PartKindId | ''>('');
  const [name, setName] = useState('');
  const [side, setSide] = useState<Part['side']>('coach');
  const [place, setPlace] = useState(places[0] ?? 'Coach bay');
  const [metres, setMetres] = useState(3);
  const add = (means: MeansId) => {
    const id = freeId(means === 'planned' && planned ? planned.doc : described, name);
    const part: Part = {
      id,
      kind: kind as PartKindId,
      vehicle: described.parts.find((p) => p.place === place)?.vehicle ?? described.vehicles[0]!.id,
      station: metres,
      side,
      place,
      name: name.trim(),
      ...(name.trim() === PART_KINDS.get(kind)?.label ? {} : { named: true as const }),
      params: {},
    };
    addPieces({ parts: [part], conductors: [] }, means);
    if (means !== 'planned') onAdded(id);
  };
  return (
    <>
      <label className="field">
        <span>Kind</span>
        <select
          className="select h-12 w-full border-ink bg-card text-ink text-plain"
          value={kind}
          onChange={(e) => {
            setKind(e.target.value as PartKindId);
            if (name === '') setName(PART_KINDS.get(e.target.value)?.label ?? '');
          }}
        >
          <option value="">choose …</option>
          {kinds.map((k) => (
            <option key={k.id} value={k.id}>
              {k.label}
            </option>
          ))}
        </select>
      </label>
      <label className="field">
        <span>Name</span>
        <input
          className="input w-full max-w-none border-ink"
          maxLength={40}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <Choose
        label="Side"
        choices={
          [
            { id: 'engine', label: 'Engine' },
            { id: 'coach', label: 'Coach' },
            { id: 'both', label: 'Both' },
          ] as const
        }
        value={side}
        onChange={(x) => setSide(x)}
      />
      <Choose
        label="Place"
        choices={places.map((p) => ({ id: p, label: p }))}
        value={place}
        onChange={(p) => setPlace(p)}
      />
      <NumberField
        label="Where it sits, from the nose"
        unit={settings.length}
        value={lengthShown(metres, settings.length)}
        min={0}
        max={lengthShown(
          described.vehicles.reduce((sum, v) => sum + v.length, GAP_METRES),
          settings.length,
        )}
        onChange={(x) => setMetres(lengthStored(x, settings.length))}
      />
      <Means disabled={kind === '' || name.trim() === ''} add={add} />
    </>
  );
}

function AddProbe() {
  const { missing } = useMeasuring();
  const { send } = useEntries();
  const [key, setKey] = useState('');
  const point = missing.find((p) => p.key === key);
  return (
    <>
      <Pick
        label="Point or clamp without a probe"
        value={key}
        onChange={setKey}
        points={missing.map((p) => ({ key: p.key, label: p.name }))}
      />
      <p>It takes the next free label, which is never given to another point.</p>
      <div className="editbar">
        <button
          type="button"
          className="btn"
          disabled={!point}
          onClick={() => {
            send('probe.add', { key, name: point!.name.slice(0, 120) });
            setKey('');
          }}
        >
          Add the probe
        </button>
      </div>
    </>
  );
}
