/**
 * The coupled rig in one situation: every position of every plug with its wires, contacts and fuses, the
 * batteries of the vehicle, and what the trailer hangs on them, solved as one network.
 *
 * Returns are real: what the trailer draws comes back through its ground positions and, where those are poor,
 * through the hitch. A DC-DC charger takes its power whatever the volts, down to its lockout.
 */
import { emptyValues, PORT_VALUES, type PortBranch, type Topology, type Values } from '../../circuit/network';
import { Solver } from '../../circuit/solve';
import { bankOhms, bankRestVolts, type BankState } from '../../parts/chemistry';
import { DCDC_EFFICIENCY } from '../../parts/dcdc';
import { connectorOf, type Connector, type Convention } from '../../parts/connectors';
import { pinFeed, pinUse, type Driving, type UseId } from '../../parts/pinUses';
import { wireResistance } from '../../units/wire';
import type { TowInterface, TowPlug, TowWay } from '../../rig/tow';
import { contactOhms } from './pinReadings';
import type { TowVehicle } from './vehicle';

export interface Situation extends Driving {
  id: 'overnight' | 'stopped' | 'road' | 'braking';
  label: string;
  hours: number;
}

/** Parked a night, just stopped, on the road with lamps on, braking there. */
export const SITUATIONS: readonly Situation[] = [
  { id: 'road', label: 'on the road', key: true, engine: true, lamps: true, braking: false, hours: 4 },
  { id: 'braking', label: 'braking', key: true, engine: true, lamps: true, braking: true, hours: 0 },
  { id: 'stopped', label: 'stopped 20 minutes', key: false, engine: false, lamps: false, braking: false, hours: 1 / 3 },
  { id: 'overnight', label: 'parked overnight', key: false, engine: false, lamps: false, braking: false, hours: 10 },
];

/** V a resting lead-acid battery still stands above its rest some minutes after charging: common practice. */
const SURFACE_VOLTS = 0.35;
/** V at which an input that senses says "engine on": common practice, 13.0–13.8. */
export const SENSE_ON_VOLTS = 13.2;
/** Ω·A of a connector's contact: 4 mΩ at 30 A, from memory. */
const CONTACT_OHMS_TIMES_AMPS = 0.12;
/** Ω·A of a fuse: from memory. */
const FUSE_OHMS_TIMES_AMPS = 0.09;
/** Splices, taps and crimps of one run: many on a factory line, few on a heavy one; a ground has few. From memory. */
const JOINTS_OHMS = { line: 0.018, ground: 0.005, bar: 0.0007 };
/** Ω of an alternator's regulation at its stud. */
const ALTERNATOR_OHMS = 0.003;
/** Ω of a breakaway battery and its charging lead, and the Schottky diode in it: 0.3 V at half an ampere, from memory. */
const BREAKAWAY_OHMS = 0.4;
const DIODE = { is: 1e-5, nVt: 0.027 };
const METER_OHMS = 1e7;
const ROUNDS = 40;

/** `plug.pin`. */
export type WayKey = string;
export const wayKey = (plug: TowPlug, way: TowWay): WayKey => `${plug.id}.${way.pin}`;

export interface WayFlow {
  /** A toward the trailer. */
  amps: number;
  /** V at the socket to the vehicle's frame, and at the plug. */
  socket: number;
  plug: number;
}

export interface Coupled {
  situation: Situation;
  ways: ReadonlyMap<WayKey, WayFlow>;
  /** V across and A into each use. */
  uses: ReadonlyMap<UseId, { volts: number; amps: number }>;
  /** A into each battery: positive charges. */
  start: number;
  accessory?: number;
  /** A that come back through the hitch, and V of the trailer's frame above the vehicle's. */
  hitch: number;
  returnVolts: number;
  fridgeOn: boolean;
  charger: 'none' | 'off' | 'on' | 'starved';
}

export interface Way {
  key: WayKey;
  plug: TowPlug;
  way: TowWay;
  connector: Connector;
}
export const waysOf = (tow: TowInterface): Way[] =>
  tow.plugs.flatMap((plug) =>
    plug.ways.map((way) => ({ key: wayKey(plug, way), plug, way, connector: connectorOf(plug.connector) })),
  );

