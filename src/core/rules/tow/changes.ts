/**
 * What may be changed at a tow interface, smallest first: a row offers, for a trouble it can help, edits of the
 * interface with what they say in words and the minutes they take (assumed). A changed position forgets what was
 * measured there: those readings are about what it was.
 */
import type { RuleSet } from '../../codes/ruleSet';
import { connectorOf } from '../../parts/connectors';
import { pinFeed, pinUse, type FeedId, type UseId } from '../../parts/pinUses';
import { FUSE_KINDS } from '../../parts/fuses';
import type { TowInterface, TowPlug, TowWay } from '../../rig/tow';
import { wayFuseLimit } from './fuseLimits';
import { GAUGES, gaugeFamily, gaugeName, gaugesOf, type Gauge } from '../../units/wire';
import { CONTINUOUS_SHARE } from '../../size/protect';
import { DCDC_EFFICIENCY } from '../../parts/entries/dcdc';
import { wayKey, type Way } from '../../compile/tow/ways';
import { BREAKAWAY_MINUTES, breakawayMinutes, wayName, type TowContext, type TowTrouble } from './troubles';

export interface TowChange {
  id: string;
  says: string;
  minutes: number;
  tow: TowInterface;
}
interface ChangeRow {
  id: string;
  helps: readonly string[];
  minutes: number;
  offers(c: TowContext, t: TowTrouble): { key: string; says: string; tow: TowInterface }[];
}

const RATINGS = [
  ...new Set(
    FUSE_KINDS.filter((k) => k.id.startsWith('blade') || k.id.startsWith('bolt-small')).flatMap((k) => k.ratings),
  ),
].sort((a, b) => a - b);
/** Share of its rating a charger is set to draw through a position. */
const CHARGER_SHARE = 0.8;
/** Ah of the breakaway batteries one can buy: common sizes, from memory. */
const BREAKAWAY_SIZES = [5, 7, 9, 12, 18];
const OWN_PLUG_LENGTH = { vehicle: 7, trailer: 3 };
const OWN_PLUG_IDS = ['two-pole-50', 'two-pole-120', 'two-pole-175'];

/** The interface with one position changed; its readings go, unless told to stay. */
function withWay(tow: TowInterface, key: string, change: Partial<TowWay>, keep = false): TowInterface {
  return {
    ...tow,
    plugs: tow.plugs.map((plug) => ({
      ...plug,
      ways: plug.ways.map((w) => {
        if (wayKey(plug, w) !== key) return w;
        const { seen: _, ...rest } = w;
        return keep ? { ...w, ...change } : { ...rest, ...change };
      }),
    })),
  };
}
/** Takes a use off whatever it hangs on and puts it on a position, which is drawn in where nobody had wired it. */
function moved(tow: TowInterface, use: UseId, plug: string, pin: string, gauge: Gauge, length: number): TowInterface {
  return {
    ...tow,
    plugs: tow.plugs.map((p) => {
      const without = p.ways.map((w) =>
        w.uses.includes(use) && !(p.id === plug && w.pin === pin) ? { ...w, uses: w.uses.filter((u) => u !== use) } : w,
      );
      if (p.id !== plug) return { ...p, ways: without };
      return {
        ...p,
        ways: without.some((w) => w.pin === pin)
          ? without.map((w) => (w.pin === pin && !w.uses.includes(use) ? { ...w, uses: [...w.uses, use] } : w))
          : [
              ...without,
              { pin, feed: 'none' as const, gauge, length, uses: [use], usesGauge: gauge, usesLength: length },
            ],
      };
    }),
  };
}
const at = (c: TowContext, t: TowTrouble): Way | undefined => c.ways.find((w) => w.key === t.at);
const thicker = (g: Gauge, most: Gauge): Gauge | undefined => {
  // Of its own family, and of AWG the even sizes only: what a shop keeps.
  const family = gaugesOf(gaugeFamily(g));
  const next = family.slice(family.indexOf(g) + 1).find((x) => x !== '1' && x !== '3/0');
  return next && GAUGES.indexOf(next) <= GAUGES.indexOf(most) ? next : undefined;
};
/** Smallest fuse over a load that still protects its wires and its pin. */
export function fuseFor(
  amps: number,
  plug: Pick<TowPlug, 'connector'>,
  way: TowWay,
  rules: RuleSet,
): number | undefined {
  const bears = wayFuseLimit(plug, way, rules).amps;
  return (
    RATINGS.find((r) => r * CONTINUOUS_SHARE >= amps && r <= bears) ?? RATINGS.find((r) => r >= amps && r <= bears)
  );
}
const mostAmps = (c: TowContext, key: string): number =>
  Math.max(0, ...c.solved.map((s) => Math.abs(s.ways.get(key)?.amps ?? 0)));
