/**
 * The tow interface of a rig nobody has described yet: its charge line as the rig is drawn, and round it the
 * lamps, brakes and breakaway battery such a trailer usually has (assumed).
 */
import type { TraitName } from '../../parts/traits';
import type { EnableSchool } from '../../parts/enableSchools';
import { RULE_SETS, USUAL_JURISDICTION } from '../../codes';
import type { RuleSet } from '../../codes/ruleSet';
import { isFuseOrBreaker } from '../../parts/fuses';
import { connectorOf, type PositionUse } from '../../parts/connectors';
import type { FeedId, UseId } from '../../parts/pinUses';
import { is, nominalOf } from '../../parts/kinds';
import { follow, type FeedStep } from '../../rig/follow';
import type { Part, Rig } from '../../rig/schema';
import { USUAL_BREAKAWAY, type TowInterface, type TowPlug, type TowWay } from '../../rig/tow';
import { partOption, partValue, partWith } from '../../rig/value';

/** What usually stands at a position by what it is for. */
const USUAL: Readonly<Record<PositionUse, readonly [feed: FeedId, uses: readonly UseId[]] | undefined>> = {
  ground: ['ground', ['ground']],
  'ground-charge': ['ground', ['ground']],
  'ground-switched': ['ground', ['ground']],
  tail: ['tail', ['tail']],
  left: ['left', ['left']],
  right: ['right', ['right']],
  stop: ['stop', ['stop']],
  brake: ['brake', ['brakes']],
  charge: undefined,
  switched: ['ignition', []],
  reverse: ['reverse', ['reverse']],
  fog: ['fog', ['fog']],
  spare: undefined,
};
/** A the magnets of two braked axles take: four of 3 to 3.5 A; a single axle takes half. Common practice. */
const BRAKE_AMPS = 13;
const LAMP_WIRE = { vehicle: 7, behind: 8 };

/** Enable of the drawn charger in the words of the interface. */
const ENABLES: Readonly<Record<EnableSchool['id'], 'wire' | 'pin' | 'sense' | 'always'>> = {
  ignition: 'wire',
  manual: 'wire',
  volts: 'sense',
  always: 'always',
  'marker-lights': 'pin',
  relay: 'sense',
};

/** Whether a relay in the line is closed by the ignition. */
const switched = (rig: Rig, line: readonly Part[]): boolean =>
  line.some(
    (p) =>
      is(p, 'solenoid') &&
      rig.conductors.some(
        (c) =>
          c.use === 'control' &&
          [c.from, c.to].some((e) => e.part === p.id) &&
          [c.from, c.to].some((e) =>
            is(
              rig.parts.find((x) => x.id === e.part),
              'ignition',
            ),
          ),
      ),
  );

type Wires = Pick<TowWay, 'gauge' | 'length' | 'usesGauge' | 'usesLength'>;

/** What of the interface is drawn: the charge line and the ground it comes back by, and what hangs on it. */
interface Drawn {
  charge: TowWay;
  ground: Wires;
  fuse?: Part;
  charger?: Part;
  fridge?: Part;
}

/**
 * What lies before the connector: the line, and past a charger there what feeds it. Such a charger passes nothing back.
 */
function aheadOf(rig: Rig, connector: Part, pulls: string): { before?: Part; steps: FeedStep[] } {
  const line = follow(rig, { part: connector.id, terminal: 'front' });
  const before = line.find((s) => is(s.part, 'charger') && s.part!.vehicle === pulls)?.part;
  return before
    ? { before, steps: [...line, ...follow(rig, { part: before.id, terminal: 'input' })] }
    : { steps: line };
}

