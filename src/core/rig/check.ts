/**
 * What a schema cannot say about a rig: references that exist, values inside their part's limits, unique
 * ids, labels never given twice. Runs after the schema has passed.
 */
import { partKind } from '../parts/kinds';
import { shown, type DocumentIssue } from './issue';
import type { Endpoint, Rig } from './schema';
import { checkTow } from './tow';

export function checkRig(rig: Rig, at = ''): DocumentIssue[] {
  const issues: DocumentIssue[] = [];
  const add = (pointer: string, found: unknown, wanted: string) =>
    issues.push({ pointer: at + pointer, found: shown(found), wanted });

  const seen = new Map<string, string>();
  const unique = (id: string, pointer: string) => {
    const first = seen.get(id);
    if (first) add(pointer, id, `an id of its own; ${first} has this one`);
    else seen.set(id, at + pointer);
  };
  rig.parts.forEach((p, i) => unique(p.id, `/parts/${i}/id`));
  rig.grounds.forEach((g, i) => unique(g.id, `/grounds/${i}/id`));
  rig.conductors.forEach((c, i) => unique(c.id, `/conductors/${i}/id`));
  rig.bonds.forEach((b, i) => unique(b.id, `/bonds/${i}/id`));

  const vehicles = new Map(rig.vehicles.map((v) => [v.id, v]));
  rig.vehicles.forEach((v, i) => {
    if (v.coupledTo !== undefined && !vehicles.has(v.coupledTo))
      add(`/vehicles/${i}/coupledTo`, v.coupledTo, `one of the vehicles: ${[...vehicles.keys()].join(', ')}`);
  });
  const vehicleExists = (id: string, pointer: string) => {
    if (!vehicles.has(id)) add(pointer, id, `one of the vehicles: ${[...vehicles.keys()].join(', ')}`);
  };

  rig.parts.forEach((part, i) => {
    vehicleExists(part.vehicle, `/parts/${i}/vehicle`);
    const specs = partKind(part.kind).params;
    for (const [name, spec] of Object.entries(specs)) {
      const p = part.params[name];
      const pointer = `/parts/${i}/params/${name}`;
      if (p && (p.value < spec.min || p.value > spec.max))
        add(`${pointer}/value`, p.value, `${spec.label} between ${spec.min} and ${spec.max} ${spec.unit}`.trim());
    }
    const choices = partKind(part.kind).options ?? {};
    for (const [name, value] of Object.entries(part.options ?? {})) {
      const pointer = `/parts/${i}/options/${name}`;
      const spec = choices[name];
      if (!spec)
        add(
          pointer,
          name,
          Object.keys(choices).length > 0
            ? `one of ${Object.keys(choices).join(', ')}`
            : 'no options on this kind of part',
        );
      else if (!spec.choices.some((c) => c.id === value))
        add(pointer, value, `one of ${spec.choices.map((c) => c.id).join(', ')}`);
    }
    for (const name of Object.keys(part.params))
      if (!specs[name]) add(`/parts/${i}/params/${name}`, name, `one of ${Object.keys(specs).join(', ')}`);
  });
  rig.grounds.forEach((g, i) => vehicleExists(g.vehicle, `/grounds/${i}/vehicle`));

  const terminals = terminalsOf(rig);
  const endpoint = (e: Endpoint, pointer: string) => {
    const of = terminals.get(e.part);
    if (!of) add(`${pointer}/part`, e.part, 'the id of a part or ground of this rig');
    else if (!of.has(e.terminal))
      add(`${pointer}/terminal`, e.terminal, `a terminal of ${e.part}: ${[...of].join(', ')}`);
  };
  rig.conductors.forEach((c, i) => {
    endpoint(c.from, `/conductors/${i}/from`);
    endpoint(c.to, `/conductors/${i}/to`);
    if (c.from.part === c.to.part && c.from.terminal === c.to.terminal)
      add(`/conductors/${i}/to`, `${c.to.part}.${c.to.terminal}`, 'another end than `from`');
    if (c.joints.value < 0) add(`/conductors/${i}/joints/value`, c.joints.value, 'zero or more, in Ω');
  });
  rig.bonds.forEach((b, i) => {
    endpoint(b.from, `/bonds/${i}/from`);
    endpoint(b.to, `/bonds/${i}/to`);
    // A loop of zero ohms has no definite current: metal still has some resistance, say how much.
    if (!(b.resistance.value > 0))
      add(`/bonds/${i}/resistance/value`, b.resistance.value, 'more than 0 Ω: a bolted joint is about 0.0002');
  });
  endpoint(rig.reference, '/reference');
  if (!rig.grounds.some((g) => g.id === rig.reference.part))
    add('/reference/part', rig.reference.part, `a ground: ${rig.grounds.map((g) => g.id).join(', ')}`);

  if (rig.tow) issues.push(...checkTow(rig.tow, `${at}/tow`));

  const labels = new Map<string, number>();
  const keys = new Map<string, number>();
  const conductors = new Set(rig.conductors.map((c) => c.id));
  rig.probes.forEach((probe, i) => {
    if (labels.has(probe.label)) add(`/probes/${i}/label`, probe.label, 'a label never used before in this rig');
    labels.set(probe.label, i);
    if (keys.has(probe.key))
      add(`/probes/${i}/key`, probe.key, `one probe per point; /probes/${keys.get(probe.key)} has it`);
    keys.set(probe.key, i);
    const [part = '', terminal = ''] = probe.key.split('.');
    // A retired probe may have been on a part that is no longer there.
    if (probe.retired) return;
    if (terminal === 'clamp') {
      if (!conductors.has(part)) add(`/probes/${i}/key`, probe.key, 'a conductor of this rig before .clamp');
    } else if (!terminals.get(part)?.has(terminal)) {
      add(`/probes/${i}/key`, probe.key, 'part.terminal of this rig');
    }
  });
  return issues;
}

/** Terminals by part id, points by ground id. */
export function terminalsOf(rig: Rig): Map<string, Set<string>> {
  const map = new Map<string, Set<string>>();
  for (const part of rig.parts) map.set(part.id, new Set(partKind(part.kind).terminals.map((t) => t.id)));
  for (const ground of rig.grounds) map.set(ground.id, new Set(ground.points.map((p) => p.id)));
  return map;
}

/** Label for a new probe: one more than the highest ever given, retired ones included. */
export function nextProbeLabel(rig: Rig): string {
  return `P${Math.max(0, ...rig.probes.map((p) => Number(p.label.slice(1)))) + 1}`;
}
