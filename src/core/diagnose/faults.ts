/** The catalogue applied to one rig: which faults this very rig can have. */
import type { Effect } from '../operate/effects';
import type { Complaint } from '../parts/complaints';
import { COMPLAINTS } from '../parts/complaints';
import type { FaultWords, LocalEffect, PartFault } from '../parts/fault';
import { is, isOneOf, PART_KINDS, partKind, traitsOf } from '../parts/kinds';
import type { PartKind } from '../parts/part';
import type { Part, Rig } from '../rig/schema';
import { partOption } from '../rig/value';
import type { MetalPlace, OwnerParts } from './catalogue/faultKind';
import { METAL_FAULTS } from './catalogue/metal';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import { NOT_ON_LIST } from './catalogue/notOnList';
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
  /** The same as data; absent where any telling reading at its owner is proof enough. */
  proof?: FaultWords['proof'];
  /** Work and parts to put it right, from and to; absent where there is nothing to put right. */
  minutes?: readonly [number, number];
  parts?: readonly [number, number];
  caution?: string;
  effects: readonly Effect[];
  /** Other ways it may be, each with its share of the prior: sound rigs differ in kind, not only in degree. */
  variants?: readonly { effects: readonly Effect[]; share: number }[];
  /** Names it goes by in tables of pairs and of what an intake weighs, one list a member, most particular first. */
  answersTo: readonly (readonly string[])[];
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

/** The parts of this rig that a question is about. */
export function ownersOf(rig: Rig, { part, also, option }: OwnerParts): Owner[] {
  const traits = typeof part === 'string' ? [part] : part;
  return rig.parts
    .filter((p) => isOneOf(p, traits) && (also === undefined || is(p, also)))
    .filter((p) => option === undefined || option.is.includes(partOption(p, option.name)))
    .map((p) => ({ id: p.id, name: p.name, part: p.id }));
}

/** The parts, or the conductors at their terminals, that have a fault of their kind. */
function ownersOfFault(rig: Rig, kind: PartKind, { wire, side, option }: PartFault): Owner[] {
  const parts = rig.parts.filter(
    (p) =>
      p.kind === kind.id &&
      (side === undefined || p.side === side) &&
      (option === undefined || option.is.includes(partOption(p, option.name))),
  );
  if (!wire) return parts.map((p) => ({ id: p.id, name: p.name, part: p.id }));
  return rig.conductors
    .filter((c) => c[wire.end].terminal === wire.terminal && parts.some((p) => p.id === c[wire.end].part))
    .map((c) => ({ id: c.id, name: c.name, part: c[wire.end].part }));
}