/** Undefined where the connector's four terminals are not all wired. @param pulls the vehicle in front. */
function drawnAt(rig: Rig, connector: Part, pulls: string): Drawn | undefined {
  const on = (terminal: string) =>
    rig.conductors.find((c) => [c.from, c.to].some((e) => e.part === connector.id && e.terminal === terminal));
  const [line, plugLine, back, plugBack] = [on('front'), on('rear'), on('front-ground'), on('rear-ground')];
  if (!line || !plugLine || !back || !plugBack) return undefined;
  const { before, steps: ahead } = aheadOf(rig, connector, pulls);
  const behind = follow(rig, { part: connector.id, terminal: 'rear' });
  const source = ahead.find((s) => is(s.part, 'battery') && s.part!.vehicle === pulls);
  const inline = ahead.flatMap((s) =>
    s.part && s.part !== connector && s.metres <= (source?.metres ?? Infinity) ? [s.part] : [],
  );
  const reached = (trait: TraitName) => behind.find((s) => is(s.part, trait) && s.part!.vehicle !== pulls)?.part;
  const [charger, fridge, bank] = [reached('charger'), reached('fridge'), reached('battery')];
  const fuse = inline.find(isFuseOrBreaker);
  return {
    charge: {
      pin: '',
      feed: before || switched(rig, inline) ? 'ignition' : 'constant',
      ...(source?.part?.side === 'coach' ? { from: 'accessory' as const } : {}),
      fuse: fuse ? partValue(fuse, 'rating') : 0,
      gauge: line.gauge,
      length: Math.max(0.5, source?.metres ?? line.length),
      uses: [
        ...(charger ? (['charger'] as const) : bank && nominalHere(rig, bank) === 12 ? (['bank'] as const) : []),
        ...(fridge ? (['fridge'] as const) : []),
      ],
      usesGauge: plugLine.gauge,
      usesLength: plugLine.length,
    },
    ground: {
      gauge: back.gauge,
      length: back.length,
      usesGauge: plugBack.gauge,
      usesLength: plugBack.length,
    },
    ...(fuse ? { fuse } : {}),
    ...(charger ? { charger } : {}),
    ...(fridge ? { fridge } : {}),
  };
}

const nominalHere = (rig: Rig, part: Part): number =>
  nominalOf(
    part,
    rig.vehicles.find((v) => v.id === part.vehicle)!,
  );

/** A charge position nobody drew: a factory line, for the breakaway battery where there is one. */
const factoryCharge = (car: boolean): Omit<TowWay, 'pin'> => ({
  feed: 'constant',
  fuse: 20,
  gauge: '12',
  length: LAMP_WIRE.vehicle,
  uses: car ? [] : ['breakaway'],
  usesGauge: '12',
  usesLength: LAMP_WIRE.behind,
});

/**
 * A plug as it usually is, position by position. @param car a towed car is behind: it has no brakes of its own.
 * @param drawn the charge line and its ground, where they go through this plug.
 */
function usualPlug(
  id: string,
  connector: string,
  convention: string,
  car: boolean,
  drawn?: Pick<Drawn, 'charge' | 'ground'>,
): TowPlug {
  const row = connectorOf(connector).conventions.find((c) => c.id === convention)!;
  const done = new Set<PositionUse>();
  const ways = connectorOf(connector).positions.flatMap(({ id: pin, thickest }): TowWay[] => {
    const use = row.uses[pin]!;
    if (use === 'charge') return [{ ...(drawn?.charge ?? factoryCharge(car)), pin }];
    const usual = USUAL[use];
    if (!usual || (use === 'brake' && car)) return [];
    const [feed, uses] = usual;
    const first = !done.has(use) || use === 'tail' || use === 'ground';
    done.add(use);
    if (use === 'ground' && drawn) return [{ pin, feed, uses: [...uses], ...drawn.ground }];
    const gauge = use === 'brake' ? '12' : feed === 'ground' ? thickest : '16';
    return [
      {
        pin,
        feed,
        ...(feed === 'ignition' ? { fuse: 15 } : {}),
        gauge,
        length: feed === 'ground' ? 1 : LAMP_WIRE.vehicle,
        uses: first ? [...uses] : [],
        usesGauge: gauge,
        usesLength: feed === 'ground' ? 1 : LAMP_WIRE.behind,
      },
    ];
  });
  return { id, connector, convention, ways };
}

/** The plug of a heavy line, by what it is fused at, A. */
const powerPlug = (amps: number): string =>
  amps <= 50 ? 'two-pole-50' : amps <= 120 ? 'two-pole-120' : 'two-pole-175';