const fedWays = (c: TowContext): Way[] => c.ways.filter((w) => w.way.feed === 'constant' || w.way.feed === 'ignition');
/** A two-pole plug beside the others, carrying one use from the start battery. */
function ownPlug(
  tow: TowInterface,
  use: UseId,
  amps: number,
  feed: 'constant' | 'ignition',
  rules: RuleSet,
): TowInterface | undefined {
  const connector = OWN_PLUG_IDS.map(connectorOf).find((x) => x.positions[0]!.amps * CONTINUOUS_SHARE >= amps);
  if (!connector || tow.plugs.length >= 3) return undefined;
  const gauge: Gauge = amps <= 25 ? '8' : amps <= 40 ? '6' : amps <= 70 ? '4' : '2';
  const wire = { gauge, length: OWN_PLUG_LENGTH.vehicle, usesGauge: gauge, usesLength: OWN_PLUG_LENGTH.trailer };
  const id = `own-${use}`;
  if (tow.plugs.some((p) => p.id === id)) return undefined;
  const plus: TowWay = { pin: 'plus', feed, fuse: 0, uses: [use], ...wire };
  const fuse = fuseFor(amps, { connector: connector.id }, plus, rules);
  if (fuse === undefined) return undefined;
  const plug: TowPlug = {
    id,
    connector: connector.id,
    convention: 'usual',
    ways: [
      { ...plus, fuse },
      { pin: 'minus', feed: 'ground', uses: ['ground'], ...wire },
    ],
  };
  return {
    ...tow,
    plugs: [
      ...tow.plugs.map((p) => ({ ...p, ways: p.ways.map((w) => ({ ...w, uses: w.uses.filter((u) => u !== use) })) })),
      plug,
    ],
  };
}
/** A it wants through its own plug: what it draws on the road, or would. */
const wants = (c: TowContext, use: UseId): number =>
  use === 'charger' && c.tow.charger
    ? Math.min(c.tow.charger.inLimit, (c.tow.charger.amps * c.tow.charger.outVolts) / DCDC_EFFICIENCY / 12.5)
    : use === 'fridge' && c.tow.fridge
      ? c.tow.fridge.watts / 12
      : 20;
/** The use a trouble is about, where its position carries several. */
const culprit = (w: Way): UseId[] => w.way.uses.filter((u) => pinUse(u).power);
const feedOf = (use: UseId): FeedId => pinUse(use).served[0]!;

