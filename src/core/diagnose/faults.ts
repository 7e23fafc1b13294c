/** The catalogue applied to one rig: which faults this very rig can have. */
import type { Effect } from '../operate/effects';
import type { Rig } from '../rig/schema';
import type { Assumptions, Complaint } from './assumptions';
import { FAULT_KINDS, NOTHING_WRONG, type FaultKind } from './catalogue';

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
  caution?: string;
  effects: readonly Effect[];
  /** Unnormalised prior weight before any complaint. */
  prior: number;
  explains: readonly Complaint[];
}

function owners(rig: Rig, kind: FaultKind): { id: string; name: string; part: string }[] {
  const { owner } = kind;
  const sideFits = (part: string, side?: string) =>
    side === undefined || rig.parts.find((p) => p.id === part)?.side === side;
  if ('part' in owner) {
    return rig.parts
      .filter((p) => p.kind === owner.part && sideFits(p.id, owner.side))
      .map((p) => ({ id: p.id, name: p.name, part: p.id }));
  }
  if ('conductor' in owner) {
    const { from, terminal, side } = owner.conductor;
    return rig.conductors
      .filter((c) => {
        const part = rig.parts.find((p) => p.id === c.from.part);
        return part?.kind === from && c.from.terminal === terminal && sideFits(part.id, side);
      })
      .map((c) => ({ id: c.id, name: c.name, part: c.from.part }));
  }
  const frames = new Set(rig.grounds.map((g) => g.id));
  return rig.bonds
    .filter((b) => frames.has(b.from.part) && frames.has(b.to.part))
    .map((b) => {
      const touching = rig.conductors.find((c) => c.to.part === b.from.part);
      return { id: b.id, name: b.name, part: touching?.from.part ?? rig.parts[0]!.id };
    });
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
      explains: [],
    },
  ];
  for (const kind of FAULT_KINDS) {
    for (const owner of owners(rig, kind)) {
      const isPart = 'part' in kind.owner;
      faults.push({
        id: `${owner.id}.${kind.id}`,
        name: kind.name.replace('{owner}', owner.name),
        owner: owner.id,
        part: owner.part,
        class: `${owner.id}: ${kind.repair}`,
        repair: kind.repair,
        shows: kind.shows,
        ...(kind.caution === undefined ? {} : { caution: kind.caution }),
        effects: kind.effects.map((e): Effect => {
          if (e.do === 'open-battery' || e.do === 'dead-controller') return { do: e.do, part: owner.id };
          return { ...e, element: isPart ? `${owner.id}.${e.element}` : owner.id };
        }),
        prior: kind.prior,
        explains: kind.explains,
      });
    }
  }
  return faults;
}

/** Prior probabilities given what the customer complains of; they add up to one. */
export function priors(faults: readonly Fault[], complaints: readonly Complaint[], a: Assumptions): Float64Array {
  const weights = Float64Array.from(faults, (f) =>
    complaints.reduce((w, c) => w * (f.explains.includes(c) ? 1 : a.unexplained), f.prior),
  );
  const total = weights.reduce((s, w) => s + w, 0);
  return weights.map((w) => w / total);
}
