/**
 * Each fuse and breaker of a rig against its load, its wire and its bank: window, volts, what it must
 * interrupt, where it sits, and whether it opens before a short harms the wire.
 */
import { chemistryOf, bankOhms, bankRestVolts } from '../parts/chemistry';
import { BREAKER_TYPES } from '../parts/entries/inline';
import { isFuseOrBreaker, fuseKind, opensAtEarliest, opensAtLatest, type FuseKind } from '../parts/fuses';
import { is, nominalOf, partKind, partOptions } from '../parts/kinds';
import { tripSeconds } from '../control/breaker';
import { follow, type Step } from '../rig/follow';
import type { Conductor, Part, Rig } from '../rig/schema';
import { CRANK_SECONDS, crankShare } from './crankShare';
import { insulationOf, placeOf } from './gaugeTable';
import { fuseWindow, type FuseWindow } from './protect';
import { ratingOf } from './rating';
import { bearsSeconds } from './shortCircuit';
import type { WireLoad } from './wireLoads';
import { ampacity } from '../units/ampacity';
import { gaugeFamily, gaugesOf, wireArea, type Gauge } from '../units/wire';

export interface Check {
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
  /** The one of them it fails first, and the thinnest gauge in its place that it protects; none where that is far thicker: a branch wants a fuse of its own. */
  weakest: { id: string; name: string; thicker?: Gauge };
  /** A a dead short just behind it, and one at the far end, would draw. */
  fault: { near: number; far: number };
  checks: Check[];
  /** Seconds against amps: the fuse at its slowest, and the weakest wire. */
  curves: { amps: number; fuse: number; wire: number }[];
}

/** m from a battery within which a fuse belongs: 7 in, 33 CFR 183.455 for boats, the common guide for RVs. */
const WITHIN = 0.18;
/** V of a 12 V system while it is being charged hard; 58 V of a 48 V one (common practice). */
const CHARGING = 14.5;