/** Ω from the vehicle's source to the socket, through the contact, and from the plug to what hangs on it. */
export function wayOhms({ way, connector }: Way): { front: number; contact: number; behind: number } {
  const position = connector.positions.find((p) => p.id === way.pin)!;
  const joints =
    connector.contact === 'bar' ? JOINTS_OHMS.bar : way.feed === 'ground' ? JOINTS_OHMS.ground : JOINTS_OHMS.line;
  return {
    front: wireResistance(way.gauge, way.length) + joints + (way.fuse ? FUSE_OHMS_TIMES_AMPS / way.fuse : 0),
    contact: Math.max(CONTACT_OHMS_TIMES_AMPS / position.amps, contactOhms(way) ?? 0),
    behind: wireResistance(way.usesGauge, way.usesLength) + joints,
  };
}

const conventionOf = ({ plug, connector }: Way): Convention =>
  connector.conventions.find((c) => c.id === plug.convention) ?? connector.conventions[0]!;

/** Which ground a position returns to: a ground position made for it, where both sides have wired it. */
function returnKind(w: Way): 'charge' | 'switched' | 'all' {
  const { plug, way } = w;
  const convention = conventionOf(w);
  const use = convention.uses[way.pin];
  const own = use === 'charge' ? 'ground-charge' : use === 'switched' ? 'ground-switched' : undefined;
  const wired =
    own !== undefined &&
    plug.ways.some((w) => convention.uses[w.pin] === own && w.feed === 'ground' && w.uses.includes('ground'));
  return wired ? (use as 'charge' | 'switched') : 'all';
}

/** Whether the trailer's fridge relay connects the element, and the charger is told to run. */
export const feeds = (ways: readonly Way[], use: UseId, s: Situation): Way | undefined =>
  ways.find((w) => w.way.uses.includes(use) && pinFeed(w.way.feed).live(s, w.connector.combined));

/** A number that may go by the situation. */
type BySituation = number | ((s: Situation) => number);
const inSituation = (x: BySituation, s: Situation): number => (typeof x === 'number' ? x : x(s));

/** A network whose topology is the same in every situation: what is off is an open circuit, or gives nothing. */
class Net {
  readonly topology: Topology = { nodeNames: ['vehicle frame'], resistors: [], emfs: [], ports: [] };
  private readonly byName = new Map<string, number>([['vehicle frame', 0]]);
  private readonly set: ((v: Values, s: Situation) => void)[] = [];
  node(name: string): number {
    let n = this.byName.get(name);
    if (n === undefined) {
      n = this.topology.nodeNames.push(name) - 1;
      this.byName.set(name, n);
      // Whatever hangs open still has a meter's leak to the frame.
      this.resistor(name, 'vehicle frame', METER_OHMS);
    }
    return n;
  }
  resistor(a: string, b: string, ohms: BySituation): void {
    const i = this.topology.resistors.push({ id: `${a}–${b}`, a: this.node(a), b: this.node(b) }) - 1;
    this.set.push((v, s) => (v.resistorOhms[i] = inSituation(ohms, s)));
  }
  emf(plus: string, minus: string, volts: BySituation, ohms: BySituation): number {
    const i = this.topology.emfs.push({ id: plus, plus: this.node(plus), minus: this.node(minus) }) - 1;
    this.set.push((v, s) => {
      v.emfVolts[i] = inSituation(volts, s);
      v.emfOhms[i] = inSituation(ohms, s);
    });
    return i;
  }
  port(kind: PortBranch['kind'], plus: string, minus: string, ...numbers: BySituation[]): number {
    const i =
      this.topology.ports.push({ id: `${kind} ${plus}`, kind, plus: this.node(plus), minus: this.node(minus) }) - 1;
    this.set.push((v, s) => numbers.forEach((x, k) => (v.port[i * PORT_VALUES + k] = inSituation(x, s))));
    return i;
  }
  /** A battery as EMF, resistance and overvoltage; returns the EMF's index. */
  battery(plus: string, minus: string, b: BankState, above: (s: Situation) => number = () => 0): number {
    const inner = `${plus} inside`;
    const { exchangePerAh, chargeOvervolts, dischargeOvervolts } = b.chemistry;
    this.port(
      'overvoltage',
      plus,
      inner,
      exchangePerAh * b.capacity,
      chargeOvervolts * b.blocks,
      dischargeOvervolts * b.blocks,
    );
    return this.emf(
      inner,
      minus,
      (s) => bankRestVolts(b) + above(s),
      (s) => bankOhms(b, s.engine),
    );
  }
  values(into: Values, s: Situation): void {
    for (const f of this.set) f(into, s);
  }
}

interface Load {
  use: UseId;
  plus: string;
  minus: string;
  ohms?: (s: Situation) => number;
  port?: number;
  emf?: number;
}

