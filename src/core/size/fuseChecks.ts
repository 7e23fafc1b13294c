/**
 * Each fuse and breaker of a rig against its load, its wire and its bank: window, volts, what it must
 * interrupt, where it sits, and whether it opens before a short harms the wire.
 */
import { chemistryOf, bankOhms, bankRestVolts } from '../parts/chemistry';
import { BREAKER_TYPES } from '../parts/entries/inline';
import { isFuseOrBreaker, fuseKind, interruptsAt, opensAtEarliest, opensAtLatest, type FuseKind } from '../parts/fuses';
import { is, nominalOf, partKind, partOptions } from '../parts/kinds';
import { tripSeconds } from '../control/breaker';
import { follow, type FeedStep } from '../rig/follow';
import type { Conductor, Part, Rig } from '../rig/schema';
import { CRANK_SECONDS, crankShare } from './crankShare';
import { insulationOf, placeOf } from './gaugeTable';
import { fuseWindow, type FuseWindow } from './protect';
import { ratingOf } from './rating';
import { bearsSeconds } from './shortCircuit';
import type { WireLoad } from './wireLoads';
import { ampacity } from '../units/ampacity';
import { gaugeFamily, gaugesOf, wireArea, type Gauge } from '../units/wire';

export interface FuseCriterion {
  id: 'window' | 'made' | 'volts' | 'interrupts' | 'place' | 'clears' | 'type' | 'crank';
  verdict: 'good' | 'watch' | 'bad';
  says: string;
}

export interface FuseCheck {
  part: string;
  name: string;
  rating: number;
  kind: string;
  continuous: number;
  window: FuseWindow;
  /** Conductors it must protect. */
  protects: string[];
  /**
   * The one of them it fails first, and the thinnest gauge in its place that it protects; none where that is far
   * thicker: a branch wants a fuse of its own.
   */
  weakest: { id: string; name: string; thicker?: Gauge };
  /** A a dead short just behind it, and one at the far end, would draw. */
  fault: { near: number; far: number };
  checks: FuseCriterion[];
  /** Seconds against amps: the fuse at its slowest, and the weakest wire. */
  curves: { amps: number; fuse: number; wire: number }[];
}

/** m from a battery within which a fuse belongs: 7 in, 33 CFR 183.455 for boats, the common guide for RVs. */
const WITHIN_METRES = 0.18;
/** V of a 12 V system while it is being charged hard; 58 V of a 48 V one (common practice). */
const CHARGING_VOLTS = 14.5;

/**
 * Copper of a size over the next thinner one sold, two AWG numbers apart (ASTM B258); how many sizes thicker a wire is
 * made for its fuse.
 */
const ONE_STEP = 92 ** (4 / 39);
const MAX_STEPS_OVER = 2.5;

interface Reach {
  battery?: Part;
  /** m of cable, and Ω, to that battery. */
  metres: number;
  ohms: number;
  /** Ω of the longest way on that side. */
  farthest: number;
  wires: Conductor[];
}

/** A hand of cable to a fuse of its own: it need not bear what the fuse before it lets through (33 CFR 183.455, within 7 in). */
const isPigtail = ({ part, conductor }: FeedStep): boolean =>
  isFuseOrBreaker(part) && conductor.length <= WITHIN_METRES;

/** What is reached from a fuse's terminal: the wires it protects on that side, and the nearest battery. */
function reach(rig: Rig, fuse: Part, terminal: string): Reach {
  const steps = follow(rig, { part: fuse.id, terminal }, (p) => !isFuseOrBreaker(p));
  const near = steps.filter((s) => is(s.part, 'battery')).sort((a, b) => a.metres - b.metres)[0];
  return {
    ...(near ? { battery: near.part!, metres: near.metres, ohms: near.ohms } : { metres: Infinity, ohms: 0 }),
    farthest: Math.max(0, ...steps.map((s) => s.ohms)),
    wires: steps.filter((s) => !isPigtail(s)).map((s) => s.conductor),
  };
}

