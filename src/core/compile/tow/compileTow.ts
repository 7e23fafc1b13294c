/**
 * The tow interface on a vehicle, made into a network: every position of every plug, the batteries of the vehicle, and
 * what the trailer hangs on them.
 *
 * Returns are real: what the trailer draws comes back through its ground positions and, where those are poor,
 * through the hitch.
 */
import { pinFeed, pinUse, type UseId } from '../../parts/pinUses';
import type { TowInterface } from '../../rig/tow';
import { METER_OHMS } from '../compile';
import type { TowSituation } from './situations';
import { TowNet } from './towNetwork';
import type { TowVehicle } from './vehicle';
import { conventionOf, feeds, returnKind, wayOhms, waysOf, type Way, type WayKey } from './ways';

/** V a resting lead-acid battery still stands above its rest some minutes after charging: common practice. */
const SURFACE_VOLTS = 0.35;
/** Ω of an alternator's regulation at its stud. */
const ALTERNATOR_OHMS = 0.003;
/** Ω of a breakaway battery and its charging lead, and the Schottky diode in it: 0.3 V at half an ampere, from memory. */
const BREAKAWAY_OHMS = 0.4;
const DIODE = { saturation: 1e-5, emission: 0.027 };

/** Something that hangs on the plug: a resistance, or what a port or an EMF takes. */
export interface TowLoad {
  use: UseId;
  plus: string;
  minus: string;
  ohms?: (s: TowSituation) => number;
  port?: number;
  emf?: number;
}

/** The coupled rig as a network. */
export class CompiledTow {
  readonly net = new TowNet();
  readonly ways: Way[];
  /** EMF of the start battery, of the accessory battery. */
  readonly start: number;
  readonly accessory: number | undefined;
  /** Ports of the charger that fills the accessory battery. */
  readonly filler: { out: number; in: number } | undefined;
  readonly flows: { key: WayKey; ohms: number; socket: string; plug: string }[] = [];
  readonly loads: TowLoad[] = [];
  /** The charger behind the plug: its two nodes, and the port that takes its amps. */
  charger: { plus: string; minus: string; port: number } | undefined;

  constructor(
    readonly tow: TowInterface,
    readonly vehicle: TowVehicle,
  ) {
    const { net } = this;
    this.ways = waysOf(tow);
    this.start = net.battery('start', 'vehicle frame', vehicle.start, (s) =>
      s.id === 'stopped' && vehicle.start.chemistry.id !== 'lfp' ? SURFACE_VOLTS : 0,
    );
    net.port('source', 'start', 'vehicle frame', {
      volts: vehicle.alternator.volts,
      ohms: ALTERNATOR_OHMS,
      limit: (s) => (s.engine ? vehicle.alternator.amps : 0),
    });
    net.port('current', 'start', 'vehicle frame', {
      amps: (s) => (s.engine ? vehicle.running : vehicle.asleep),
    });
    if (vehicle.accessory) {
      const { bank, chargerVolts, chargerAmps } = vehicle.accessory;
      this.accessory = net.battery('accessory', 'vehicle frame', bank);
      this.filler = {
        out: net.port('source', 'accessory', 'vehicle frame', {
          volts: chargerVolts,
          ohms: 0.01,
          limit: (s) => (s.engine ? chargerAmps : 0),
        }),
        in: net.port('current', 'start', 'vehicle frame', { amps: 0 }),
      };
    }
    net.resistor('trailer frame', 'vehicle frame', vehicle.hitchOhms);
    for (const w of this.ways) this.draw(w);
  }

  /** Whether the trailer's relay connects the fridge element. */
  private triggered(s: TowSituation): boolean {
    const { fridge } = this.tow;
    return (
      fridge !== undefined &&
      (fridge.trigger === 'none' ||
        (fridge.trigger === 'wire' && s.engine) ||
        (fridge.trigger !== 'wire' &&
          feeds(this.ways, fridge.trigger === 'looped' ? 'fridge' : 'fridge-trigger', s) !== undefined))
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
    const hang = (use: UseId, r: (s: TowSituation) => number) => {
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
        this.charger = { plus: end, minus: ground, port: net.port('current', end, ground, { amps: 0 }) };
        this.loads.push({ use, plus: end, minus: ground, port: this.charger.port });
      } else if (use === 'bank') {
        if (!vehicle.behind) continue;
        const emf = net.battery(end, ground, vehicle.behind);
        net.port('current', end, ground, { amps: vehicle.behindDraws });
        this.loads.push({ use, plus: end, minus: ground, emf });
      } else if (use === 'breakaway') {
        net.port('diode', 'breakaway', end, DIODE);
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
}