/** An interface on a vehicle, made into a network once, solved in any situation. */
export class CoupledRig {
  private readonly net = new Net();
  private readonly ways: Way[];
  private readonly solver: Solver;
  private readonly values: Values;
  private readonly start: number;
  private readonly accessory: number | undefined;
  private readonly filler: { out: number; in: number } | undefined;
  private readonly flows: { key: WayKey; ohms: number; socket: string; plug: string }[] = [];
  private readonly loads: Load[] = [];
  private charger: { plus: string; minus: string; port: number } | undefined;

  constructor(
    private readonly tow: TowInterface,
    private readonly vehicle: TowVehicle,
  ) {
    const { net } = this;
    this.ways = waysOf(tow);
    this.start = net.battery('start', 'vehicle frame', vehicle.start, (s) =>
      s.id === 'stopped' && vehicle.start.chemistry.id !== 'lfp' ? SURFACE_VOLTS : 0,
    );
    net.port('source', 'start', 'vehicle frame', vehicle.alternator.volts, ALTERNATOR_OHMS, (s) =>
      s.engine ? vehicle.alternator.amps : 0,
    );
    net.port('current', 'start', 'vehicle frame', (s) => (s.engine ? vehicle.running : vehicle.asleep));
    if (vehicle.accessory) {
      const { bank, chargerVolts, chargerAmps } = vehicle.accessory;
      this.accessory = net.battery('accessory', 'vehicle frame', bank);
      this.filler = {
        out: net.port('source', 'accessory', 'vehicle frame', chargerVolts, 0.01, (s) => (s.engine ? chargerAmps : 0)),
        in: net.port('current', 'start', 'vehicle frame', 0),
      };
    }
    net.resistor('trailer frame', 'vehicle frame', vehicle.hitchOhms);
    for (const w of this.ways) this.draw(w);
    this.solver = new Solver(net.topology);
    this.values = emptyValues(net.topology);
  }

  /** Whether the trailer's relay connects the fridge element. */
  private triggered(s: Situation): boolean {
    const { fridge } = this.tow;
    return (
      fridge !== undefined &&
      (fridge.trigger === 'none' ||
        feeds(this.ways, fridge.trigger === 'looped' ? 'fridge' : 'fridge-trigger', s) !== undefined)
    );
  }

  private draw(w: Way): void {
    const { net, tow, vehicle } = this;
    const { way, key } = w;
    const ohms = wayOhms(w);
    const [socket, plug, end] = [`socket ${key}`, `plug ${key}`, `end ${key}`];
    const returns = returnKind(w);
    const ground = returns === 'all' ? 'trailer frame' : `trailer ${w.plug.id} ${returns}`;
    if (way.feed === 'ground') net.resistor('vehicle frame', socket, ohms.front);
    else if (way.feed !== 'none')
      net.resistor(way.from === 'accessory' && vehicle.accessory ? 'accessory' : 'start', socket, (s) =>
        pinFeed(way.feed).live(s, w.connector.combined) ? ohms.front : Infinity,
      );
    net.resistor(socket, plug, ohms.contact);
    this.flows.push({ key, ohms: ohms.contact, socket, plug });
    if (way.uses.length === 0) return;
    net.resistor(plug, end, ohms.behind);
    const hang = (use: UseId, r: (s: Situation) => number) => {
      net.resistor(end, ground, r);
      this.loads.push({ use, plus: end, minus: ground, ohms: r });
    };
    for (const use of way.uses) {
      if (use === 'ground') {
        const role = conventionOf(w).uses[way.pin];
        net.resistor(
          end,
          role === 'ground-charge'
            ? `trailer ${w.plug.id} charge`
            : role === 'ground-switched'
              ? `trailer ${w.plug.id} switched`
              : 'trailer frame',
          0.001,
        );
      } else if (use === 'charger') {
        this.charger = { plus: end, minus: ground, port: net.port('current', end, ground, 0) };
        this.loads.push({ use, plus: end, minus: ground, port: this.charger.port });
      } else if (use === 'bank') {
        if (!vehicle.behind) continue;
        const emf = net.battery(end, ground, vehicle.behind);
        net.port('current', end, ground, vehicle.behindDraws);
        this.loads.push({ use, plus: end, minus: ground, emf });
      } else if (use === 'breakaway') {
        net.port('diode', 'breakaway', end, DIODE.is, DIODE.nVt);
        this.loads.push({
          use,
          plus: 'breakaway',
          minus: ground,
          emf: net.emf('breakaway', ground, 12.2 + 0.6 * (tow.breakaway?.soc ?? 0.8), BREAKAWAY_OHMS),
        });
      } else if (use === 'fridge') hang(use, (s) => (this.triggered(s) ? 144 / tow.fridge!.watts : METER_OHMS));
      else if (use === 'brakes') {
        // Fed by a converter they do not hang on the plug at all.
        if (tow.brakes!.supply === 'pin') hang(use, () => 12 / tow.brakes!.amps);
      } else hang(use, () => 12 / (pinUse(use).amps ?? 0.1));
    }
  }

