'use client';
/**
 * The rig as real parts at real places: pick one, see its terminals and what is on them, edit its figures
 * with unit, spread and how they are known. The strip redraws as one types; what is saved asks whether the
 * description was wrong or the rig was changed.
 */
import { Undo2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { Payload } from '../../core/formats/command';
import { partKind, partOptions } from '../../core/parts/kinds';
import { withConductor, withPart } from '../../core/rig/applyEdit';
import type { ConductorChange, PartChange } from '../../core/rig/edit';
import type { Conductor, Part, Rig } from '../../core/rig/schema';
import { statesOf } from '../../core/operate/states';
import type { Parameter, ParameterSpec } from '../../core/units/parameter';
import { GAUGES } from '../../core/units/wire';
import { Choose, NumberField } from '../fields';
import { useBench } from './bench';
import { ParameterRow } from './ParameterRow';

const FEET = 0.3048;
const JOINTS: ParameterSpec = { unit: 'ohm', scale: 'ratio', label: 'End joints, both together', min: 0, max: 100, default: { value: 0.0005, spread: 0.45, provenance: 'assumed' } };

type Picked = { part: string } | { conductor: string };
type Sent = { type: 'part.edit'; payload: Payload<'part.edit'> } | { type: 'conductor.edit'; payload: Payload<'conductor.edit'> };

/** What a change would replace, field by field: its inverse. */
function wasOfPart(part: Part, set: PartChange): PartChange {
  const options = partOptions(partKind(part.kind), part);
  return {
    ...(set.name === undefined ? {} : { name: part.name }),
    ...(set.note === undefined ? {} : { note: part.note ?? '' }),
    ...(set.station === undefined ? {} : { station: part.station }),
    ...(set.options ? { options: Object.fromEntries(Object.keys(set.options).map((k) => [k, options[k]!])) } : {}),
    ...(set.params ? { params: Object.fromEntries(Object.keys(set.params).map((k) => [k, part.params[k] ?? partKind(part.kind).params[k]!.default])) } : {}),
  };
}
const wasOfConductor = (c: Conductor, set: ConductorChange): ConductorChange => ({
  ...(set.gauge === undefined ? {} : { gauge: c.gauge }),
  ...(set.length === undefined ? {} : { length: c.length }),
  ...(set.joints === undefined ? {} : { joints: c.joints }),
});

export function RigStation() {
  const bench = useBench();
  const { rig, send, setPreview } = bench;
  const [picked, pick] = useState<Picked>({ part: 'link' });
  const [partSet, setPart] = useState<PartChange>({});
  const [conductorSet, setConductor] = useState<ConductorChange>({});
  const [sent, setSent] = useState<Sent[]>([]);
  const part = 'part' in picked ? rig.parts.find((p) => p.id === picked.part) : undefined;
  const conductor = 'conductor' in picked ? rig.conductors.find((c) => c.id === picked.conductor) : undefined;
  const dirty = Object.keys(partSet).length + Object.keys(conductorSet).length > 0;

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
    draw(undefined);
  };
  const choose = (next: Picked) => {
    drop();
    pick(next);
  };
  const save = (means: 'described-wrong' | 'changed') => {
    const how = { means, ...(means === 'changed' ? { revision: crypto.randomUUID() } : {}) };
    if (part) {
      const payload = { part: part.id, was: wasOfPart(part, partSet), set: partSet, ...how };
      send('part.edit', payload);
      setSent([...sent, { type: 'part.edit', payload }]);
    } else if (conductor) {
      const payload = { conductor: conductor.id, was: wasOfConductor(conductor, conductorSet), set: conductorSet, ...how };
      send('conductor.edit', payload);
      setSent([...sent, { type: 'conductor.edit', payload }]);
    }
    drop();
  };
  const undo = () => {
    const last = sent.at(-1);
    if (!last) return;
    setSent(sent.slice(0, -1));
    drop();
    if (last.payload.revision !== undefined) send('change.withdraw', { revision: last.payload.revision });
    else if (last.type === 'part.edit') send('part.edit', { ...last.payload, was: last.payload.set, set: last.payload.was });
    else send('conductor.edit', { ...last.payload, was: last.payload.set, set: last.payload.was });
  };

  const ordered = [...rig.parts].sort((a, b) => a.station - b.station);
  return (
    <div className="rigst">
      <nav className="partlist" aria-label="Parts, nose to tail">
        {ordered.map((p) => (
          <button key={p.id} type="button" className={part?.id === p.id ? 'on' : ''} aria-current={part?.id === p.id} onClick={() => choose({ part: p.id })}>
            {p.name}
            <small>{(p.station / FEET).toFixed(0)} ft</small>
          </button>
        ))}
        <div className="grp">
          <i />
          Cables and wires
        </div>
        {rig.conductors.map((c) => (
          <button key={c.id} type="button" className={conductor?.id === c.id ? 'on' : ''} aria-current={conductor?.id === c.id} onClick={() => choose({ conductor: c.id })}>
            {c.name}
            <small>{c.gauge}</small>
          </button>
        ))}
      </nav>
      <section className="editor" aria-label={part?.name ?? conductor?.name ?? 'Nothing picked'}>
        {part && <PartEditor key={part.id} rig={rig} part={part} set={partSet} change={changePart} />}
        {conductor && <ConductorEditor key={conductor.id} conductor={conductor} set={conductorSet} change={changeConductor} />}
        <div className="editbar">
          {dirty ? (
            <>
              <p>
                <b>Which is it?</b> A wrong description keeps the readings as evidence; a changed rig starts new ones.
              </p>
              <button type="button" className="bx" onClick={drop}>
                Leave it
              </button>
              <button type="button" className="bx" onClick={() => save('changed')}>
                I changed the rig
              </button>
              <button type="button" className="bx ink" onClick={() => save('described-wrong')}>
                I described it wrong
              </button>
            </>
          ) : (
            <>
              <p className="quiet">Change a figure and the strip and every band follow.</p>
              <button type="button" className="bx" onClick={undo} disabled={sent.length === 0}>
                <Undo2 size={19} aria-hidden="true" />
                Undo last edit
              </button>
            </>
          )}
        </div>
      </section>
    </div>
  );
}