export const TOW_CHANGES: readonly ChangeRow[] = [
  {
    id: 'switch-with-ignition',
    minutes: 35,
    helps: ['tow-fridge-parked', 'tow-left-coupled', 'tow-charger-parked', 'tow-mismatch'],
    offers: (c, t) =>
      (t.at === 'start' ? fedWays(c) : [at(c, t)])
        .filter((w): w is Way => w?.way.feed === 'constant')
        .map((w) => ({
          key: w.key,
          says: `Put the feed of ${wayName(w)} on an ignition-switched relay.`,
          tow: withWay(c.tow, w.key, { feed: 'ignition' }),
        })),
  },
  {
    id: 'make-constant',
    minutes: 20,
    helps: ['tow-trigger-double'],
    offers: (c) =>
      c.ways
        .filter((w) => w.way.uses.includes('fridge') && w.way.feed === 'ignition')
        .map((w) => ({
          key: w.key,
          says: `Feed ${wayName(w)} constantly; its trigger switches it.`,
          tow: withWay(c.tow, w.key, { feed: 'constant' }),
        })),
  },
  {
    id: 'feed-from-start',
    minutes: 60,
    helps: ['tow-chained', 'tow-fridge-chained'],
    offers: (c, t) =>
      [at(c, t)]
        .filter((w): w is Way => w?.way.from === 'accessory')
        .map((w) => ({
          key: w.key,
          says: `Feed ${wayName(w)} from the start battery, past the van’s charger.`,
          // The start battery lies farther from the socket: its cable is as much longer.
          tow: withWay(c.tow, w.key, {
            from: 'start',
            length: w.way.length + (c.vehicle.accessory?.metresToStart ?? 0),
          }),
        })),
  },
  {
    id: 'feed-fitted',
    minutes: 40,
    helps: [
      'tow-unfed',
      'tow-charger-idle',
      'tow-fridge-dead',
      'tow-mismatch',
      'tow-polarity',
      'tow-brake-live',
      'tow-lamp-power',
    ],
    offers: (c, t) => {
      const w = at(c, t);
      if (!w || w.way.uses.length === 0) return [];
      const feeds = [...new Set(w.way.uses.map(feedOf))].filter((f) => f !== w.way.feed);
      return [
        ...feeds,
        ...(feeds.includes('ignition') || feeds.includes('constant')
          ? (['ignition', 'constant'] as const).filter((f) => !feeds.includes(f) && f !== w.way.feed)
          : []),
      ].map((feed) => ({
        key: `${w.key} ${feed}`,
        says: `Wire the vehicle’s side of ${wayName(w)} to ${pinFeed(feed).label}.`,
        tow: withWay(c.tow, w.key, {
          feed,
          ...(feed === 'constant' || feed === 'ignition'
            ? { fuse: fuseFor(Math.max(10, mostAmps(c, w.key)), w.plug, w.way, c.rules) ?? 10 }
            : {}),
        }),
      }));
    },
  },
  {
    id: 'use-moved',
    minutes: 25,
    helps: [
      'tow-mismatch',
      'tow-lamp-power',
      'tow-unfed',
      'tow-polarity',
      'tow-breakaway-uncharged',
      'tow-brake-weak',
      'tow-brake-live',
      'tow-fridge-dead',
      'tow-charger-idle',
      'tow-no-ground',
    ],
    offers: (c, t) => {
      const w = at(c, t);
      const uses: UseId[] =
        t.at === 'breakaway'
          ? ['breakaway']
          : t.at === 'brakes'
            ? ['brakes']
            : t.id === 'tow-no-ground'
              ? ['ground']
              : (w?.way.uses ?? []);
      return uses.flatMap((use) =>
        c.ways
          .filter(
            (x) =>
              x.key !== t.at &&
              (pinUse(use).served as readonly string[]).includes(x.way.feed) &&
              !x.way.uses.includes(use) &&
              (use === 'ground' ? x.way.uses.length === 0 : !x.way.uses.includes('ground')),
          )
          .map((x) => ({
            key: `${use} ${x.key}`,
            says: `Move ${pinUse(use).says} to ${wayName(x)}, which gives ${pinFeed(x.way.feed).label}.`,
            tow: moved(c.tow, use, x.plug.id, x.way.pin, x.way.usesGauge, x.way.usesLength),
          })),
      );
    },
  },
  {
    id: 'feeds-swapped',
    minutes: 15,
    helps: ['tow-mismatch', 'tow-polarity', 'tow-brake-live'],
    offers: (c, t) => {
      const w = at(c, t);
      if (!w) return [];
      return c.ways
        .filter(
          (x) =>
            x.key !== w.key &&
            x.plug.id === w.plug.id &&
            x.way.feed !== w.way.feed &&
            w.way.uses.some((u) => (pinUse(u).served as readonly string[]).includes(x.way.feed)),
        )
        .map((x) => {
          const side = ({ feed, from, fuse }: TowWay): Partial<TowWay> => ({
            feed,
            ...(from ? { from } : {}),
            ...(fuse !== undefined ? { fuse } : {}),
          });
          const bare = (way: TowWay): TowWay => {
            const { from: _f, fuse: _u, ...rest } = way;
            return rest;
          };
          const cleared: TowInterface = {
            ...c.tow,
            plugs: c.tow.plugs.map((p) => ({
              ...p,
              ways: p.ways.map((y) => (wayKey(p, y) === w.key || wayKey(p, y) === x.key ? bare(y) : y)),
            })),
          };
          return {
            key: [w.key, x.key].sort().join(' '),
            says: `Swap the vehicle’s wires of ${wayName(w)} and ${wayName(x)}.`,
            tow: withWay(withWay(cleared, w.key, side(x.way)), x.key, side(w.way)),
          };
        });
    },
  },
  {
    id: 'leads-reversed',
    minutes: 15,
    helps: ['tow-polarity'],
    offers: (c, t) => {
      const w = at(c, t);
      const measured = w?.way.seen?.some((s) => s.open < -9);
      return w && measured
        ? [
            {
              key: w.plug.id,
              says: `Swap plus and ground of the ${w.connector.label} on the vehicle’s side.`,
              tow: {
                ...c.tow,
                plugs: c.tow.plugs.map((p) =>
                  p.id === w.plug.id ? { ...p, ways: p.ways.map(({ seen: _, ...rest }) => rest) } : p,
                ),
              },
            },
          ]
        : [];
    },
  },
  {
    id: 'trigger',
    minutes: 15,
    helps: ['tow-fridge-parked', 'tow-trigger-double', 'tow-fridge-dead', 'tow-left-coupled'],
    offers: (c, t) => {
      const { fridge } = c.tow;
      if (!fridge || (t.at === 'start' && !c.solved.some((s) => s.fridgeOn && !s.situation.engine))) return [];
      const looped = {
        key: 'looped',
        says: 'Loop the fridge relay’s coil to its feed in the trailer.',
        tow: without({ ...c.tow, fridge: { ...fridge, trigger: 'looped' as const } }, 'fridge-trigger'),
      };
      const pins = c.ways
        .filter((w) => w.way.feed === 'ignition' && !w.way.uses.includes('ground') && !w.way.uses.includes('fridge'))
        .map((w) => ({
          key: w.key,
          says: `Put the fridge relay’s coil on ${wayName(w)}, which goes with the ignition.`,
          tow: moved(
            { ...c.tow, fridge: { ...fridge, trigger: 'pin' as const } },
            'fridge-trigger',
            w.plug.id,
            w.way.pin,
            '16',
            w.way.usesLength,
          ),
        }));
      return [
        ...(fridge.trigger === 'looped' ? [] : [looped]),
        ...pins.filter((p) => JSON.stringify(p.tow) !== JSON.stringify(c.tow)),
      ];
    },
  },
  {
    id: 'enable-by-ignition',
    minutes: 45,
    helps: ['tow-charger-parked', 'tow-charger-idle', 'tow-left-coupled'],
    offers: (c) =>
      c.tow.charger && c.tow.charger.enable !== 'wire'
        ? [
            {
              key: 'wire',
              says: 'Run an ignition wire to the charger’s enable.',
              tow: without({ ...c.tow, charger: { ...c.tow.charger, enable: 'wire' as const } }, 'charger-enable'),
            },
          ]
        : [],
  },
  {
    id: 'brakes-own-feed',
    minutes: 50,
    helps: ['tow-brake-converter'],
    offers: (c) => {
      if (!c.tow.brakes) return [];
      const pin = c.ways.find((w) => w.way.feed === 'brake');
      const tow = { ...c.tow, brakes: { ...c.tow.brakes, supply: 'pin' as const } };
      return [
        {
          key: 'pin',
          says: `Feed the brakes from the brake controller through the plug${pin ? `, ${wayName(pin)}` : ''}.`,
          tow: pin ? moved(tow, 'brakes', pin.plug.id, pin.way.pin, '12', pin.way.usesLength) : tow,
        },
      ];
    },
  },
  {
    id: 'breakaway-battery',
    minutes: 20,
    helps: ['tow-breakaway-short', 'tow-breakaway-missing'],
    offers: (c) => {
      const now = c.tow.breakaway?.capacity ?? 0;
      const fitted = (capacity: number) => ({ ...c.tow, breakaway: { ...c.tow.breakaway, capacity, soc: 0.9 } });
      const size = BREAKAWAY_SIZES.find((ah) => ah >= now && breakawayMinutes(fitted(ah)) >= BREAKAWAY_MINUTES);
      if (size === undefined) return [];
      const says = `Fit a charged breakaway battery of ${size} Ah`;
      if (c.tow.breakaway) return [{ key: `${size}`, says: `${says}.`, tow: fitted(size) }];
      return fedWays(c)
        .filter((w) => (pinUse('breakaway').served as readonly string[]).includes(w.way.feed))
        .map((w) => ({
          key: `${size} ${w.key}`,
          says: `${says} and its switch, charged from ${wayName(w)}.`,
          tow: moved(fitted(size), 'breakaway', w.plug.id, w.way.pin, w.way.usesGauge, w.way.usesLength),
        }));
    },
  },
  {
    id: 'breakaway-keeper',
    minutes: 60,
    helps: ['tow-breakaway-uncharged'],
    offers: (c) =>
      c.tow.breakaway && c.vehicle.trailerBank
        ? [
            {
              key: 'own',
              says: 'Fit a maintainer that keeps the breakaway battery charged from the trailer’s own battery.',
              tow: without({ ...c.tow, breakaway: { ...c.tow.breakaway, keeper: true } }, 'breakaway'),
            },
          ]
        : [],
  },
  {
    id: 'own-plug',
    minutes: 150,
    helps: [
      'tow-breakaway-uncharged',
      'tow-pin-overload',
      'tow-charger-starved',
      'tow-lamp-power',
      'tow-return',
      'tow-fuse-blows',
      'tow-fridge-dead',
      'tow-chained',
      'tow-fridge-chained',
      'tow-fuse-over-wire',
    ],
    offers: (c, t) => {
      const w = at(c, t);
      const own = w ? culprit(w).filter((u) => u !== 'breakaway' && u !== 'brakes') : [];
      const uses: UseId[] =
        own.length > 0 ? own : c.ways.flatMap(culprit).filter((u) => u === 'charger' || u === 'fridge' || u === 'bank');
      return uses.flatMap((use) =>
        (['constant', 'ignition'] as const).flatMap((feed) => {
          const tow = ownPlug(c.tow, use, wants(c, use), feed, c.rules);
          return tow
            ? [
                {
                  key: `${use} ${feed}`,
                  says:
                    `Give ${pinUse(use).says} a two-pole plug of its own, both poles, ` +
                    `${feed === 'constant' ? 'always live' : 'live with the ignition'}.`,
                  tow,
                },
              ]
            : [];
        }),
      );
    },
  },
  {
    id: 'thicker-feed',
    minutes: 70,
    helps: [
      'tow-fridge-dead',
      'tow-charger-starved',
      'tow-brake-weak',
      'tow-breakaway-uncharged',
      'tow-fuse-over-wire',
      'tow-fuse-blows',
      'tow-thin-by-code',
    ],
    offers: (c, t) => {
      const w = at(c, t);
      const top = w && w.connector.positions.find((p) => p.id === w.way.pin)!.thickest;
      const thin =
        w &&
        (GAUGES.indexOf(w.way.gauge) < GAUGES.indexOf(w.way.usesGauge) || w.way.uses.length === 0
          ? w.way.gauge
          : w.way.usesGauge);
      if (!w || !top || !thin || GAUGES.indexOf(thin) >= GAUGES.indexOf(top)) return [];
      const steps: Gauge[] = [];
      for (let g = thicker(thin, top); g; g = thicker(g, top)) steps.push(g);
      return steps.map((g) => ({
        key: `${w.key} ${g}`,
        says: `Run ${gaugeName(g)} to ${wayName(w)} on both sides.`,
        tow: withWay(c.tow, w.key, { gauge: max(g, w.way.gauge), usesGauge: max(g, w.way.usesGauge) }),
      }));
    },
  },
  {
    id: 'thicker-return',
    minutes: 60,
    helps: ['tow-return', 'tow-fridge-dead', 'tow-charger-starved', 'tow-brake-weak'],
    offers: (c) =>
      c.ways
        .filter((w) => w.way.feed === 'ground' && w.way.uses.includes('ground'))
        .flatMap((w) => {
          const top = w.connector.positions.find((p) => p.id === w.way.pin)!.thickest;
          return GAUGES.indexOf(w.way.gauge) >= GAUGES.indexOf(top) &&
            GAUGES.indexOf(w.way.usesGauge) >= GAUGES.indexOf(top)
            ? []
            : [
                {
                  key: w.key,
                  says: `Run ${gaugeName(top)} to the ground, ${wayName(w)}, on both sides.`,
                  tow: withWay(c.tow, w.key, { gauge: max(top, w.way.gauge), usesGauge: max(top, w.way.usesGauge) }),
                },
              ];
        }),
  },
  {
    id: 'ground-wired',
    minutes: 30,
    helps: ['tow-no-ground', 'tow-return'],
    offers: (c) =>
      c.tow.plugs.flatMap((plug) => {
        const connector = connectorOf(plug.connector);
        const convention = connector.conventions.find((x) => x.id === plug.convention)!;
        const pins = Object.keys(convention.uses).filter(
          (p) =>
            convention.uses[p]!.startsWith('ground') &&
            !plug.ways.some((w) => w.pin === p && w.feed === 'ground' && w.uses.includes('ground')),
        );
        return pins.map((pin) => {
          const gauge = connector.positions.find((p) => p.id === pin)!.thickest;
          const way: TowWay = {
            pin,
            feed: 'ground',
            gauge,
            length: 1,
            uses: ['ground'],
            usesGauge: gauge,
            usesLength: 1,
          };
          return {
            key: `${plug.id}.${pin}`,
            says: `Wire ground through pin ${pin} of the ${connector.label}, on both sides.`,
            tow: {
              ...c.tow,
              plugs: c.tow.plugs.map((p) =>
                p.id === plug.id ? { ...p, ways: [...p.ways.filter((w) => w.pin !== pin), way] } : p,
              ),
            },
          };
        });
      }),
  },
  {
    id: 'fuse',
    minutes: 15,
    helps: ['tow-fuse-missing', 'tow-fuse-over-wire', 'tow-fuse-blows'],
    offers: (c, t) => {
      const w = at(c, t);
      const rating = w && fuseFor(Math.max(5, mostAmps(c, w.key)), w.plug, w.way, c.rules);
      return w && rating !== undefined && rating !== w.way.fuse
        ? [
            {
              key: `${w.key} ${rating}`,
              says: `Fuse ${wayName(w)} with ${rating} A at the battery.`,
              tow: withWay(c.tow, w.key, { fuse: rating }, true),
            },
          ]
        : [];
    },
  },
  {
    id: 'charger-limit',
    minutes: 5,
    helps: ['tow-pin-overload', 'tow-fuse-blows', 'tow-charger-starved', 'tow-return', 'tow-chained'],
    offers: (c, t) => {
      const w = c.ways.find((x) => x.way.uses.includes('charger'));
      if (!w || !c.tow.charger || (t.at !== w.key && t.id !== 'tow-return')) return [];
      const bears = Math.floor(
        CHARGER_SHARE * Math.min(w.connector.positions.find((p) => p.id === w.way.pin)!.amps, w.way.fuse || Infinity),
      );
      return bears >= 5 && bears < c.tow.charger.inLimit
        ? [
            {
              key: `${bears}`,
              says: `Set the charger to take ${bears} A at most.`,
              tow: { ...c.tow, charger: { ...c.tow.charger, inLimit: bears } },
            },
          ]
        : [];
    },
  },
  {
    id: 'contact',
    minutes: 25,
    helps: ['tow-corroded', 'tow-brake-weak', 'tow-fridge-dead', 'tow-charger-starved', 'tow-return'],
    offers: (c) =>
      c.ways
        .filter((w) =>
          (w.way.seen ?? []).some((s) => s.loaded !== undefined && Math.abs(s.open) - Math.abs(s.loaded) > 0.5),
        )
        .map((w) => ({
          key: w.key,
          says: `Renew the terminals of ${wayName(w)} on both sides and seal their backs.`,
          tow: withWay(c.tow, w.key, {}),
        })),
  },
];

/** The interface without a use that nothing hangs on any more. */
function without(tow: TowInterface, use: UseId): TowInterface {
  return {
    ...tow,
    plugs: tow.plugs.map((p) => ({
      ...p,
      ways: p.ways.map((w) => (w.uses.includes(use) ? { ...w, uses: w.uses.filter((u) => u !== use) } : w)),
    })),
  };
}
function max(a: Gauge, b: Gauge): Gauge {
  return GAUGES.indexOf(a) >= GAUGES.indexOf(b) ? a : b;
}

/** Every change a row offers against a trouble. */
export function changesFor(c: TowContext, t: TowTrouble): TowChange[] {
  return TOW_CHANGES.filter((row) => row.helps.includes(t.id)).flatMap((row) =>
    row.offers(c, t).map((o) => ({ id: `${row.id} ${o.key}`, says: o.says, minutes: row.minutes, tow: o.tow })),
  );
}