  private at(name: string): number {
    return this.solver.volts[this.net.node(name)]!;
  }

  /** Solves the present values; the van's own charger takes from the start battery what it gives, with its losses. */
  private iterate(): void {
    const { solver, values, filler } = this;
    solver.iterate(values);
    for (let k = 0; filler && k < ROUNDS; k++) {
      const given = Math.max(0, solver.pushed(filler.out)) * Math.max(1, this.at('accessory'));
      const taken = given / DCDC_EFFICIENCY / Math.max(8, this.at('start'));
      if (Math.abs(taken - values.port[filler.in * PORT_VALUES]!) < 1e-4) return;
      values.port[filler.in * PORT_VALUES] = taken;
      solver.iterate(values);
    }
  }

  /** Lets the charger take what it wants, down to its lockout. */
  private charge(s: Situation, ran: boolean): Coupled['charger'] {
    const { charger, values } = this;
    if (!charger) return 'none';
    if (!this.tow.charger) return 'off';
    const { amps, outVolts, inLimit, lockout, enable } = this.tow.charger;
    const input = () => this.at(charger.plus) - this.at(charger.minus);
    const open = input();
    const told =
      enable === 'wire'
        ? s.key
        : enable === 'pin'
          ? feeds(this.ways, 'charger-enable', s) !== undefined
          : enable === 'always'
            ? open > lockout
            : open >= SENSE_ON_VOLTS || (ran && open >= lockout);
    if (!told || open <= 1) return 'off';
    const slot = charger.port * PORT_VALUES;
    for (let k = 0; k < ROUNDS && input() >= lockout; k++) {
      const wanted = Math.min(inLimit, (amps * outVolts) / DCDC_EFFICIENCY / input());
      if (Math.abs(wanted - values.port[slot]!) < 1e-3) return 'on';
      values.port[slot] = wanted;
      this.iterate();
    }
    if (input() >= lockout) return 'on';
    values.port[slot] = 0;
    this.iterate();
    return 'starved';
  }

  /** The coupled rig in a situation. @param chargerRan whether the charger was running just before. */
  solve(s: Situation, chargerRan = false): Coupled {
    const { net, values, solver } = this;
    net.values(values, s);
    // Only what the converters take changes below: the linear half is made once.
    solver.prepare(values);
    this.iterate();
    const charger = this.charge(s, chargerRan);
    const emfAmps = (i: number) => {
      const { plus, minus } = net.topology.emfs[i]!;
      return (solver.volts[plus]! - solver.volts[minus]! - values.emfVolts[i]!) / values.emfOhms[i]!;
    };
    const uses = new Map(
      this.loads.map((l): [UseId, { volts: number; amps: number }] => {
        const volts = this.at(l.plus) - this.at(l.minus);
        return [
          l.use,
          {
            volts,
            amps:
              l.port !== undefined
                ? values.port[l.port * PORT_VALUES]!
                : l.emf !== undefined
                  ? emfAmps(l.emf)
                  : volts / l.ohms!(s),
          },
        ];
      }),
    );
    return {
      situation: s,
      ways: new Map(
        this.flows.map((f): [WayKey, WayFlow] => [
          f.key,
          { amps: (this.at(f.socket) - this.at(f.plug)) / f.ohms, socket: this.at(f.socket), plug: this.at(f.plug) },
        ]),
      ),
      uses,
      start: emfAmps(this.start),
      ...(this.accessory !== undefined ? { accessory: emfAmps(this.accessory) } : {}),
      hitch: this.at('trailer frame') / this.vehicle.hitchOhms,
      returnVolts: this.at('trailer frame'),
      fridgeOn: (uses.get('fridge')?.amps ?? 0) > 1,
      charger,
    };
  }
}

/** All situations, in the order they follow each other: a charger that ran on the road may run on after the stop. */
export function solveSituations(tow: TowInterface, vehicle: TowVehicle): Coupled[] {
  const rig = new CoupledRig(tow, vehicle);
  const road = rig.solve(SITUATIONS[0]!);
  return [road, ...SITUATIONS.slice(1).map((s) => rig.solve(s, road.charger === 'on' && s.id !== 'overnight'))];
}