/** A into a dead short behind so many ohms: a full, new, warm bank. */
export function faultAmps(rig: Rig, bank: Part, ohms: number): number {
  const state = {
    chemistry: chemistryOf(partOptions(partKind(bank.kind), bank)['chemistry']!),
    capacity: bank.params['capacity']?.value ?? 100,
    blocks:
      nominalOf(
        bank,
        rig.vehicles.find((v) => v.id === bank.vehicle)!,
      ) / 12,
    soc: 1,
    celsius: 25,
    ageing: 1,
  };
  return bankRestVolts(state) / (bankOhms(state, false) + ohms);
}

/** V while the battery at a part's place is charged hard: of the bank itself, or of its vehicle. */
export const chargingVolts = (rig: Rig, part: Part): number =>
  (CHARGING_VOLTS *
    nominalOf(
      part,
      rig.vehicles.find((v) => v.id === part.vehicle)!,
    )) /
  12;

const inSeconds = (s: number): string =>
  !Number.isFinite(s)
    ? 'for ever'
    : s < 0.1
      ? `${(s * 1000).toFixed(0)} ms`
      : s < 120
        ? `${Number(s.toPrecision(2))} s`
        : `${(s / 60).toFixed(0)} min`;

/** What the checks of one fuse are made from. */
interface Facts {
  part: Part;
  rating: number;
  breaker: boolean;
  /** None for a breaker. */
  kind?: FuseKind;
  continuous: number;
  window: FuseWindow;
  /** The side it is fed from, and the side it protects. */
  near: Reach;
  far: Reach;
  wires: Conductor[];
  /** The wire it protects that a short harms first. */
  weakest: Conductor;
  bank?: Part;
  fault: { near: number; far: number };
  /** V it may have to break. */
  charging: number;
  crank: ReturnType<typeof crankShare>;
  /** Seconds until it opens, at its slowest, and until `weakest` is harmed. */
  opens(amps: number): number;
  bears(amps: number): number;
}

const bearsOf = (c: Conductor, amps: number, gauge = c.gauge): number => bearsSeconds(gauge, insulationOf(c), amps);

function factsOf(
  rig: Rig,
  part: Part,
  loads: ReadonlyMap<string, WireLoad>,
  crank: ReturnType<typeof crankShare>,
): Facts {
  const sides = [reach(rig, part, 'source'), reach(rig, part, 'load')] as const;
  const [near, far] = sides[0].metres <= sides[1].metres ? sides : [sides[1], sides[0]];
  const rating = ratingOf(part);
  const breaker = is(part, 'breaker');
  const kind = breaker ? undefined : fuseKind(partOptions(partKind(part.kind), part)['type']!);
  const touching = rig.conductors.filter((c) => c.use === 'feed' && (c.from.part === part.id || c.to.part === part.id));
  const continuous = Math.max(0, ...touching.map((c) => loads.get(c.id)?.continuous ?? 0));
  const wires = far.wires.length > 0 ? far.wires : touching;
  const weakest = wires.reduce((a, b) => (bearsOf(b, 1000) < bearsOf(a, 1000) ? b : a));
  const bank = near.battery;
  return {
    part,
    rating,
    breaker,
    ...(kind ? { kind } : {}),
    continuous,
    window: fuseWindow(
      Math.max(continuous, 0.1),
      wires.map((c) => ({ gauge: c.gauge, insulation: insulationOf(c), place: placeOf(c) })),
      kind,
    ),
    near,
    far,
    wires,
    weakest,
    ...(bank ? { bank } : {}),
    fault: {
      near: bank ? faultAmps(rig, bank, near.ohms) : 0,
      far: bank ? faultAmps(rig, bank, near.ohms + far.farthest) : 0,
    },
    // The battery that can feed it says its volts: a 48 V trailer has 12 V lines too.
    charging: bank ? chargingVolts(rig, bank) : CHARGING_VOLTS,
    crank,
    opens: (amps) =>
      rating <= 0 ? Infinity : breaker ? tripSeconds(amps / rating) : opensAtLatest(kind!, amps / rating),
    bears: (amps) => bearsOf(weakest, amps),
  };
}

