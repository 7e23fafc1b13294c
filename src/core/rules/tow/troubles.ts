/**
 * What can go wrong when vehicle and trailer are coupled: a row looks at the interface and at the coupled rig
 * solved in every situation, and says what it saw in numbers. Limits are common practice unless named.
 */
import { startLimitSoc } from '../../size/calculators/batteries';
import { positionShown } from '../../parts/connectors';
import { pinFeed, pinUse, type UseId } from '../../parts/pinUses';
import type { TowInterface } from '../../rig/tow';
import { RULE_SETS, USUAL_JURISDICTION } from '../../codes';
import { cited, type RuleSet } from '../../codes/ruleSet';
import { gaugeFamily, gaugeName, wireArea, type Gauge } from '../../units/wire';
import { inWordsQuantity } from '../../units/quantity';
import type { Severity } from '../rule';
import type { TowSituation } from '../../compile/tow/situations';
import { feeds, waysOf, type Way } from '../../compile/tow/ways';
import { wayFuseLimit } from './fuseLimits';
import { solveTow, type TowSolution } from '../../operate/tow/solveTow';
import { BAD_FALL_VOLTS, loadedFall, readPin } from './pinReadings';
import type { TowVehicle } from '../../compile/tow/vehicle';

/** 49 CFR 393.43(d): brakes held on for at least 15 minutes; a commercial-vehicle rule used as the yardstick. */
export const BREAKAWAY_MINUTES = 15;
/** Hours a rig may stand coupled and still start: a weekend. */
export const COUPLED_HOURS = 48;
/** Hours a battery that starts no engine has to last: a night. */
const NIGHT_HOURS = 12;
/** Charge at which it counts as flat (assumed). */
const FLAT_SOC = 0.2;
/** A that may run with the engine off before it is a drain worth naming. */
const PARKED_AMPS = 1;
/** V below which a fridge element hardly heats, and magnets hardly hold. */
const FRIDGE_VOLTS = 10.5;
const FRIDGE_STAYS_ON = {
  none: 'no relay switches it',
  looped: 'its relay is looped to the feed',
  pin: 'its trigger stays live',
  wire: 'its trigger stays live',
} as const;
const BRAKE_VOLTS = 10.2;
/** V the frames may stand apart for hours. */
const RETURN_VOLTS = 0.6;
/** A that may come back over the ball for hours. */
const HITCH_AMPS = 1;
/** A into a breakaway battery on the road that counts as being charged. */
const BREAKAWAY_AMPS = 0.05;
/** Times its rating a position bears while one brakes: from memory. */
const BRIEFLY_TIMES_RATING = 1.5;
/** Share of a small lead-acid battery's charge it gives in a quarter of an hour: from memory. */
const QUICK_SHARE = 0.55;

export interface TowContext {
  tow: TowInterface;
  vehicle: TowVehicle;
  ways: Way[];
  solved: TowSolution[];
  /** Of the place. */
  rules: RuleSet;
}

export interface TowSaw {
  /** `plug.pin`, or the name of a part of the trailer. */
  at: string;
  says: string;
}

export interface TowTroubleRow {
  id: string;
  severity: Severity;
  title: string;
  why: string;
  source: string | ((rules: RuleSet) => string);
  see(c: TowContext): TowSaw[];
}
export interface TowTrouble extends TowSaw {
  id: string;
  severity: Severity;
  title: string;
  why: string;
  source: string;
}

/** mm² a size is sold as: a metric one by its name, whatever copper is in it. */
const soldAs = (gauge: Gauge): number =>
  gaugeFamily(gauge) === 'mm2' ? Number.parseFloat(gauge) : wireArea(gauge) * 1e6;

const PRACTICE = 'common practice';
const inBothMass = (kg: number): string =>
  (['m', 'ft'] as const)
    .map((length) => inWordsQuantity('mass', kg, { length, temperature: 'C', gauge: 'awg' }))
    .join(' (') + ')';
const n = (x: number, digits = 1) => x.toFixed(digits);
const in_ = (c: TowContext, id: TowSolution['situation']['id']): TowSolution =>
  c.solved.find((s) => s.situation.id === id)!;
const parked = (c: TowContext): TowSolution[] => [in_(c, 'stopped'), in_(c, 'overnight')];
const using = (c: TowContext, use: UseId): Way | undefined => c.ways.find((w) => w.way.uses.includes(use));
/** What a way is called: "pin 4 of the 7-way blade". */
export const wayName = (w: Way): string =>
  `pin ${positionShown(w.way.pin)} of the ${w.connector.label.replace(/^Two-pole, (.*)/, 'two-pole plug ($1)')}`;
