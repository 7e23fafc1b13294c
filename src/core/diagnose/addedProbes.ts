/**
 * Where no probe of a rig tells the leading repair classes apart: which points that have no probe yet would.
 * The leaders are solved as the readings left them, every terminal and conductor is looked at in every
 * state, and what differs by far more than a meter's error is offered.
 */
import { compileRig } from '../compile/compile';
import { RigModel } from '../operate/settle';
import { partKind } from '../parts/kinds';
import { meterSpread } from '../probe/meter';
import { readOutputs, rigOutputs } from '../probe/outputs';
import type { Probe, Rig } from '../rig/schema';
import type { Belief } from './belief';

export interface AddedProbe {
  key: string;
  /** Name for the probe, as the technician would say it. */
  name: string;
  unit: 'V' | 'A';
  state: string;
  /** What it would read under each of the two it parts. */
  reads: readonly [{ name: string; value: number }, { name: string; value: number }];
}

const MAX_LEADING_SUSPECTS = 3;
const MAX_OFFERED_PROBES = 3;
/** Apart by so many standard deviations of meter and model, to be worth a new probe. */
const SEPARATION_SIGMAS = 5;

/** Every point and clamp of a rig that has no probe, as one. */
export function missingProbes(rig: Rig): Probe[] {
  const has = new Set(rig.probes.filter((p) => !p.retired).map((p) => p.key));
  const wired = new Set(
    rig.conductors.flatMap((c) => [`${c.from.part}.${c.from.terminal}`, `${c.to.part}.${c.to.terminal}`]),
  );
  const points = rig.parts.flatMap((part) =>
    partKind(part.kind)
      .terminals.map((t) => ({ key: `${part.id}.${t.id}`, name: `${part.name} ${t.label}` }))
      .filter((p) => wired.has(p.key)),
  );
  const clamps = rig.conductors.map((c) => ({ key: `${c.id}.clamp`, name: `${c.name}, amps` }));
  let label = Math.max(0, ...rig.probes.map((p) => Number(p.label.slice(1))));
  return [...points, ...clamps].filter((p) => !has.has(p.key)).map((p) => ({ ...p, label: `P${++label}` }));
}

export function addedProbes(belief: Belief): AddedProbe[] {
  const { rig } = belief.compiled;
  const missing = missingProbes(rig);
  const compiled = compileRig({ ...rig, probes: [...rig.probes, ...missing] });
  const outputs = rigOutputs(compiled);
  const model = new RigModel(compiled);
  const reference = outputs.findIndex((o) => o.key === `${rig.reference.part}.${rig.reference.terminal}`);

  // The heaviest component of each leading class, as the readings left it.
  const leaders: { name: string; rows: Float64Array[] }[] = [];
  const seen = new Set<string>();
  for (const c of belief.live(1e-3)) {
    const component = belief.components[c]!;
    const fault = belief.faults[component.faultIndex]!;
    if (seen.has(fault.class) || leaders.length === MAX_LEADING_SUSPECTS) continue;
    seen.add(fault.class);
    const rows = belief.workspace.states.map((state) => {
      const row = new Float64Array(outputs.length);
      const { z, severity } = component.learnt();
      model.settle(state.id, { z, effects: component.effects, severity });
      readOutputs(model, outputs, row);
      return row;
    });
    leaders.push({ name: fault.name, rows });
  }
  if (leaders.length < 2) return [];
  const [first, ...others] = leaders as [(typeof leaders)[number], ...typeof leaders];
  const found: (AddedProbe & { apart: number })[] = [];
  for (const probe of missing) {
    const o = outputs.findIndex((x) => x.key === probe.key);
    if (o < 0) continue;
    const unit = outputs[o]!.kind === 'amps' ? 'A' : 'V';
    belief.workspace.states.forEach((state, s) => {
      const read = (rows: Float64Array[]) => rows[s]![o]! - (unit === 'V' ? rows[s]![reference]! : 0);
      for (const other of others) {
        const a = read(first.rows);
        const b = read(other.rows);
        const model =
          unit === 'V'
            ? Math.min(belief.assumptions.modelCapVolts, belief.assumptions.modelShare * Math.abs(a))
            : belief.assumptions.modelShareAmps * Math.abs(a);
        const apart = Math.abs(a - b) / Math.hypot(meterSpread(unit, a), model);
        if (apart > SEPARATION_SIGMAS)
          found.push({
            key: probe.key,
            name: probe.name,
            unit,
            state: state.id,
            reads: [
              { name: first.name, value: a },
              { name: other.name, value: b },
            ],
            apart,
          });
      }
    });
  }
  found.sort((x, y) => y.apart - x.apart);
  const offered: AddedProbe[] = [];
  for (const { apart: _, ...probe } of found)
    if (offered.length < MAX_OFFERED_PROBES && !offered.some((p) => p.key === probe.key)) offered.push(probe);
  return offered;
}