function PartEditor({ rig, part, set, change }: { rig: Rig; part: Part; set: PartChange; change(more: PartChange): void }) {
  const kind = partKind(part.kind);
  const now = { ...part, ...set, options: { ...partOptions(kind, part), ...set.options }, params: { ...part.params, ...set.params } };
  return (
    <>
      <header>
        <h2>{now.name}</h2>
        <span className="quiet">
          {kind.label}, {part.place.toLowerCase()}
        </span>
      </header>
      <label className="field">
        <span>Rating or kind, as printed under the name</span>
        <input className="input" maxLength={24} value={now.note ?? ''} onChange={(e) => change({ note: e.target.value })} />
      </label>
      <NumberField label="Where it sits, from the nose" unit="ft" value={now.station / FEET} min={0} max={rig.vehicles[0]!.length / FEET} onChange={(feet) => change({ station: Number((feet * FEET).toFixed(3)) })} />
      {Object.entries(kind.options ?? {}).map(([name, spec]) => (
        <Choose key={name} label={spec.label} choices={spec.choices} value={now.options[name]!} onChange={(value) => change({ options: { ...set.options, [name]: value } })} />
      ))}
      <div className="ptable">
        <h3>Figures</h3>
        {Object.entries(kind.params).map(([name, spec]) => (
          <ParameterRow key={name} spec={spec} parameter={now.params[name] ?? spec.default} change={(p: Parameter) => change({ params: { ...set.params, [name]: p } })} />
        ))}
      </div>
      <Terminals rig={rig} part={part} />
    </>
  );
}

/** What is on each terminal, and when a healthy rig has volts there. */
function Terminals({ rig, part }: { rig: Rig; part: Part }) {
  const { measurements, band } = useBench();
  const kind = partKind(part.kind);
  const nameOf = (id: string) => rig.parts.find((p) => p.id === id)?.name ?? rig.grounds.find((g) => g.id === id)?.name ?? id;
  const live = (key: string): string | undefined => {
    const m = measurements.find((x) => x.red === key && x.kind === 'volts');
    if (!m) return undefined;
    const nominal = rig.vehicles[0]!.nominalVolts;
    const on = statesOf(rig).filter((s) => (band(s.id, m.id)?.nominal ?? 0) > nominal / 2);
    return on.length === statesOf(rig).length ? 'always' : on.length === 0 ? 'never' : on.map((s) => s.label.toLowerCase()).join('; ');
  };
  return (
    <div>
      <h3>Terminals</h3>
      <table className="termmap">
        <thead>
          <tr>
            <th>Terminal</th>
            <th>On it</th>
            <th>Has battery volts at</th>
          </tr>
        </thead>
        <tbody>
          {kind.terminals.map((t) => {
            const key = `${part.id}.${t.id}`;
            const probe = rig.probes.find((p) => p.key === key && !p.retired);
            const wires = rig.conductors.flatMap((c) =>
              c.from.part === part.id && c.from.terminal === t.id ? [[c, c.to] as const] : c.to.part === part.id && c.to.terminal === t.id ? [[c, c.from] as const] : [],
            );
            const bonded = rig.bonds.find((b) => b.from.part === part.id && b.from.terminal === t.id);
            return (
              <tr key={t.id}>
                <th scope="row">
                  {t.label}
                  {probe ? `, ${probe.label}` : ''}
                </th>
                <td>
                  {wires.map(([c, other]) => `${nameOf(other.part)} (${c.gauge} AWG)`).join('; ') || (bonded ? nameOf(bonded.to.part) : 'nothing')}
                </td>
                <td>{live(key) ?? (probe ? 'working it out' : 'no probe here')}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function ConductorEditor({ conductor, set, change }: { conductor: Conductor; set: ConductorChange; change(more: ConductorChange): void }) {
  const now = { ...conductor, ...set };
  return (
    <>
      <header>
        <h2>{conductor.name}</h2>
        <span className="quiet">{conductor.use === 'return' ? 'return' : conductor.use === 'control' ? 'control wire' : 'feed'}</span>
      </header>
      <Choose label="Gauge, AWG" choices={GAUGES.map((g) => ({ id: g, label: g }))} value={now.gauge} onChange={(gauge) => change({ gauge })} />
      <NumberField label="Length, one way" unit="ft" value={now.length / FEET} min={0.2} max={300} onChange={(feet) => change({ length: Number((feet * FEET).toFixed(3)) })} />
      <div className="ptable">
        <ParameterRow spec={JOINTS} parameter={now.joints} change={(joints) => change({ joints })} />
      </div>
    </>
  );
}