const serves = (w: Way, use: UseId): boolean => (pinUse(use).served as readonly string[]).includes(w.way.feed);
/** The situation in which a position carries most, each weighed. */
const most = (
  c: TowContext,
  key: string,
  weigh: (s: TowSituation) => number = () => 1,
): { amps: number; s: TowSolution } =>
  c.solved
    .map((s) => ({ amps: Math.abs(s.ways.get(key)?.amps ?? 0), s }))
    .reduce((a, b) => (b.amps * weigh(b.s.situation) > a.amps * weigh(a.s.situation) ? b : a));

/** Minutes the breakaway battery holds the brakes. */
export const breakawayMinutes = (tow: TowInterface): number =>
  tow.breakaway && tow.brakes
    ? (tow.breakaway.capacity * tow.breakaway.soc * QUICK_SHARE * 60) / tow.brakes.amps
    : Infinity;

/** Hours until the start battery no longer starts the engine, left coupled; Infinity where nothing drains it. */
export function hoursToNoStart({ vehicle, solved }: Pick<TowContext, 'vehicle' | 'solved'>): number {
  const overnight = solved.find((s) => s.situation.id === 'overnight')!;
  if (overnight.start >= 0) return Infinity;
  const { start } = vehicle;
  return (Math.max(0, start.soc - startLimitSoc(start, vehicle.starter)) * start.capacity) / -overnight.start;
}

/** Hours until an accessory battery that gives is flat, left coupled; undefined where there is none, Infinity where it gives nothing. */
export function hoursToFlat({ vehicle, solved }: Pick<TowContext, 'vehicle' | 'solved'>): number | undefined {
  const amps = solved.find((s) => s.situation.id === 'overnight')!.accessory;
  if (!vehicle.accessory || amps === undefined) return undefined;
  const { bank } = vehicle.accessory;
  return amps >= 0 ? Infinity : (Math.max(0, bank.soc - FLAT_SOC) * bank.capacity) / -amps;
}

