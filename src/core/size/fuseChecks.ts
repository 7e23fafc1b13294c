/**
 * Each fuse and breaker of a rig against its load, its wire and its bank: window, volts, what it must
 * interrupt, where it sits, and whether it opens before a short harms the wire.
 */
import type { RuleSet } from '../codes/ruleSet';
import { bankOhms, bankRestVolts, shortCircuitAmps } from '../parts/chemistry';
import { bankStateOf } from '../rig/bankState';
import { BREAKER_TYPES } from '../parts/entries/inline';
import {
  CHARGED_HARD_VOLTS,
  isFuseOrBreaker,
  fuseKind,
  interruptsAt,
  opensAtEarliest,
  opensAtLatest,
  type FuseKind,
} from '../parts/fuses';
import { is, nominalOf, partKind, partOptions } from '../parts/kinds';
import { tripSeconds } from '../control/breaker';
import { follow, type FeedStep } from '../rig/follow';
import type { Conductor, Part, Rig } from '../rig/schema';
import { CRANK_SECONDS, crankShare } from './crankShare';
import { fuseLimit, insulationOf, wireSpecOf } from './fuseLimit';
import { fuseWindow, type FuseWindow } from './protect';
import { ratingOf } from './rating';
import { bearsSeconds } from './shortCircuit';
import type { WireLoad } from './wireLoads';
import { BOAT_GUIDE_METRES } from '../codes/ruleSet';
import { lengthInBoth } from '../units/format';
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
  /** A a dead short just behind it draws at most, from every bank joined there; and one at the far end at least. */
  fault: { near: number; far: number };
  checks: FuseCriterion[];
  /** Seconds against amps: the fuse at its slowest, and the weakest wire. */
  curves: { amps: number; fuse: number; wire: number }[];
}

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
  isFuseOrBreaker(part) && conductor.length <= BOAT_GUIDE_METRES;

/** What is reached from a fuse's terminal: the wires it protects on that side, and the nearest battery. */
function reach(rig: Rig, fuse: Part, terminal: string): Reach {
  const steps = follow(rig, { part: fuse.id, terminal }, (p) => !isFuseOrBreaker(p), ['feed', 'control']);
  const near = steps.filter((s) => is(s.part, 'battery')).sort((a, b) => a.metres - b.metres)[0];
  return {
    ...(near ? { battery: near.part!, metres: near.metres, ohms: near.ohms } : { metres: Infinity, ohms: 0 }),
    farthest: Math.max(0, ...steps.map((s) => s.ohms)),
    wires: steps.filter((s) => !isPigtail(s)).map((s) => s.conductor),
  };
}

/** A full, new, warm bank. */
const stateOf = (rig: Rig, bank: Part) => bankStateOf(rig, bank, { soc: 1, ageing: 1 });

/** A a bank pushes at most into a dead short behind so many ohms: what a fuse must open into. */
export function mostFaultAmps(rig: Rig, bank: Part, ohms: number): number {
  const { chemistry, capacity, blocks, cca } = stateOf(rig, bank);
  return shortCircuitAmps(chemistry, capacity, blocks, ohms, cca);
}

/** A it pushes at least, when it is in order: what a fuse must open at in time. By the resistance charging meets. */
export function leastFaultAmps(rig: Rig, bank: Part, ohms: number): number {
  const state = stateOf(rig, bank);
  return bankRestVolts(state) / (bankOhms(state, false) + ohms);
}

/**
 * A a fuse may have to open into: all banks joined on its one side push into a short on the other. Each by its own way
 * there, as if no other shared it: the sum errs high.
 */
const intoFuse = (rig: Rig, fuse: Part): number =>
  Math.max(
    ...['source', 'load'].map((terminal) =>
      follow(rig, { part: fuse.id, terminal }, (p) => p.id !== fuse.id)
        .filter((s) => is(s.part, 'battery'))
        .reduce((sum, s) => sum + mostFaultAmps(rig, s.part!, s.ohms), 0),
    ),
  );