/** The straps or joints of metal that have a fault of that place. */
function metalOwners(rig: Rig, at: MetalPlace): Owner[] {
  const frames = new Set(rig.grounds.map((g) => g.id));
  if ('strap' in at)
    return rig.conductors
      .filter((c) => frames.has(c.from.part) && frames.has(c.to.part))
      .map((c) => ({
        id: c.id,
        name: c.name,
        part: rig.bonds.find((b) => b.to.part === c.from.part)?.from.part ?? rig.parts[0]!.id,
      }));
  return rig.bonds
    .filter((b) => (at.bond === 'frame-to-frame') === (frames.has(b.from.part) && frames.has(b.to.part)))
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

/** Every fault of the catalogue this rig can have, with "nothing wrong" and "not on the list" first. */
export function rigFaults(rig: Rig): Fault[] {
  const faults: Fault[] = [
    {
      id: NOTHING_WRONG.id,
      name: NOTHING_WRONG.name,
      class: NOTHING_WRONG.id,
      repair: NOTHING_WRONG.repair,
      shows: 'every reading is where a healthy rig would put it',
      effects: [],
      variants: soundVariants(rig),
      answersTo: [[NOTHING_WRONG.id]],
      prior: NOTHING_WRONG.prior,
      // An owner may be mistaken about anything.
      explains: Object.keys(COMPLAINTS) as Complaint[],
    },
    {
      id: NOT_ON_LIST.id,
      name: NOT_ON_LIST.name,
      class: NOT_ON_LIST.id,
      repair: NOT_ON_LIST.repair,
      shows: NOT_ON_LIST.shows,
      effects: [],
      answersTo: [[NOT_ON_LIST.id]],
      prior: NOT_ON_LIST.prior,
      explains: Object.keys(COMPLAINTS) as Complaint[],
    },
  ];
  for (const kind of PART_KINDS.values())
    for (const row of kind.faults)
      for (const owner of ownersOfFault(rig, kind, row)) {
        const part = rig.parts.find((p) => p.id === owner.part)!;
        faults.push(faultOf(rig, row, owner, row.wire === undefined, refsOf(part, row.id)));
      }
  for (const row of METAL_FAULTS)
    for (const owner of metalOwners(rig, row.at)) faults.push(faultOf(rig, row, owner, false, [`metal.${row.id}`]));
  const apart = oneEach(faults);
  return [...apart, ...pairsOf(apart)];
}

/**
 * A wire that two kinds of part call theirs, one at either end, can be broken only once: what does the very same to the
 * very same piece is one fault, by the first name it has.
 */
function oneEach(faults: readonly Fault[]): Fault[] {
  const list: Fault[] = [];
  for (const fault of faults) {
    const effects = JSON.stringify(fault.effects);
    const same = list.find(
      (f) => f.owner !== undefined && f.owner === fault.owner && JSON.stringify(f.effects) === effects,
    );
    if (!same) list.push(fault);
    else
      list[list.indexOf(same)] = {
        ...same,
        prior: same.prior + fault.prior,
        explains: [...new Set([...same.explains, ...fault.explains])],
        answersTo: [[...same.answersTo[0]!, ...fault.answersTo[0]!]],
      };
  }
  return list;
}

/**
 * Ways a sound rig may be that no slope leads to from the usual one: a control near its threshold has not closed yet, an
 * alternator has little left at idle. Common practice that sound ones differ so; shares and sizes from memory.
 */
function soundVariants(rig: Rig): { effects: Effect[]; share: number }[] {
  const times = rig.vehicles[0]!.nominalVolts / 12;
  const late = rig.parts.flatMap((p): Effect[] => {
    const { byVolts } = traitsOf(p);
    return byVolts
      ? [{ do: 'shift-param', param: `${p.id}.${byVolts.closes}`, from: 0.1 * times, to: 0.4 * times }]
      : [];
  });
  const low = rig.parts.flatMap((p): Effect[] =>
    is(p, 'alternator')
      ? [
          { do: 'scale-param', param: `${p.id}.idleLimit`, from: 0.85, to: 0.5 },
          { do: 'scale-param', param: `${p.id}.fastLimit`, from: 0.95, to: 0.75 },
          { do: 'shift-param', param: `${p.id}.setPoint`, from: -0.05 * times, to: -0.4 * times },
        ]
      : [],
  );
  const variants = [
    { effects: low, share: 0.25 },
    { effects: late, share: 0.12 },
    // Each alone it would close all the same; both together it waits for more volts than the idle has.
    { effects: late.length > 0 ? [...late, ...low] : [], share: 0.08 },
  ].filter((v) => v.effects.length > 0);
  const usual = 1 - variants.reduce((sum, v) => sum + v.share, 0);
  return [{ effects: [], share: usual }, ...variants];
}

/** What a fault of a part answers to, the most particular first: `battery@coach.flat`, `battery.flat`. */
const refsOf = (part: Part, fault: string): string[] => {
  const traits = Object.keys(traitsOf(part));
  return [...traits.map((t) => `${t}@${part.side}.${fault}`), ...traits.map((t) => `${t}.${fault}`)];
};

/** A row of a catalogue as a fault of one owner. @param inPart the effects are on elements of the part itself */
function faultOf(rig: Rig, row: FaultWords, owner: Owner, inPart: boolean, refs: readonly string[]): Fault {
  // Every text of a row may name its owner.
  const named = (text: string) => text.replaceAll('{owner}', owner.name);
  const here = (effects: readonly LocalEffect[]) =>
    effects.map((effect): Effect => {
      const e = atVoltage(effect, rig, owner.part);
      if (e.do === 'open-battery' || e.do === 'dead-controller') return { do: e.do, part: owner.id };
      if ('param' in e) return { ...e, param: `${owner.id}.${e.param}` };
      const element = inPart ? `${owner.id}.${e.element}` : owner.id;
      return 'behind' in e ? { ...e, element, behind: `${owner.id}.${e.behind}` } : { ...e, element };
    });
  return {
    id: `${owner.id}.${row.id}`,
    name: named(row.name),
    owner: owner.id,
    part: owner.part,
    class: `${owner.id}: ${named(row.repair)}`,
    repair: named(row.repair),
    shows: named(row.shows),
    confirm: named(row.confirm),
    ...(row.proof === undefined ? {} : { proof: row.proof }),
    minutes: row.minutes,
    parts: row.parts,
    ...(row.caution === undefined ? {} : { caution: named(row.caution) }),
    effects: here(row.effects),
    ...(row.or
      ? {
          variants: [
            { effects: here(row.effects), share: 1 - row.or.share },
            { effects: here(row.or.effects), share: row.or.share },
          ],
        }
      : {}),
    prior: row.prior,
    explains: row.explains,
    answersTo: [[...refs, row.id]],
  };
}

/** The pairs of the catalogue both halves of which this rig can have. */
function pairsOf(faults: readonly Fault[]): Fault[] {
  const answering = (ref: string) => faults.find((f) => f.answersTo.some((refs) => refs.includes(ref)));
  return PAIRS.flatMap(({ first, second, share, because }): Fault[] => {
    const a = answering(first);
    const b = answering(second);
    if (!a || !b) return [];
    return [bothOf(a, b, share * Math.min(a.prior, b.prior), because)];
  });
}

/** Two faults of a rig as one suspect. */
export function bothOf(a: Fault, b: Fault, prior: number, because?: string): Fault {
  const caution = [a.caution, b.caution].filter((c) => c !== undefined).join(' ');
  return {
    id: `${a.id}+${b.id}`,
    name: `${a.name}, and ${b.name.charAt(0).toLowerCase()}${b.name.slice(1)}`,
    owner: a.owner!,
    part: a.part!,
    // Whichever was found first: it is one repair.
    class: [a.class, b.class].sort().join(' + '),
    repair: `${a.repair}; ${b.repair.charAt(0).toLowerCase()}${b.repair.slice(1)}`,
    shows: `${a.shows}; and ${b.shows}${because === undefined ? '' : `: ${because}`}`,
    confirm: [a.confirm, b.confirm].join('; '),
    minutes: [a.minutes![0] + b.minutes![0], a.minutes![1] + b.minutes![1]],
    parts: [a.parts![0] + b.parts![0], a.parts![1] + b.parts![1]],
    ...(caution ? { caution } : {}),
    effects: [...a.effects, ...b.effects],
    members: [a.id, b.id],
    answersTo: [...a.answersTo, ...b.answersTo],
    prior,
    explains: [...new Set([...a.explains, ...b.explains])],
  };
}

/** What a fault goes by over many rigs: its most particular name that no rig's own ids are in. */
export const faultKey = (fault: Fault): string => fault.answersTo[0]![0]!;

/** Ids of the single faults a suspect is made of. */
export const membersOf = (fault: Fault): readonly string[] => fault.members ?? [fault.id];
