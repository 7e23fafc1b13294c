/**
 * What a schema cannot say about a rig: references that exist, values inside their part's limits, unique
 * ids, labels never given twice. Runs after the schema has passed.
 */
import { partKind } from '../parts/kinds';
import { shown, type DocumentIssue } from './issue';
import type { Endpoint, Rig } from './schema';
import { checkTow } from './tow';

type Add = (pointer: string, found: unknown, wanted: string) => void;
/** Everything of one kind that does not hold in a rig. */
type RigRule = (rig: Rig, add: Add) => void;

const uniqueIds: RigRule = (rig, add) => {
  const seen = new Map<string, string>();
  for (const name of ['parts', 'grounds', 'conductors', 'bonds'] as const)
    rig[name].forEach(({ id }, i) => {
      const pointer = `/${name}/${i}/id`;
      const first = seen.get(id);
      if (first) add(pointer, id, `an id of its own; ${first} has this one`);
      else seen.set(id, pointer);
    });
};

const vehiclesExist: RigRule = (rig, add) => {
  const known = rig.vehicles.map((v) => v.id);
  const exists = (id: string | undefined, pointer: string) => {
    if (id !== undefined && !known.includes(id)) add(pointer, id, `one of the vehicles: ${known.join(', ')}`);
  };
  rig.vehicles.forEach((v, i) => exists(v.coupledTo, `/vehicles/${i}/coupledTo`));
  rig.parts.forEach((p, i) => exists(p.vehicle, `/parts/${i}/vehicle`));
  rig.grounds.forEach((g, i) => exists(g.vehicle, `/grounds/${i}/vehicle`));
};

const partsFit: RigRule = (rig, add) =>
  rig.parts.forEach((part, i) => {
    const { params, options = {} } = partKind(part.kind);
    for (const [name, spec] of Object.entries(params)) {
      const value = part.params[name]?.value;
      if (value !== undefined && (value < spec.min || value > spec.max))
        add(
          `/parts/${i}/params/${name}/value`,
          value,
          `${spec.label} between ${spec.min} and ${spec.max} ${spec.unit}`.trim(),
        );
    }
    const names = Object.keys(options).join(', ');
    for (const [name, value] of Object.entries(part.options ?? {})) {
      const pointer = `/parts/${i}/options/${name}`;
      const choices = options[name]?.choices;
      if (!choices) add(pointer, name, names ? `one of ${names}` : 'no options on this kind of part');
      else if (!choices.some((c) => c.id === value))
        add(pointer, value, `one of ${choices.map((c) => c.id).join(', ')}`);
    }
    for (const name of Object.keys(part.params))
      if (!params[name]) add(`/parts/${i}/params/${name}`, name, `one of ${Object.keys(params).join(', ')}`);
  });

const endsExist: RigRule = (rig, add) => {
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
};

const probesStand: RigRule = (rig, add) => {
  const labels = new Set<string>();
  const keys = new Map<string, number>();
  const terminals = terminalsOf(rig);
  const conductors = new Set(rig.conductors.map((c) => c.id));
  rig.probes.forEach((probe, i) => {
    if (labels.has(probe.label)) add(`/probes/${i}/label`, probe.label, 'a label never used before in this rig');
    labels.add(probe.label);
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
};

const RULES: readonly RigRule[] = [uniqueIds, vehiclesExist, partsFit, endsExist, probesStand];

/** Everything about a well-shaped rig that does not hold together. @param at where in a document it stands */
export function checkRig(rig: Rig, at = ''): DocumentIssue[] {
  const issues: DocumentIssue[] = [];
  for (const rule of RULES)
    rule(rig, (pointer, found, wanted) => issues.push({ pointer: at + pointer, found: shown(found), wanted }));
  if (rig.tow) issues.push(...checkTow(rig.tow, `${at}/tow`));
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