/** A heavy line has a plug of its own beside the lamps'. */
function plugsOf(drawn: Drawn, heavy: boolean, car: boolean, { connector, convention }: RuleSet['plug']): TowPlug[] {
  if (heavy)
    return [
      usualPlug('main', connector, convention, car),
      usualPlug('power', powerPlug(drawn.fuse ? partValue(drawn.fuse, 'rating') : 50), 'usual', car, drawn),
    ];
  if (car) return [usualPlug('main', 'round-6', 'centre-charge', car, drawn)];
  const { charge, ground } = drawn;
  return [
    usualPlug('main', connector, convention, car, {
      charge: { ...charge, uses: [...charge.uses, 'breakaway'] },
      ground,
    }),
  ];
}

/**
 * The interface of a rig with a tow connector, as drawn and as usual; undefined where it has none.
 * @param rules of the place: whose plug is usual there.
 */
export function usualTow(
  rig: Rig,
  { plug }: Pick<RuleSet, 'plug'> = RULE_SETS[USUAL_JURISDICTION],
): TowInterface | undefined {
  const connector = partWith(rig, 'towConnector');
  const pulls = partWith(rig, 'alternator')?.vehicle;
  const drawn = connector && pulls !== undefined ? drawnAt(rig, connector, pulls) : undefined;
  if (!connector || !drawn) return undefined;
  const car = rig.vehicles.some((v) => v.role === 'towed-car');
  const { charger, fridge } = drawn;
  return {
    plugs: plugsOf(drawn, connector.note?.includes('two-pole') ?? false, car, plug),
    ...(charger
      ? {
          charger: {
            amps: partValue(charger, 'limit'),
            inLimit: partValue(charger, 'inLimit'),
            lockout: partValue(charger, 'lockout'),
            outVolts: partValue(charger, 'absorb'),
            startsAt: partValue(charger, 'on'),
            stopsAt: partValue(charger, 'off'),
            enable: ENABLES[partOption(charger, 'enable') as EnableSchool['id']] ?? 'wire',
          },
        }
      : {}),
    ...(fridge ? { fridge: { watts: partValue(fridge, 'watts'), trigger: triggerOf(rig, fridge) } } : {}),
    ...(car ? {} : { brakes: { amps: BRAKE_AMPS, supply: 'pin' as const }, breakaway: USUAL_BREAKAWAY }),
  };
}

/** What a fridge that chooses by itself takes its trigger from: its own feed, or a wire from the ignition. */
function triggerOf(rig: Rig, fridge: Part): NonNullable<TowInterface['fridge']>['trigger'] {
  if (!is(fridge, 'choosesItself')) return 'none';
  const byIgnition = rig.conductors.some((c) => {
    const ends = [c.from, c.to];
    const part = (id: string) => rig.parts.find((p) => p.id === id);
    return (
      ends.some((e) => e.part === fridge.id && e.terminal === 'trigger') &&
      ends.some((e) => is(part(e.part), 'ignition'))
    );
  });
  return byIgnition ? 'wire' : 'looped';
}

/** Uses a link draws anew: what is known of the old ones says nothing of them. */
const OF_THE_LINK: readonly UseId[] = ['charger', 'charger-enable', 'bank', 'fridge', 'fridge-trigger'];

/**
 * The interface of a rig: as described, else as drawn and usual. @param before what was described before another
 * link was drawn in: its lamps, brakes and breakaway battery are still there.
 */
export function towOf(rig: Rig, before?: TowInterface, rules?: RuleSet): TowInterface | undefined {
  if (rig.tow) return rig.tow;
  const usual = usualTow(rig, rules);
  if (!usual || !before) return usual;
  const kept = (plug: TowPlug, way: TowWay): TowWay => {
    const old = before.plugs.find((p) => p.connector === plug.connector)?.ways.find((w) => w.pin === way.pin);
    return old && ![...old.uses, ...way.uses].some((u) => OF_THE_LINK.includes(u)) ? old : way;
  };
  return {
    ...usual,
    plugs: usual.plugs.map((p) => ({ ...p, ways: p.ways.map((w) => kept(p, w)) })),
    ...(before.brakes ? { brakes: before.brakes } : {}),
    ...(before.breakaway ? { breakaway: before.breakaway } : {}),
  };
}
