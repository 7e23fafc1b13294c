'use client';
/** One part or one conductor, figure by figure; and what is on each terminal, and when it is live. */
import { WIRE_ENDS } from '../../core/rig/ends';
import { statesOf } from '../../core/operate/states';
import { partKind, partOptions } from '../../core/parts/kinds';
import type { ConductorChange, PartChange } from '../../core/rig/edit';
import type { Conductor, Lamp, Part, Rig } from '../../core/rig/schema';
import type { Parameter, ParameterSpec } from '../../core/units/parameter';
import { lengthShown, lengthStored } from '../../core/units/preferences';
import { gaugesOf, gaugeShown } from '../../core/units/wire';
import { Choose, NumberField } from '../fields';
import { useJobFile, useMeasuring, useEntries } from '../shell/jobPage';
import { MoveEnds } from './MoveEnds';
import { ParameterRow } from './ParameterRow';

const JOINTS: ParameterSpec = {
  unit: 'ohm',
  scale: 'ratio',
  label: 'End joints, both together',
  min: 0,
  max: 100,
  default: { value: 0.0005, spread: 0.45, provenance: 'assumed' },
};

export function PartEditor({
  rig,
  part,
  set,
  change,
}: {
  rig: Rig;
  part: Part;
  set: PartChange;
  change(more: PartChange): void;
}) {
  const { length } = useJobFile().settings;
  const kind = partKind(part.kind);
  const now = {
    ...part,
    ...set,
    options: { ...partOptions(kind, part), ...set.options },
    params: { ...part.params, ...set.params },
  };
  return (
    <>
      <header className="flex items-baseline justify-between gap-3">
        <h2 className="font-cond font-bold text-title leading-none">{now.name}</h2>
        <span className="quiet">
          {kind.label}, {part.place.toLowerCase()}
        </span>
      </header>
      <label className="field">
        <span>Rating or kind, as printed under the name</span>
        <input
          className="input w-full max-w-none border-ink"
          maxLength={24}
          value={now.note ?? ''}
          onChange={(e) => change({ note: e.target.value })}
        />
      </label>
      <NumberField
        label="Where it sits, from the nose"
        unit={length}
        value={lengthShown(now.station, length)}
        min={0}
        max={lengthShown(rig.vehicles[0]!.length, length)}
        onChange={(x) => change({ station: lengthStored(x, length) })}
      />
      {Object.entries(kind.options ?? {}).map(([name, spec]) => (
        <Choose
          key={name}
          label={spec.label}
          choices={spec.choices}
          value={now.options[name]!}
          onChange={(value) => change({ options: { ...set.options, [name]: value } })}
        />
      ))}
      <div className="grid gap-1.5">
        <h3 className="mt-1 font-cond font-bold text-large leading-none">Figures</h3>
        {Object.entries(kind.params).map(([name, spec]) => (
          <ParameterRow
            key={name}
            spec={spec}
            parameter={now.params[name] ?? spec.default}
            change={(p: Parameter) => change({ params: { ...set.params, [name]: p } })}
          />
        ))}
      </div>
      {kind.role === 'control' && kind.controller && (
        <Lamps lamps={now.lamps ?? []} change={(lamps) => change({ lamps })} />
      )}
      <Terminals rig={rig} part={part} />
    </>
  );
}

const MEANINGS: readonly { id: Lamp['means']; label: string }[] = [
  { id: 'closed', label: 'Link closed' },
  { id: 'waiting', label: 'Waiting' },
  { id: 'dark', label: 'Off or no power' },
];

/** The table of lamps on the unit's own label: colours differ from maker to maker. */
function Lamps({ lamps, change }: { lamps: readonly Lamp[]; change(lamps: Lamp[]): void }) {
  return (
    <div className="lamps">
      <h3>Its lamps, as its own label says</h3>
      {MEANINGS.map(({ id, label }) => (
        <label key={id} className="field">
          <span>{label}</span>
          <input
            className="input"
            maxLength={40}
            placeholder="color, steady or blinking"
            value={lamps.find((l) => l.means === id)?.shows ?? ''}
            onChange={(e) =>
              change([
                ...lamps.filter((l) => l.means !== id),
                ...(e.target.value === '' ? [] : [{ means: id, shows: e.target.value }]),
              ])
            }
          />
        </label>
      ))}
    </div>
  );
}