export const TOW_TROUBLES: readonly TowTroubleRow[] = [
  {
    id: 'tow-polarity',
    severity: 'danger',
    title: 'Plus and ground the wrong way round',
    why: 'Everything behind it sees reverse volts, or a dead short.',
    source: PRACTICE,
    see: (c) =>
      c.ways
        .filter(
          (w) =>
            readPin(w.way).reversed ||
            (w.way.feed === 'ground' && w.way.uses.some((u) => u !== 'ground')) ||
            (w.way.feed !== 'ground' && w.way.feed !== 'none' && w.way.uses.includes('ground')),
        )
        .map((w) => ({
          at: w.key,
          says: readPin(w.way).reversed
            ? `${wayName(w)} read reversed.`
            : `The vehicle supplies ${pinFeed(w.way.feed).says} at ${wayName(w)}; the trailer has ${pinUse(w.way.uses[0]!).says} there.`,
        })),
  },
  {
    id: 'tow-mismatch',
    severity: 'will not work',
    title: 'The same plug wired differently',
    why: 'A plug that mates is not a match: the pin doesn’t supply what the trailer needs.',
    source: PRACTICE,
    see: (c) =>
      c.ways.flatMap((w) =>
        w.way.feed === 'none' || w.way.feed === 'ground'
          ? []
          : w.way.uses
              .filter((u) => u !== 'ground' && !serves(w, u) && !(pinUse(u).power && lampFeed(w)))
              .map((u) => ({
                at: w.key,
                says: `${wayName(w)} supplies ${pinFeed(w.way.feed).says}; the trailer needs ${pinUse(u)
                  .served.map((f) => pinFeed(f).label)
                  .join(' or ')} there for ${pinUse(u).says}.`,
              })),
      ),
  },
  {
    id: 'tow-lamp-power',
    severity: 'danger',
    title: 'A lamp circuit used as power',
    why: 'It is fused, wired and switched for lamps: it blows, or the road goes dark.',
    source: PRACTICE,
    see: (c) =>
      c.ways.filter(lampFeed).flatMap((w) =>
        w.way.uses
          .filter((u) => pinUse(u).power)
          .map((u) => ({
            at: w.key,
            says: `${pinUse(u).says} is fed from ${pinFeed(w.way.feed).says}, ${wayName(w)}.`,
          })),
      ),
  },
  {
    id: 'tow-unfed',
    severity: 'will not work',
    title: 'A pin without a feed',
    why: 'Nobody fitted its fuse, relay or wire.',
    source: PRACTICE,
    see: (c) =>
      c.ways
        .filter((w) => w.way.feed === 'none')
        .flatMap((w) =>
          w.way.uses.map((u) => ({
            at: w.key,
            says: `The vehicle supplies nothing at ${wayName(w)}; the trailer wants ${pinUse(u)
              .served.map((f) => pinFeed(f).label)
              .join(' or ')} for ${pinUse(u).says}.`,
          })),
        ),
  },
  {
    id: 'tow-no-ground',
    severity: 'will not work',
    title: 'No ground through the plug',
    why: 'The ball and grease are no return.',
    source: PRACTICE,
    see: (c) =>
      c.ways.some((w) => w.way.feed === 'ground' && w.way.uses.includes('ground'))
        ? []
        : [{ at: `${c.tow.plugs[0]!.id}`, says: 'No pin is ground on both sides.' }],
  },
  {
    id: 'tow-chained',
    severity: 'will not work',
    title: 'A charger fed by another charger’s battery',
    why: 'The first cannot keep up, that battery sinks, both drop out.',
    source: PRACTICE,
    see: (c) => fromAccessory(c, 'charger'),
  },
  {
    id: 'tow-fridge-chained',
    severity: 'will not work',
    title: 'A fridge element on a charged battery',
    why: '23–25 A continuous is more than its charger keeps up with.',
    source: PRACTICE,
    see: (c) => fromAccessory(c, 'fridge'),
  },
  {
    id: 'tow-fridge-parked',
    severity: 'danger',
    title: 'Fridge element stays on after you park',
    why: 'Its feed must stop with the ignition: by the feed itself, or by its relay’s trigger.',
    source: PRACTICE,
    see: (c) => {
      const w = using(c, 'fridge');
      const worst = parked(c).find((s) => s.fridgeOn);
      return w && worst
        ? [
            {
              at: w.key,
              says:
                `${n(worst.uses.get('fridge')!.amps)} A ${worst.situation.label}: ` +
                `${w.way.feed === 'constant' ? 'the feed is constant' : 'the feed stays live'} and ` +
                `${FRIDGE_STAYS_ON[c.tow.fridge!.trigger]}.`,
            },
          ]
        : [];
    },
  },
  {
    id: 'tow-trigger-double',
    severity: 'tidy',
    title: 'The fridge feed switched twice',
    why: 'Exactly one of feed and trigger wants to go with the ignition: two are twice the places to fail.',
    source: PRACTICE,
    see: (c) => {
      const w = using(c, 'fridge');
      const trigger = using(c, 'fridge-trigger');
      return w &&
        trigger &&
        c.tow.fridge?.trigger === 'pin' &&
        w.way.feed === 'ignition' &&
        trigger.way.feed === 'ignition'
        ? [
            {
              at: trigger.key,
              says: `Feed (${wayName(w)}) and trigger (${wayName(trigger)}) both go with the ignition.`,
            },
          ]
        : [];
    },
  },
  {
    id: 'tow-fridge-dead',
    severity: 'will not work',
    title: 'Low voltage at the fridge element',
    why: 'Heat falls with the square of the volts.',
    source: PRACTICE,
    see: (c) => {
      const w = using(c, 'fridge');
      const road = in_(c, 'road').uses.get('fridge');
      if (!w || !road) return [];
      if (!in_(c, 'road').fridgeOn)
        return unfed(w)
          ? []
          : [
              {
                at: w.key,
                says:
                  c.tow.fridge!.trigger === 'pin' && !feeds(c.ways, 'fridge-trigger', in_(c, 'road').situation)
                    ? 'Its relay never closes: no live pin feeds its coil.'
                    : `No current on the road, ${n(road.volts)} V.`,
              },
            ];
      return road.volts < FRIDGE_VOLTS
        ? [
            {
              at: w.key,
              says: `${n(road.volts)} V of ${FRIDGE_VOLTS} V at the element on the road, ${n(road.amps)} A.`,
            },
          ]
        : [];
    },
  },
  {
    id: 'tow-brake-converter',
    severity: 'danger',
    title: 'Brakes behind a converter',
    why: 'When it stops, so do the brakes: they need a fused feed of their own.',
    source: PRACTICE,
    see: (c) =>
      c.tow.brakes?.supply === 'converter'
        ? [{ at: 'brakes', says: 'The brakes are fed by a converter in the trailer.' }]
        : [],
  },
  {
    id: 'tow-brake-weak',
    severity: 'danger',
    title: 'Brakes that get too little',
    why: 'Magnets hold with the square of their current.',
    source: PRACTICE,
    see: (c) => {
      const w = using(c, 'brakes');
      if (!c.tow.brakes || c.tow.brakes.supply !== 'pin') return [];
      if (!w) return [{ at: 'brakes', says: 'No pin of the plug feeds the brakes.' }];
      const got = in_(c, 'braking').uses.get('brakes')?.volts ?? 0;
      return got < BRAKE_VOLTS
        ? [
            {
              at: w.key,
              says: `${n(Math.max(0, got))} V at the magnets with the brakes full on, ${BRAKE_VOLTS} V wanted.`,
            },
          ]
        : [];
    },
  },
  {
    id: 'tow-brake-live',
    severity: 'danger',
    title: 'Brakes on with nobody braking',
    why: 'Magnets burn, drums cook.',
    source: PRACTICE,
    see: (c) => {
      const w = using(c, 'brakes');
      const dragging =
        w &&
        c.tow.brakes?.supply === 'pin' &&
        c.solved.find((s) => !s.situation.braking && (s.uses.get('brakes')?.amps ?? 0) > 0.5);
      return dragging
        ? [
            {
              at: w.key,
              says:
                `${n(dragging.uses.get('brakes')!.amps)} A in the magnets ` +
                `${dragging.situation.label}: ${wayName(w)} gives ${pinFeed(w.way.feed).says}.`,
            },
          ]
        : [];
    },
  },
  {
    id: 'tow-breakaway-uncharged',
    severity: 'danger',
    title: 'A breakaway battery without charge',
    why: 'It is fed from the charge line, or from nothing.',
    source: PRACTICE,
    see: (c) => {
      if (!c.tow.breakaway || c.tow.breakaway.keeper) return [];
      const w = using(c, 'breakaway');
      if (!w) return [{ at: 'breakaway', says: 'No pin charges it.' }];
      const amps = in_(c, 'road').uses.get('breakaway')?.amps ?? 0;
      return amps < BREAKAWAY_AMPS && !unfed(w)
        ? [
            {
              at: w.key,
              says:
                `${n(Math.max(0, amps), 2)} A into it on the road: the line gives it ` +
                `${n(in_(c, 'road').ways.get(w.key)!.plug - in_(c, 'road').returnVolts)} V.`,
            },
          ]
        : [];
    },
  },
  {
    id: 'tow-breakaway-short',
    severity: 'danger',
    title: 'Breakaway battery won’t hold the brakes long enough',
    why: 'It must hold the brakes on until somebody has stopped the traffic.',
    source: '49 CFR 393.43 (15 minutes)',
    see: (c) => {
      const minutes = breakawayMinutes(c.tow);
      return minutes < BREAKAWAY_MINUTES
        ? [
            {
              at: 'breakaway',
              says: `${n(minutes, 0)} min at ${n(c.tow.brakes!.amps)} A, ${BREAKAWAY_MINUTES} min wanted.`,
            },
          ]
        : [];
    },
  },
  {
    id: 'tow-breakaway-missing',
    severity: 'danger',
    title: 'No breakaway battery on a trailer this heavy',
    why: 'A trailer that tears off has nothing to put its brakes on with.',
    source: (rules) => cited(rules.breakaway.from),
    see: (c) => {
      const { fromKg } = c.rules.breakaway;
      const { mass } = c.tow;
      return mass !== undefined && fromKg !== undefined && mass >= fromKg && !c.tow.breakaway
        ? [
            {
              at: 'breakaway',
              says: `${inBothMass(mass)} loaded, none fitted; wanted from ${inBothMass(fromKg)} here. ${c.rules.breakaway.says}`,
            },
          ]
        : [];
    },
  },
  {
    id: 'tow-thin-by-code',
    severity: 'wears out',
    title: 'Wire thinner than the code of the connector',
    why: 'The line is cut for the pin it serves, whatever hangs on it today.',
    source: (rules) => (rules.pinCopper ? cited(rules.pinCopper.from) : PRACTICE),
    see: (c) => {
      const { pinCopper } = c.rules;
      if (!pinCopper) return [];
      return c.ways
        .filter((w) => w.plug.connector === pinCopper.connector && (w.way.uses.length > 0 || w.way.feed !== 'none'))
        .flatMap((w) => {
          const least = pinCopper.square[w.way.pin] ?? pinCopper.otherwise;
          const thin = ([w.way.gauge, w.way.usesGauge] as const).filter((g) => soldAs(g) < least);
          return thin.length > 0
            ? [{ at: w.key, says: `${gaugeName(thin[0]!)} at ${wayName(w)}; at least ${n(least)} mm² there.` }]
            : [];
        });
    },
  },
  {
    id: 'tow-pin-overload',
    severity: 'danger',
    title: 'Overloaded pin',
    why: 'It melts its housing from inside.',
    source: 'ratings of the connectors, from memory',
    see: (c) =>
      c.ways.flatMap((w) => {
        const bears = w.connector.positions.find((p) => p.id === w.way.pin)!.amps;
        const { amps, s } = most(c, w.key, (x) => (x.braking ? 1 / BRIEFLY_TIMES_RATING : 1));
        return amps > bears * (s.situation.braking ? BRIEFLY_TIMES_RATING : 1)
          ? [{ at: w.key, says: `${n(amps)} A through ${wayName(w)} ${s.situation.label}; rated ${bears} A.` }]
          : [];
      }),
  },
  {
    id: 'tow-fuse-missing',
    severity: 'danger',
    title: 'Battery feed without a fuse',
    why: 'A chafed wire has nothing to stop it.',
    source: '33 CFR 183.455, common guide for RVs',
    see: (c) =>
      c.ways
        .filter((w) => (w.way.feed === 'constant' || w.way.feed === 'ignition') && !w.way.fuse)
        .map((w) => ({ at: w.key, says: `${wayName(w)}: ${gaugeName(w.way.gauge)} from the battery without a fuse.` })),
  },
  {
    id: 'tow-fuse-over-wire',
    severity: 'danger',
    title: 'Fuse too big for its wire or pin',
    why: 'The wire burns, or the pin melts its housing, before the fuse opens.',
    source: (r) =>
      `${r.smallWire ? `${cited(r.smallWire.from)}; ` : ''}33 CFR 183.425 table 5; pin ratings (from memory, all)`,
    see: (c) =>
      c.ways.flatMap((w) => {
        const limit = wayFuseLimit(w.plug, w.way, c.rules);
        return (w.way.fuse ?? 0) > limit.amps
          ? [{ at: w.key, says: `${w.way.fuse} A at ${wayName(w)}: ${limit.says}.` }]
          : [];
      }),
  },
  {
    id: 'tow-fuse-blows',
    severity: 'will not work',
    title: 'Fuse too small for its load',
    why: 'It opens on the road, some hot day.',
    source: PRACTICE,
    see: (c) =>
      c.ways.flatMap((w) => {
        const { amps, s } = most(c, w.key);
        return w.way.fuse && amps > w.way.fuse
          ? [{ at: w.key, says: `${n(amps)} A ${s.situation.label} through ${w.way.fuse} A.` }]
          : [];
      }),
  },
  {
    id: 'tow-charger-starved',
    severity: 'will not work',
    title: 'A charger starved by the line',
    why: 'Its input sags under load, it locks out, comes back, hunts.',
    source: PRACTICE,
    see: (c) => {
      const w = using(c, 'charger');
      return w && in_(c, 'road').charger === 'starved'
        ? [{ at: w.key, says: `Under its load the input falls below its lockout of ${n(c.tow.charger!.lockout)} V.` }]
        : [];
    },
  },
  {
    id: 'tow-charger-idle',
    severity: 'will not work',
    title: 'Charger never gets an enable signal',
    why: 'Its enable is never live on the road.',
    source: PRACTICE,
    see: (c) => {
      const w = using(c, 'charger');
      return w && in_(c, 'road').charger === 'off' && !unfed(w) && !lampFeed(w)
        ? [
            {
              at: w.key,
              says:
                c.tow.charger!.enable === 'pin'
                  ? 'No live pin carries its enable.'
                  : c.tow.charger!.enable === 'sense'
                    ? 'Its input never reaches what it takes for “engine on”.'
                    : 'Its input stays dead on the road.',
            },
          ]
        : [];
    },
  },
  {
    id: 'tow-charger-parked',
    severity: 'danger',
    title: 'Charger keeps running after you park',
    why: 'It pumps the start battery into the trailer.',
    source: PRACTICE,
    see: (c) => {
      const w = using(c, 'charger');
      const s = parked(c).find((p) => p.charger === 'on' && (p.uses.get('charger')?.amps ?? 0) > PARKED_AMPS);
      return w && s ? [{ at: w.key, says: `${n(s.uses.get('charger')!.amps)} A ${s.situation.label}.` }] : [];
    },
  },
  {
    id: 'tow-left-coupled',
    severity: 'danger',
    title: 'It does not start after standing coupled',
    why: 'Constant pins drain the start battery while nobody looks.',
    source: PRACTICE,
    see: (c) => {
      const hours = hoursToNoStart(c);
      return hours < COUPLED_HOURS
        ? [
            {
              at: 'start',
              says:
                `${n(-in_(c, 'overnight').start)} A out of the start battery: ` +
                `${n(hours, 0)} h until it no longer starts, ${COUPLED_HOURS} h wanted.`,
            },
          ]
        : [];
    },
  },
  {
    id: 'tow-accessory-drain',
    severity: 'will not work',
    title: 'The accessory battery runs flat while it is left coupled',
    why: 'Nothing fills it with the engine off: what hangs on it behind stops, and so does what the vehicle runs from it.',
    source: PRACTICE,
    see: (c) => {
      const hours = hoursToFlat(c) ?? Infinity;
      return hours < NIGHT_HOURS
        ? [
            {
              at: 'accessory',
              says:
                `${n(-in_(c, 'overnight').accessory!)} A out of the accessory battery: ` +
                `${n(hours, 0)} h until it is flat, ${NIGHT_HOURS} h wanted.`,
            },
          ]
        : [];
    },
  },
  {
    id: 'tow-return',
    severity: 'wears out',
    title: 'An undersized return',
    why: 'What goes out comes back: lamps dim, volts are lost, the ball arcs.',
    source: PRACTICE,
    see: (c) => {
      const worst = c.solved
        .filter((s) => !s.situation.braking)
        .reduce((a, b) => (Math.abs(b.returnVolts) > Math.abs(a.returnVolts) ? b : a));
      const thinner =
        c.ways.some((w) => w.way.uses.includes('ground')) &&
        (Math.abs(worst.returnVolts) > RETURN_VOLTS || Math.abs(worst.hitch) > HITCH_AMPS);
      const at = c.ways.find((w) => w.way.feed === 'ground')?.key ?? c.tow.plugs[0]!.id;
      return thinner
        ? [
            {
              at,
              says:
                `The frames stand ${n(Math.abs(worst.returnVolts), 2)} V apart ` +
                `${worst.situation.label}, ${n(Math.abs(worst.hitch))} A comes back over the hitch.`,
            },
          ]
        : [];
    },
  },
  {
    id: 'tow-corroded',
    severity: 'wears out',
    title: 'A pin that sags under a lamp',
    why: 'A green contact shows full volts to a meter and gives none to a load.',
    source: PRACTICE,
    see: (c) =>
      c.ways.flatMap((w) => {
        const fall = loadedFall(w.way);
        return fall !== undefined && fall > BAD_FALL_VOLTS
          ? [{ at: w.key, says: `${wayName(w)} fell ${n(fall)} V under load; over ${BAD_FALL_VOLTS} V is bad.` }]
          : [];
      }),
  },
];

