/** The catalogue applied to one rig: which faults this very rig can have. */
import type { Effect } from '../operate/effects';
import type { Rig } from '../rig/schema';
import { asDesigned } from './asDesigned';
import { COMPLAINTS, type Complaint } from '../parts/complaints';
import { partKind, partOptions } from '../parts/kinds';
import { FAULT_KINDS } from './catalogue';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import type { FaultOwner, LocalEffect } from './catalogue/faultKind';
import { PAIRS } from './catalogue/pairs';

export interface Fault {
  /** `owner.fault`, permanent as the owner's id is. */
  id: string;
  name: string;
  /** Part or conductor it sits in; absent for "nothing wrong". */
  owner?: string;
  /** Part to mark on the strip. */
  part?: string;
  /** Repair class: same owner, same repair. */
  class: string;
  repair: string;
  shows: string;
  /** How it is proved before anything is taken apart. */
  confirm?: string;
  /** Work and parts to put it right, from and to; absent where there is nothing to put right. */
  minutes?: readonly [number, number];
  parts?: readonly [number, number];
  caution?: string;
  effects: readonly Effect[];
  /** The two faults of a pair, by id; absent on a single fault. */
  members?: readonly [string, string];
  /** Unnormalised prior weight before any complaint. */
  prior: number;
  explains: readonly Complaint[];
}

/** What of a rig a fault or a question is about. */
export interface Owner {
  id: string;
  name: string;
  part: string;
}

const oneOf = (wanted: string | readonly string[], kind: string): boolean =>
  typeof wanted === 'string' ? wanted === kind : wanted.includes(kind);

/** The parts, conductors or bonds of this rig that a row of a catalogue is about. */
export function ownersOf(rig: Rig, owner: FaultOwner): Owner[] {
  if ('part' in owner) {
    return rig.parts
      .filter((p) => oneOf(owner.part, p.kind) && (owner.side === undefined || p.side === owner.side))
      .filter(
        (p) =>
          owner.option === undefined ||
          owner.option.is.includes(partOptions(partKind(p.kind), p)[owner.option.name] ?? ''),
      )
      .map((p) => ({ id: p.id, name: p.name, part: p.id }));
  }
  if ('conductor' in owner) {
    const { end, part: kinds, terminal, side } = owner.conductor;
    return rig.conductors.flatMap((c): Owner[] => {
      const part = rig.parts.find((p) => p.id === c[end].part);
      const fits =
        part !== undefined &&
        oneOf(kinds, part.kind) &&
        c[end].terminal === terminal &&
        (side === undefined || part.side === side);
      return fits ? [{ id: c.id, name: c.name, part: part.id }] : [];
    });
  }
  const frames = new Set(rig.grounds.map((g) => g.id));
  if ('strap' in owner) {
    return rig.conductors
      .filter((c) => frames.has(c.from.part) && frames.has(c.to.part))
      .map((c) => ({
        id: c.id,
        name: c.name,
        part: rig.bonds.find((b) => b.to.part === c.from.part)?.from.part ?? rig.parts[0]!.id,
      }));
  }
  return rig.bonds
    .filter((b) => (owner.bond === 'frame-to-frame') === (frames.has(b.from.part) && frames.has(b.to.part)))
    .map((b) => {
      const touching = rig.conductors.find((c) => c.to.part === b.from.part);
      return {
        id: b.id,
        name: b.name,
        part: frames.has(b.from.part) ? (touching?.from.part ?? rig.parts[0]!.id) : b.from.part,
      };
    });
}

/** The catalogue's shifts in volts are for 12 V: on a 24 V side they are twice as large. */
function atVoltage(effect: LocalEffect, rig: Rig, partId: string): LocalEffect {
  const part = rig.parts.find((p) => p.id === partId);
  const times = (rig.vehicles.find((v) => v.id === part?.vehicle)?.nominalVolts ?? 12) / 12;
  const inVolts =
    effect.do === 'shift-volts' ||
    (effect.do === 'shift-param' && part !== undefined && partKind(part.kind).params[effect.param]?.unit === 'V');
  return inVolts ? { ...effect, from: effect.from * times, to: effect.to * times } : effect;
}

/** Every fault of the catalogue this rig can have, with "nothing wrong" first. */
export function rigFaults(rig: Rig): Fault[] {
  const faults: Fault[] = [
    {
      id: NOTHING_WRONG.id,
      name: NOTHING_WRONG.name,
      class: NOTHING_WRONG.id,
      repair: NOTHING_WRONG.repair,
      shows: 'every reading is where a healthy rig would put it',
      effects: [],
      prior: NOTHING_WRONG.prior,
      // What is only as designed explains what the owner takes for a fault.
      explains: asDesigned(rig, Object.keys(COMPLAINTS) as Complaint[]).flatMap((a) => a.complaints),
    },
  ];
  for (const kind of FAULT_KINDS) {
    for (const owner of ownersOf(rig, kind.owner)) {
      const isPart = 'part' in kind.owner;
      faults.push({
        id: `${owner.id}.${kind.id}`,
        name: kind.name.replace('{owner}', owner.name),
        owner: owner.id,
        part: owner.part,
        class: `${owner.id}: ${kind.repair}`,
        repair: kind.repair,
        shows: kind.shows,
        confirm: kind.confirm,
        minutes: kind.minutes,
        parts: kind.parts,
        ...(kind.caution === undefined ? {} : { caution: kind.caution }),
        effects: kind.effects.map((row): Effect => {
          const e = atVoltage(row, rig, owner.part);
          if (e.do === 'open-battery' || e.do === 'dead-controller') return { do: e.do, part: owner.id };
          if ('param' in e) return { ...e, param: `${owner.id}.${e.param}` };
          return { ...e, element: isPart ? `${owner.id}.${e.element}` : owner.id };
        }),
        prior: kind.prior,
        explains: kind.explains,
      });
    }
  }
  return [...faults, ...pairsOf(faults)];
}

/** The pairs of the catalogue both halves of which this rig can have. */
function pairsOf(faults: readonly Fault[]): Fault[] {
  const kindOf = (f: Fault) => f.id.slice((f.owner?.length ?? 0) + 1);
  return PAIRS.flatMap(({ first, second, share, because }): Fault[] => {
    const a = faults.find((f) => f.owner === first.owner && kindOf(f) === first.fault);
    const b = faults.find((f) => f.owner === second.owner && kindOf(f) === second.fault);
    if (!a || !b) return [];
    const caution = [a.caution, b.caution].filter((c) => c !== undefined).join(' ');
    return [
      {
        id: `${a.id}+${b.id}`,
        name: `${a.name}, and ${b.name.charAt(0).toLowerCase()}${b.name.slice(1)}`,
        owner: a.owner!,
        part: a.part!,
        class: `${a.class} + ${b.class}`,
        repair: `${a.repair}; ${b.repair.charAt(0).toLowerCase()}${b.repair.slice(1)}`,
        shows: `${a.shows}; and ${b.shows}: ${because}`,
        confirm: [a.confirm, b.confirm].join('; '),
        minutes: [a.minutes![0] + b.minutes![0], a.minutes![1] + b.minutes![1]],
        parts: [a.parts![0] + b.parts![0], a.parts![1] + b.parts![1]],
        ...(caution ? { caution } : {}),
        effects: [...a.effects, ...b.effects],
        members: [a.id, b.id],
        prior: share * Math.min(a.prior, b.prior),
        explains: [...new Set([...a.explains, ...b.explains])],
      },
    ];
  });
}

/** Ids of the single faults a suspect is made of. */
export const membersOf = (fault: Fault): readonly string[] => fault.members ?? [fault.id];