/** One check: nothing where it does not arise. A further check is a further function, in the order they are read. */
type CheckOf = (f: Facts) => FuseCriterion | undefined;

const windowCheck: CheckOf = ({ rating, window, continuous }) => {
  const say = (verdict: FuseCriterion['verdict'], says: string): FuseCriterion => ({ id: 'window', verdict, says });
  const amps = `${continuous.toFixed(1)} A`;
  if (rating <= 0) return say('bad', 'Its rating is not known: read it off the body and put it in under Rig.');
  if (rating > window.to)
    return say(
      'bad',
      `${rating} A is more than the ${window.to.toFixed(0)} A its weakest wire carries: the wire is the fuse.`,
    );
  if (rating < continuous) return say('bad', `${rating} A is less than the ${amps} it carries for hours.`);
  if (rating < window.from)
    return say('watch', `Tight: ${amps} for hours asks for ${window.from.toFixed(0)} A or more.`);
  return say('good', `${rating} A lies between ${window.from.toFixed(0)} and ${window.to.toFixed(0)} A.`);
};

const madeCheck: CheckOf = ({ kind, rating }) => {
  if (!kind || rating <= 0 || kind.ratings.includes(rating)) return undefined;
  const next = kind.ratings.find((r) => r > rating) ?? kind.ratings[kind.ratings.length - 1];
  return {
    id: 'made',
    verdict: 'bad',
    says: `${kind.label} is not made as ${rating} A: ${next} A is the next.`,
  };
};

const voltsCheck: CheckOf = ({ kind, charging }) =>
  kind &&
  (kind.volts >= charging
    ? { id: 'volts', verdict: 'good', says: `Made for ${kind.volts} V, ${charging.toFixed(0)} V while charging.` }
    : {
        id: 'volts',
        verdict: 'bad',
        says: `Made for ${kind.volts} V: at ${charging.toFixed(0)} V its arc may hold. Take one of 58 V or more.`,
      });

const interruptsCheck: CheckOf = ({ kind, bank, fault, charging }) => {
  if (!kind || !bank) return undefined;
  const amps = fault.near.toFixed(0);
  const opensInto = interruptsAt(kind, charging);
  return opensInto >= fault.near
    ? {
        id: 'interrupts',
        verdict: 'good',
        says: `Opens into ${opensInto} A at ${charging.toFixed(0)} V; ${bank.name} can push ${amps} A.`,
      }
    : {
        id: 'interrupts',
        verdict: 'bad',
        says:
          `${bank.name} can push ${amps} A into a short, this kind opens into ` +
          `${opensInto} A at ${charging.toFixed(0)} V: take a class T fuse.`,
      };
};

const typeCheck: CheckOf = ({ part, breaker, near, far }) => {
  if (!breaker) return undefined;
  const type = BREAKER_TYPES.find((t) => t.id === partOptions(partKind(part.kind), part)['type'])!;
  return type.id === 'auto' && near.battery && far.battery
    ? {
        id: 'type',
        verdict: 'watch',
        says: 'Type I between two batteries closes onto a fault again and again, unattended: a fuse or a type III is better.',
      }
    : { id: 'type', verdict: 'good', says: `${type.label}.` };
};

const placeCheck: CheckOf = ({ bank, near }) => {
  if (!bank) return undefined;
  if (near.metres <= WITHIN_METRES)
    return {
      id: 'place',
      verdict: 'good',
      says: `${(near.metres * 100).toFixed(0)} cm of cable from ${bank.name}.`,
    };
  return {
    id: 'place',
    verdict: near.metres <= 1 ? 'watch' : 'bad',
    says: `${near.metres.toFixed(1)} m of cable from ${bank.name}: that much is unprotected, 0.18 m is the guide.`,
  };
};