function lampFeed(w: Way): boolean {
  return !pinFeed(w.way.feed).power && w.way.feed !== 'none' && w.way.feed !== 'ground';
}
function unfed(w: Way): boolean {
  return w.way.feed === 'none' || w.way.feed === 'ground';
}
function fromAccessory(c: TowContext, use: UseId): TowSaw[] {
  const w = using(c, use);
  if (!w || w.way.from !== 'accessory' || !c.vehicle.accessory) return [];
  const into = in_(c, 'road').accessory ?? 0;
  return [
    {
      at: w.key,
      says:
        `${wayName(w)} is fed by the accessory battery, which ` +
        `${into < 0 ? `loses ${n(-into)} A` : `gains only ${n(into)} A`} on the road.`,
    },
  ];
}

/** Everything that goes wrong with the rig coupled, the rows in their order. */
export function towTroubles(
  tow: TowInterface,
  vehicle: TowVehicle,
  rules: RuleSet = RULE_SETS[USUAL_JURISDICTION],
): { troubles: TowTrouble[]; solved: TowSolution[] } {
  const solved = solveTow(tow, vehicle);
  const c: TowContext = { tow, vehicle, ways: waysOf(tow), solved, rules };
  return {
    solved,
    troubles: TOW_TROUBLES.flatMap(({ see, ...row }) =>
      see(c).map((s) => ({
        ...row,
        source: typeof row.source === 'string' ? row.source : row.source(rules),
        ...s,
        says: s.says.charAt(0).toUpperCase() + s.says.slice(1),
      })),
    ),
  };
}
