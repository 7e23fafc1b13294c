/** What one can measure on a rig, with the leads named: probes against the black lead, drops, clamps. */
import { isOneOf, partKind } from '../parts/kinds';
import type { Rig } from '../rig/schema';

export interface Measurement {
  /** `red~black`, or the clamp's key. */
  id: string;
  kind: 'volts' | 'drop' | 'clamp';
  red: string;
  /** Absent on a clamp. */
  black?: string;
  /** Probe label, or two joined. */
  label: string;
  name: string;
  place: string;
  /** Metres from the nose. */
  station: number;
  /** Minutes for the measurement itself, beyond getting to the place. */
  minutes: number;
}

export const measurementId = (red: string, black?: string): string => (black === undefined ? red : `${red}~${black}`);

/** Where a key is on the rig, and where its lead goes. */
export interface PointPlace {
  place: string;
  station: number;
  lead: string;
  side: 'engine' | 'coach' | 'both' | 'ground';
  accessMinutes: number;
}

/** Place and lead of a point or clamp, by key. */
export function pointPlace(rig: Rig, key: string): PointPlace {
  const [owner, terminal] = key.split('.') as [string, string];
  if (terminal === 'clamp') {
    const conductor = rig.conductors.find((c) => c.id === owner)!;
    const near = rig.parts.find((p) => p.id === conductor.from.part) ?? rig.parts[0]!;
    return {
      place: near.place,
      station: near.station,
      lead:
        `jaws round ${conductor.name.toLowerCase()}, arrow toward ` +
        `${rig.parts.find((p) => p.id === conductor.to.part)?.name.toLowerCase() ?? 'frame'}`,
      side: near.side,
      accessMinutes: 0.3,
    };
  }
  const part = rig.parts.find((p) => p.id === owner);
  if (part) {
    const spec = partKind(part.kind).terminals.find((t) => t.id === terminal)!;
    return {
      place: part.place,
      station: part.station,
      lead: spec.lead,
      side: part.side,
      accessMinutes: spec.accessMinutes ?? 0,
    };
  }
  const ground = rig.grounds.find((g) => g.id === owner)!;
  const point = ground.points.find((p) => p.id === terminal)!;
  return { place: point.place, station: point.station, lead: point.label, side: 'ground', accessMinutes: 0 };
}

/** What to call a point in a sentence. */
export function pointName(rig: Rig, key: string): string {
  const probe = rig.probes.find((p) => p.key === key);
  if (probe) return probe.name;
  return pointPlace(rig, key).lead;
}

/**
 * The measurements worth offering: each probe against the black lead (where it is, or the rig's reference), each
 * clamp, and the direct drop across
 * whatever heavy piece has a probe at both ends (a difference of two absolute volts is no substitute).
 */
export function rigMeasurements(rig: Rig, blackLead?: string): Measurement[] {
  const list: Measurement[] = [];
  const reference = blackLead ?? `${rig.reference.part}.${rig.reference.terminal}`;
  const active = rig.probes.filter((p) => !p.retired);
  for (const probe of active) {
    if (probe.key === reference) continue;
    const where = pointPlace(rig, probe.key);
    const clamp = probe.key.endsWith('.clamp');
    list.push({
      id: measurementId(probe.key, clamp ? undefined : reference),
      kind: clamp ? 'clamp' : 'volts',
      red: probe.key,
      ...(clamp ? {} : { black: reference }),
      label: probe.label,
      name: probe.name,
      place: where.place,
      station: where.station,
      minutes: (clamp ? 1 : 0.7) + where.accessMinutes,
    });
  }
  const byKey = new Map(active.map((p) => [p.key, p]));
  const drop = (a: string, b: string, name: string) => {
    const red = byKey.get(a);
    const black = byKey.get(b);
    if (!red || !black) return;
    const from = pointPlace(rig, a);
    const to = pointPlace(rig, b);
    // Leads reach about two metres apart: further, a drop is two absolute readings.
    if (Math.abs(from.station - to.station) > 2) return;
    list.push({
      id: measurementId(a, b),
      kind: 'drop',
      red: a,
      black: b,
      label: `${red.label}–${black.label}`,
      name,
      place: from.place,
      station: from.station,
      minutes: 0.8 + from.accessMinutes + to.accessMinutes,
    });
  };
  // A bank's negative to the very bolt it should sit on: the return gets its own drop test.
  for (const c of rig.conductors) {
    const bank = rig.parts.find((p) => p.id === c.from.part && partKind(p.kind).role === 'battery');
    const red = byKey.get(`${c.from.part}.${c.from.terminal}`);
    if (c.use !== 'return' || !bank || !red) continue;
    const where = pointPlace(rig, red.key);
    const black = `${c.to.part}.${c.to.terminal}`;
    if (black === reference) continue;
    list.push({
      id: measurementId(red.key, black),
      kind: 'drop',
      red: red.key,
      black,
      label: `${red.label}–bolt`,
      name: `Drop from ${red.name.toLowerCase()} to its frame bolt`,
      place: where.place,
      station: where.station,
      minutes: 0.8 + where.accessMinutes,
    });
  }
  for (const part of rig.parts) {
    const kind = partKind(part.kind);
    // A charger or maintainer is a load on one side and a source on the other: what stands between is no drop.
    if ((kind.role === 'inline' || kind.role === 'link') && !isOneOf(part, ['charger', 'maintainer'])) {
      const [a, b] = kind.terminals;
      drop(`${part.id}.${a!.id}`, `${part.id}.${b!.id}`, `Drop across ${part.name.toLowerCase()}`);
    }
    if (kind.role === 'battery') drop(`${part.id}.plus`, `${part.id}.minus`, `${part.name}, post to post`);
  }
  for (const c of rig.conductors) {
    if (c.use === 'feed')
      drop(`${c.from.part}.${c.from.terminal}`, `${c.to.part}.${c.to.terminal}`, `Drop along ${c.name.toLowerCase()}`);
  }
  return list;
}