const clearsCheck: CheckOf = ({ bank, fault, opens, bears }) => {
  if (!bank) return undefined;
  const slow = [fault.far, fault.near].find((a) => opens(a) > bears(a));
  const within = (amps: number) => `${inSeconds(opens(amps))}, the wire bears ${inSeconds(bears(amps))}.`;
  return slow === undefined
    ? {
        id: 'clears',
        verdict: 'good',
        says: `A short at the far end draws ${fault.far.toFixed(0)} A: open within ${within(fault.far)}`,
      }
    : { id: 'clears', verdict: 'bad', says: `At ${slow.toFixed(0)} A it may take ${within(slow)}` };
};

const crankCheck: CheckOf = ({ part, rating, breaker, kind, crank }) => {
  if (!crank?.through.includes(part.id) || rating <= 0) return undefined;
  const quickest = breaker ? tripSeconds(crank.amps / rating) : opensAtEarliest(kind!, crank.amps / rating);
  const holds = quickest >= CRANK_SECONDS;
  const bms = crank.bmsLimit !== undefined && crank.amps > crank.bmsLimit;
  const good = holds && !bms;
  const says = [
    `Cranking with boost held, ${crank.amps.toFixed(0)} of the starter’s ${crank.starter.toFixed(0)} A come this way`,
    holds ? `: it bears that ${inSeconds(quickest)}.` : `: it may open within ${inSeconds(quickest)}.`,
    bms ? ` ${crank.donor.name}’s BMS may let out only about ${crank.bmsLimit!.toFixed(0)} A.` : '',
    good ? '' : ' On the owner’s card: hold boost to charge, wait, release, then crank.',
  ];
  return { id: 'crank', verdict: good ? 'good' : 'watch', says: says.join('') };
};

const CHECKS: readonly CheckOf[] = [
  windowCheck,
  madeCheck,
  voltsCheck,
  interruptsCheck,
  typeCheck,
  placeCheck,
  clearsCheck,
  crankCheck,
];

/** The wire a fuse fails first, and the thinnest gauge in its place that the fuse protects, unless that is far thicker. */
function weakestOf({ rating, window, wires, weakest, fault, opens }: Facts): FuseCheck['weakest'] {
  const carries = (c: Conductor, g: Gauge) => ampacity(g, insulationOf(c), placeOf(c));
  const first =
    rating > window.to ? wires.reduce((a, b) => (carries(b, b.gauge) < carries(a, a.gauge) ? b : a)) : weakest;
  const named = { id: first.id, name: first.name };
  const thicker =
    rating > 0
      ? gaugesOf(gaugeFamily(first.gauge)).find(
          (g) =>
            wireArea(g) > wireArea(first.gauge) &&
            carries(first, g) >= rating &&
            [fault.far, fault.near].every((a) => opens(a) <= bearsOf(first, a, g)),
        )
      : undefined;
  if (thicker === undefined) return named;
  const steps = Math.log(wireArea(thicker) / wireArea(first.gauge)) / Math.log(ONE_STEP);
  return steps < MAX_STEPS_OVER ? { ...named, thicker } : named;
}

function curvesOf({ rating, opens, bears }: Facts): FuseCheck['curves'] {
  const curves: FuseCheck['curves'] = [];
  if (rating > 0)
    for (let m = 1.35; m <= 60; m *= 1.2)
      curves.push({ amps: rating * m, fuse: opens(rating * m), wire: bears(rating * m) });
  return curves;
}

/** Every fuse and breaker of a rig, checked. @param loads A of each wire, by its id. */
export function fuseChecks(rig: Rig, loads: ReadonlyMap<string, WireLoad>): FuseCheck[] {
  const crank = crankShare(rig);
  return rig.parts.filter(isFuseOrBreaker).map((part): FuseCheck => {
    const facts = factsOf(rig, part, loads, crank);
    return {
      part: part.id,
      name: part.name,
      rating: facts.rating,
      kind: facts.kind?.label ?? 'Breaker',
      continuous: facts.continuous,
      window: facts.window,
      protects: facts.wires.map((c) => c.id),
      weakest: weakestOf(facts),
      fault: facts.fault,
      checks: CHECKS.flatMap((check) => check(facts) ?? []),
      curves: curvesOf(facts),
    };
  });
}
