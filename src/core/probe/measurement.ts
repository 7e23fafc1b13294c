/** What one can measure on a rig, with the leads named: probes against the black lead, drops, clamps. */
import { is, isOneOf, partKind } from '../parts/kinds';
import type { Part, Rig } from '../rig/schema';

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

/** Where a point or clamp is got at; none of what the rig no longer has. */
export function placeOf(rig: Rig, key: string): string | undefined {
  const owner = key.split('.')[0];
  const there = [...rig.parts, ...rig.conductors, ...rig.grounds].some((x) => x.id === owner);
  return there ? pointPlace(rig, key).place : undefined;
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
 * The measurements worth offering: each probe against the black lead (where it is, or the rig's reference), each clamp,
 * and the direct drop across whatever piece has a probe at both ends (a difference of two absolute volts is no
 * substitute).
 */
export function rigMeasurements(rig: Rig, blackLead?: string): Measurement[] {
  const reference = blackLead ?? `${rig.reference.part}.${rig.reference.terminal}`;
  const drops = new Drops(rig, reference);
  return [
    ...againstLead(rig, reference),
    ...drops.toTheirBolts(),
    ...drops.acrossParts(),
    ...drops.alongWires(),
    ...drops.overFuseAndLead(),
    ...drops.ofControl(),
  ];
}

const active = (rig: Rig) => rig.probes.filter((p) => !p.retired);

/** Every probe against the black lead, and every clamp. */
const againstLead = (rig: Rig, reference: string): Measurement[] =>
  active(rig)
    .filter((probe) => probe.key !== reference)
    .map((probe) => {
      const { place, station, accessMinutes } = pointPlace(rig, probe.key);
      const clamp = probe.key.endsWith('.clamp');
      return {
        id: measurementId(probe.key, clamp ? undefined : reference),
        kind: clamp ? 'clamp' : 'volts',
        red: probe.key,
        ...(clamp ? {} : { black: reference }),
        label: probe.label,
        name: probe.name,
        place,
        station,
        minutes: (clamp ? 1 : 0.7) + accessMinutes,
      };
    });

/** Leads reach about so far from one point to the other, metres: further, a drop is two absolute readings. */
const LEADS_REACH_METRES = 2;

/** Direct drops of a rig, kind by kind. */
class Drops {
  private readonly byKey: ReadonlyMap<string, Rig['probes'][number]>;

  constructor(
    private readonly rig: Rig,
    private readonly reference: string,
  ) {
    this.byKey = new Map(active(rig).map((p) => [p.key, p]));
  }

  private drop(a: string, b: string, name: string): Measurement[] {
    const red = this.byKey.get(a);
    const black = this.byKey.get(b);
    if (!red || !black) return [];
    const from = pointPlace(this.rig, a);
    const to = pointPlace(this.rig, b);
    if (Math.abs(from.station - to.station) > LEADS_REACH_METRES) return [];
    return [
      {
        id: measurementId(a, b),
        kind: 'drop',
        red: a,
        black: b,
        label: `${red.label}–${black.label}`,
        name,
        place: from.place,
        station: from.station,
        minutes: 0.8 + from.accessMinutes + to.accessMinutes,
      },
    ];
  }

  /** A bank's negative to the very bolt it should sit on: the return gets its own drop test. */
  toTheirBolts(): Measurement[] {
    const { rig, byKey, reference } = this;
    return rig.conductors.flatMap((c): Measurement[] => {
      const bank = rig.parts.find((p) => p.id === c.from.part && partKind(p.kind).role === 'battery');
      const red = byKey.get(`${c.from.part}.${c.from.terminal}`);
      const black = `${c.to.part}.${c.to.terminal}`;
      if (c.use !== 'return' || !bank || !red || black === reference) return [];
      const { place, station, accessMinutes } = pointPlace(rig, red.key);
      return [
        {
          id: measurementId(red.key, black),
          kind: 'drop',
          red: red.key,
          black,
          label: `${red.label}–bolt`,
          name: `Drop from ${red.name.toLowerCase()} to its frame bolt`,
          place,
          station,
          minutes: 0.8 + accessMinutes,
        },
      ];
    });
  }

  acrossParts(): Measurement[] {
    return this.rig.parts.flatMap((part) => {
      const { role, terminals } = partKind(part.kind);
      if (role === 'battery') return this.drop(`${part.id}.plus`, `${part.id}.minus`, `${part.name}, post to post`);
      if (!isThrough(part)) return [];
      const [a, b] = terminals;
      return this.drop(`${part.id}.${a!.id}`, `${part.id}.${b!.id}`, `Drop across ${part.name.toLowerCase()}`);
    });
  }

  alongWires(): Measurement[] {
    return this.rig.conductors
      .filter((c) => c.use !== 'return')
      .flatMap((c) => this.drop(...ends(c), `Drop along ${c.name.toLowerCase()}`));
  }

  /** What stands between two probes with none in the middle is seen as one: a fuse and the short lead behind it. */
  overFuseAndLead(): Measurement[] {
    const { rig, byKey } = this;
    const feeds = rig.conductors.filter((c) => c.use === 'feed');
    return rig.parts.flatMap((part) => {
      const [a, b] = partKind(part.kind).terminals.map((t) => `${part.id}.${t.id}`);
      if (partKind(part.kind).role !== 'inline' || !isThrough(part) || !a || !b) return [];
      const near = byKey.has(a) ? a : b;
      const far = near === a ? b : a;
      if (!byKey.has(near) || byKey.has(far)) return [];
      return feeds.flatMap((c) => {
        const [from, to] = ends(c);
        const beyond = from === far ? to : to === far ? from : undefined;
        const name = `Drop across ${part.name.toLowerCase()} and ${c.name.toLowerCase()}`;
        return beyond === undefined ? [] : this.drop(near, beyond, name);
      });
    });
  }

  /** The control side piece by piece: what the module keeps for itself, and what is left for the coil. */
  ofControl(): Measurement[] {
    return this.rig.parts.flatMap((part) => {
      const at = (terminal: string) => `${part.id}.${terminal}`;
      const name = part.name.toLowerCase();
      if (is(part, 'solenoid')) return this.drop(at('coil-plus'), at('coil-minus'), `Volts across the coil of ${name}`);
      return outputFeeds(part).flatMap((input) => this.drop(at(input), at('output'), `Drop across ${name}`));
    });
  }
}

const ends = (c: Rig['conductors'][number]): [string, string] => [
  `${c.from.part}.${c.from.terminal}`,
  `${c.to.part}.${c.to.terminal}`,
];

/** Whether current goes straight through: a charger or maintainer is a load on one side and a source on the other. */
const isThrough = (part: Part): boolean =>
  ['inline', 'link'].includes(partKind(part.kind).role) && !isOneOf(part, ['charger', 'maintainer']);

/** Terminals a module's output contacts are fed from. */
const outputFeeds = (part: Part): string[] =>
  is(part, 'module')
    ? partKind(part.kind).elements.flatMap((e) => (e.kind === 'contact' && e.b === 'output' ? [e.a] : []))
    : [];