/** What is on each terminal, and when a healthy rig has volts there. */
function Terminals({ rig, part }: { rig: Rig; part: Part }) {
  const { settings, job, stateOf } = useJobFile();
  const { measurements, band, readings } = useMeasuring();
  const { send } = useEntries();
  const kind = partKind(part.kind);
  const nameOf = (id: string) =>
    rig.parts.find((p) => p.id === id)?.name ?? rig.grounds.find((g) => g.id === id)?.name ?? id;
  const live = (key: string): string | undefined => {
    const m = measurements.find((x) => x.red === key && x.kind === 'volts');
    if (!m) return undefined;
    const nominal = rig.vehicles[0]!.nominalVolts;
    const states = statesOf(rig).map((state) => ({ state, band: band(state.id, m.id) }));
    if (states.some((s) => !s.band)) return undefined;
    const on = states.flatMap(({ state, band: b }) => (b!.nominal > nominal / 2 ? [state] : []));
    return on.length === states.length
      ? 'always'
      : on.length === 0
        ? 'never'
        : on.map((s) => stateOf(s.id).label.toLowerCase()).join('; ');
  };
  const used = (key: string) => key === job.blackLead || readings.some((r) => r.probe === key || r.ref === key);
  return (
    <div>
      <h3 className="mt-1 font-cond font-bold text-large leading-none">Terminals</h3>
      <table className="termmap w-full text-note">
        <thead>
          <tr>
            <th className="font-semibold whitespace-nowrap">Terminal</th>
            <th className="font-semibold whitespace-nowrap">On it</th>
            <th className="font-semibold whitespace-nowrap">Has battery volts at</th>
            <th className="font-semibold whitespace-nowrap">Probe</th>
          </tr>
        </thead>
        <tbody>
          {kind.terminals.map((t) => {
            const key = `${part.id}.${t.id}`;
            const probe = rig.probes.find((p) => p.key === key && !p.retired);
            const wires = rig.conductors.flatMap((c) =>
              c.from.part === part.id && c.from.terminal === t.id
                ? [[c, c.to] as const]
                : c.to.part === part.id && c.to.terminal === t.id
                  ? [[c, c.from] as const]
                  : [],
            );
            const bonded = rig.bonds.find((b) => b.from.part === part.id && b.from.terminal === t.id);
            return (
              <tr key={t.id}>
                <th className="font-semibold whitespace-nowrap" scope="row">
                  {t.label}
                </th>
                <td className="pr-2 py-1 border-b-1 border-rule-2 text-left leading-tight align-top">
                  {wires
                    .map(([c, other]) => `${nameOf(other.part)} (${gaugeShown(c.gauge, settings.gauge)})`)
                    .join('; ') || (bonded ? nameOf(bonded.to.part) : 'nothing')}
                </td>
                <td className="pr-2 py-1 border-b-1 border-rule-2 text-left leading-tight align-top">
                  {live(key) ?? (probe ? 'working it out' : 'no probe here')}
                </td>
                <td className="pr-2 py-1 border-b-1 border-rule-2 text-left leading-tight align-top">
                  {probe ? (
                    <button
                      type="button"
                      className="text-button"
                      disabled={used(key)}
                      title={used(key) ? 'readings were taken here' : undefined}
                      onClick={() => send('probe.retire', { key })}
                    >
                      {probe.label}
                      {used(key) ? '' : ', retire'}
                    </button>
                  ) : (
                    <button
                      type="button"
                      className="text-button"
                      onClick={() => send('probe.add', { key, name: `${part.name} ${t.label}` })}
                    >
                      Add
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

export function ConductorEditor({
  conductor,
  set,
  change,
}: {
  conductor: Conductor;
  set: ConductorChange;
  change(more: ConductorChange): void;
}) {
  const { length, gauge } = useJobFile().settings;
  const now = { ...conductor, ...set };
  return (
    <>
      <header className="flex items-baseline justify-between gap-3">
        <h2 className="font-cond font-bold text-title leading-none">{conductor.name}</h2>
        <span className="quiet">
          {conductor.use === 'return' ? 'return' : conductor.use === 'control' ? 'control wire' : 'feed'}
        </span>
      </header>
      <Choose
        label="Gauge"
        choices={gaugesOf(gauge, now.gauge).map((g) => ({ id: g, label: gaugeShown(g, gauge).replace(' AWG', '') }))}
        value={now.gauge}
        onChange={(g) => change({ gauge: g })}
      />
      <NumberField
        label="Length, one way"
        unit={length}
        value={lengthShown(now.length, length)}
        min={lengthShown(0.05, length)}
        max={lengthShown(90, length)}
        onChange={(x) => change({ length: lengthStored(x, length) })}
      />
      <Choose
        label="Ends and splices"
        choices={WIRE_ENDS}
        value={now.ends ?? 'crimped'}
        onChange={(ends) => change({ ends })}
      />
      <div className="grid gap-1.5">
        <ParameterRow spec={JOINTS} parameter={now.joints} change={(joints) => change({ joints })} />
      </div>
      <MoveEnds
        key={`${conductor.id} ${Object.values(conductor.from).join('.')} ${Object.values(conductor.to).join('.')}`}
        conductor={conductor}
      />
    </>
  );
}