/** V while the battery at a part's place is charged hard: of the bank itself, or of its vehicle. */
export const chargingVolts = (rig: Rig, part: Part): number =>
  (CHARGED_HARD_VOLTS *
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
  /** A of a short at the far end and of one just behind it, at least: the slower it opens. */
  shorts: readonly number[];
  /** V it may have to break. */
  charging: number;
  rules: RuleSet;
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
  rules: RuleSet,
): Facts {
  const sides = [reach(rig, part, 'source'), reach(rig, part, 'load')] as const;
  const [near, far] = sides[0].metres <= sides[1].metres ? sides : [sides[1], sides[0]];
  const rating = ratingOf(part);
  const breaker = is(part, 'breaker');
  const kind = breaker ? undefined : fuseKind(partOptions(partKind(part.kind), part)['type']!);
  const touching = rig.conductors.filter(
    (c) => c.use !== 'return' && (c.from.part === part.id || c.to.part === part.id),
  );
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
      wires.map((c) => wireSpecOf(c)),
      rules,
      kind,
    ),
    near,
    far,
    wires,
    weakest,
    ...(bank ? { bank } : {}),
    fault: {
      near: bank ? intoFuse(rig, part) : 0,
      far: bank ? leastFaultAmps(rig, bank, near.ohms + far.farthest) : 0,
    },
    shorts: bank ? [near.ohms + far.farthest, near.ohms].map((ohms) => leastFaultAmps(rig, bank, ohms)) : [],
    rules,
    // The battery that can feed it says its volts: a 48 V trailer has 12 V lines too.
    charging: bank ? chargingVolts(rig, bank) : CHARGED_HARD_VOLTS,
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
      window.limit.by === 'code'
        ? `${rating} A is more than the code allows: ${window.limit.says}.`
        : `${rating} A is more than the weakest wire’s ${window.to.toFixed(0)} A ampacity: the wire is the fuse.`,
    );
  if (rating < continuous) return say('bad', `${rating} A is less than its ${amps} continuous load.`);
  if (rating < window.from)
    return say('watch', `Too little headroom: ${amps} continuous wants ${window.from.toFixed(0)} A or more.`);
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

/** Thickest wire that is itself most of what a short at a small fuse meets. */
export const THIN_LEAD: Gauge = '10';

const interruptsCheck: CheckOf = ({ kind, bank, fault, charging, wires }) => {
  if (!kind || !bank) return undefined;
  const ratedInto = interruptsAt(kind, charging);
  const says =
    `Interrupting rating ${ratedInto.toLocaleString('en-US')} A at ${charging.toFixed(0)} V; ` +
    `available fault current about ${(Math.ceil(fault.near / 100) * 100).toLocaleString('en-US')} A.`;
  if (ratedInto >= fault.near) return { id: 'interrupts', verdict: 'good', says };
  // A small fuse on a thin lead: the fuse’s own element and its lead hold the short down. Common practice allows it.
  const thin = ratedInto > 0 && wires.every((c) => wireArea(c.gauge) <= wireArea(THIN_LEAD));
  return thin
    ? {
        id: 'interrupts',
        verdict: 'watch',
        says: `${says} An in-line holder on a thin lead is common practice; a fuse block behind the main fuse is better.`,
      }
    : { id: 'interrupts', verdict: 'bad', says: `${says} Take a kind that opens into more.` };
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

const placeCheck: CheckOf = ({ bank, near, rules: { fuseWithin } }) => {
  if (!bank) return undefined;
  if (near.metres <= fuseWithin.guide)
    return {
      id: 'place',
      verdict: 'good',
      says: `${lengthInBoth(near.metres)} of cable from ${bank.name}.`,
    };
  return {
    id: 'place',
    verdict: near.metres <= fuseWithin.most ? 'watch' : 'bad',
    says: `${lengthInBoth(near.metres)} of cable from ${bank.name} is unprotected; ${fuseWithin.says}.`,
  };
};

const clearsCheck: CheckOf = ({ bank, fault, opens, bears, shorts }) => {
  if (!bank) return undefined;
  const slow = shorts.find((a) => opens(a) > bears(a));
  const within = (amps: number) => `${inSeconds(opens(amps))}, the wire stands ${inSeconds(bears(amps))}.`;
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
    holds ? `: it stands that ${inSeconds(quickest)}.` : `: it may open within ${inSeconds(quickest)}.`,
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
function weakestOf({ rating, window, wires, weakest, shorts, opens, rules }: Facts): FuseCheck['weakest'] {
  const carries = (c: Conductor, g: Gauge) => fuseLimit(wireSpecOf(c, g), rules).amps;
  const first =
    rating > window.to ? wires.reduce((a, b) => (carries(b, b.gauge) < carries(a, a.gauge) ? b : a)) : weakest;
  const named = { id: first.id, name: first.name };
  const thicker =
    rating > 0
      ? gaugesOf(gaugeFamily(first.gauge)).find(
          (g) =>
            wireArea(g) > wireArea(first.gauge) &&
            carries(first, g) >= rating &&
            shorts.every((a) => opens(a) <= bearsOf(first, a, g)),
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

/** Every fuse and breaker of a rig, checked. @param loads A of each wire, by its id. @param rules of the place. */
export function fuseChecks(rig: Rig, loads: ReadonlyMap<string, WireLoad>, rules: RuleSet): FuseCheck[] {
  const crank = crankShare(rig);
  // One on nothing, a spare on its shelf, protects nothing.
  const wired = (p: Part) =>
    rig.conductors.some((c) => c.use !== 'return' && [c.from, c.to].some((e) => e.part === p.id));
  return rig.parts
    .filter((p) => isFuseOrBreaker(p) && wired(p))
    .map((part): FuseCheck => {
      const facts = factsOf(rig, part, loads, crank, rules);
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