/** Copper of a size over the next thinner one sold, two AWG numbers apart (ASTM B258); how many sizes thicker a wire is made for its fuse. */
const ONE_STEP = 92 ** (4 / 39);
const STEPS_AT_MOST = 2.5;

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
const isPigtail = ({ part, conductor }: Step): boolean => isFuseOrBreaker(part) && conductor.length <= WITHIN;

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
  (CHARGING *
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

/** Every fuse and breaker of a rig, checked. */
export function fuseChecks(rig: Rig, loads: ReadonlyMap<string, WireLoad>): FuseCheck[] {
  const crank = crankShare(rig);
  return rig.parts.filter(isFuseOrBreaker).map((part): FuseCheck => {
    const sides = [reach(rig, part, 'source'), reach(rig, part, 'load')] as const;
    const near = sides[0].metres <= sides[1].metres ? sides[0] : sides[1];
    const far = near === sides[0] ? sides[1] : sides[0];
    const rating = ratingOf(part);
    const breaker = is(part, 'breaker');
    const kind: FuseKind | undefined = breaker ? undefined : fuseKind(partOptions(partKind(part.kind), part)['type']!);
    const touching = rig.conductors.filter(
      (c) => c.use === 'feed' && (c.from.part === part.id || c.to.part === part.id),
    );
    const continuous = Math.max(0, ...touching.map((c) => loads.get(c.id)?.continuous ?? 0));
    const protectedWires = far.wires.length > 0 ? far.wires : touching;
    const window = fuseWindow(
      Math.max(continuous, 0.1),
      protectedWires.map((c) => ({ gauge: c.gauge, insulation: insulationOf(c), place: placeOf(c) })),
      kind,
    );
    const weakest = protectedWires.reduce((a, b) =>
      bearsSeconds(b.gauge, insulationOf(b), 1000) < bearsSeconds(a.gauge, insulationOf(a), 1000) ? b : a,
    );
    const bank = near.battery;
    const nearFault = bank ? faultAmps(rig, bank, near.ohms) : 0;
    const farFault = bank ? faultAmps(rig, bank, near.ohms + far.farthest) : 0;
    const opens = (amps: number) =>
      rating <= 0 ? Infinity : breaker ? tripSeconds(amps / rating) : opensAtLatest(kind!, amps / rating);
    const bears = (amps: number) => bearsSeconds(weakest.gauge, insulationOf(weakest), amps);
    // The battery that can feed it says its volts: a 48 V trailer has 12 V lines too.
    const charging = bank ? chargingVolts(rig, bank) : CHARGING;
    const checks: Check[] = [];
    const say = (id: Check['id'], verdict: Check['verdict'], says: string) => checks.push({ id, verdict, says });

    if (rating <= 0) say('window', 'bad', 'Its rating is not known: read it off the body and put it in under Rig.');
    else if (rating > window.to)
      say(
        'window',
        'bad',
        `${rating} A is more than the ${window.to.toFixed(0)} A its weakest wire carries: the wire is the fuse.`,
      );
    else if (rating < continuous)
      say('window', 'bad', `${rating} A is less than the ${continuous.toFixed(1)} A it carries for hours.`);
    else if (rating < window.from)
      say(
        'window',
        'watch',
        `Tight: ${continuous.toFixed(1)} A for hours asks for ${window.from.toFixed(0)} A or more.`,
      );
    else say('window', 'good', `${rating} A lies between ${window.from.toFixed(0)} and ${window.to.toFixed(0)} A.`);

    if (kind) {
      if (rating > 0 && !kind.ratings.includes(rating))
        say(
          'made',
          'bad',
          `${kind.label} is not made as ${rating} A: ${kind.ratings.filter((r) => r > rating)[0] ?? kind.ratings[kind.ratings.length - 1]} A is the next.`,
        );
      say(
        'volts',
        kind.volts >= charging ? 'good' : 'bad',
        kind.volts >= charging
          ? `Made for ${kind.volts} V, ${charging.toFixed(0)} V while charging.`
          : `Made for ${kind.volts} V: at ${charging.toFixed(0)} V its arc may hold. Take one of 58 V or more.`,
      );
      if (bank)
        say(
          'interrupts',
          kind.interrupts >= nearFault ? 'good' : 'bad',
          kind.interrupts >= nearFault
            ? `Opens into ${kind.interrupts} A; ${bank.name} can push ${nearFault.toFixed(0)} A.`
            : `${bank.name} can push ${nearFault.toFixed(0)} A into a short, this kind opens into ${kind.interrupts} A: take a class T fuse.`,
        );
    } else {
      const type = BREAKER_TYPES.find((t) => t.id === partOptions(partKind(part.kind), part)['type'])!;
      const both = sides.every((s) => s.battery);
      say(
        'type',
        type.id === 'auto' && both ? 'watch' : 'good',
        type.id === 'auto' && both
          ? 'Type I between two batteries closes onto a fault again and again, unattended: a fuse or a type III is better.'
          : `${type.label}.`,
      );
    }
    if (bank) {
      const ok = near.metres <= WITHIN;
      say(
        'place',
        ok ? 'good' : near.metres <= 1 ? 'watch' : 'bad',
        ok
          ? `${(near.metres * 100).toFixed(0)} cm of cable from ${bank.name}.`
          : `${near.metres.toFixed(1)} m of cable from ${bank.name}: that much is unprotected, 0.18 m is the guide.`,
      );
      const slow = [farFault, nearFault].find((a) => opens(a) > bears(a));
      say(
        'clears',
        slow === undefined ? 'good' : 'bad',
        slow === undefined
          ? `A short at the far end draws ${farFault.toFixed(0)} A: open within ${inSeconds(opens(farFault))}, the wire bears ${inSeconds(bears(farFault))}.`
          : `At ${slow.toFixed(0)} A it may take ${inSeconds(opens(slow))}, the wire bears ${inSeconds(bears(slow))}.`,
      );
    }
    if (crank?.through.includes(part.id) && rating > 0) {
      const quickest = breaker ? tripSeconds(crank.amps / rating) : opensAtEarliest(kind!, crank.amps / rating);
      const holds = quickest >= CRANK_SECONDS;
      const bms = crank.bmsLimit !== undefined && crank.amps > crank.bmsLimit;
      say(
        'crank',
        holds && !bms ? 'good' : 'watch',
        `Cranking with boost held, ${crank.amps.toFixed(0)} of the starter’s ${crank.starter.toFixed(0)} A come this way${holds ? `: it bears that ${inSeconds(quickest)}.` : `: it may open within ${inSeconds(quickest)}.`}${bms ? ` ${crank.donor.name}’s BMS may let out only about ${crank.bmsLimit!.toFixed(0)} A.` : ''}${holds && !bms ? '' : ' On the owner’s card: hold boost to charge, wait, release, then crank.'}`,
      );
    }
    const carries = (c: Conductor, g: Gauge) => ampacity(g, insulationOf(c), placeOf(c));
    const first =
      rating > window.to
        ? protectedWires.reduce((a, b) => (carries(b, b.gauge) < carries(a, a.gauge) ? b : a))
        : weakest;
    const thicker =
      rating > 0
        ? gaugesOf(gaugeFamily(first.gauge)).find(
            (g) =>
              wireArea(g) > wireArea(first.gauge) &&
              carries(first, g) >= rating &&
              [farFault, nearFault].every((a) => opens(a) <= bearsSeconds(g, insulationOf(first), a)),
          )
        : undefined;
    const steps =
      thicker === undefined ? Infinity : Math.log(wireArea(thicker) / wireArea(first.gauge)) / Math.log(ONE_STEP);
    const curves: FuseCheck['curves'] = [];
    if (rating > 0)
      for (let m = 1.35; m <= 60; m *= 1.2)
        curves.push({ amps: rating * m, fuse: opens(rating * m), wire: bears(rating * m) });
    return {
      part: part.id,
      name: part.name,
      rating,
      kind: kind?.label ?? 'Breaker',
      continuous,
      window,
      protects: protectedWires.map((c) => c.id),
      weakest: { id: first.id, name: first.name, ...(thicker && steps < STEPS_AT_MOST ? { thicker } : {}) },
      fault: { near: nearFault, far: farFault },
      checks,
      curves,
    };
  });
}
