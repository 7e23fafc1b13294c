/**
 * An alternator through time: it warms with what it gives, gives less when hot, and its regulator holds
 * somewhat less volts when hot.
 *
 *   C·dT/dt = loss·P + P_engine − G·(T − T_air)
 *
 * One set of numbers for a usual frame, all from memory or fitted to one case of common practice (about 82 °C
 * after an hour at idle under 75 A): a maker's figure is better wherever there is one.
 */
import { SOURCE } from '../circuit/devices';
import type { RigNetwork } from '../operate/rigNetwork';
import { Warm, type Dynamic } from './dynamic';

/** J/K of a usual frame, rated near 140 A. */
const HEAT_CAPACITY_JOULES_PER_KELVIN = 9000;
const RATED_FRAME_AMPS = 140;
/** W/K of its fan at idle, at fast idle, on the road, standing. */
const COOLING = { off: 5, idle: 10, 'fast-idle': 14, road: 20 } as const;
/** W from the engine bay while it runs. */
const ENGINE_WATTS = 100;
/** Share of what it gives that it loses as heat. */
const LOSS_SHARE = 0.45;
/** °C from which it gives less, and by how much a K. */
const DERATES_FROM_CELSIUS = 105;
const DERATING_PER_KELVIN = 0.02;
/** °C at which its volts are stated, and V per K of a 12 V system. */
export const STATED_AT_CELSIUS = 60;
export const VOLTS_PER_KELVIN = -0.0035;

export class AlternatorDynamic extends Warm implements Dynamic {
  readonly part: string;
  amps = 0;
  /** Most it could give just now, A. */
  limit = 0;
  private readonly port: number;
  private readonly blocks: number;
  private readonly frame: number;
  private volts = 0;
  private baseLimit = 0;
  private baseVolts = 0;
  private cooling = 1;
  private air = 25;
  private engineWatts = 0;

  constructor(net: RigNetwork, part: string, celsius: number) {
    const { compiled } = net;
    const doc = compiled.rig.parts.find((p) => p.id === part)!;
    // Of its winding's mean, as its case would show.
    super(doc.name, celsius, DERATES_FROM_CELSIUS, 'where its maker says nothing, that is the limit');
    this.part = part;
    this.port = compiled.port.get(`${part}.stator`)!;
    this.blocks = compiled.rig.vehicles.find((v) => v.id === doc.vehicle)!.nominalVolts / 12;
    this.frame = Math.max(0.3, (net.parameterNow(`${part}.fastLimit`) * this.blocks) / RATED_FRAME_AMPS);
  }

  refresh(net: RigNetwork): void {
    this.baseVolts = SOURCE.volts.get(net.values, this.port);
    this.baseLimit = SOURCE.limit.get(net.values, this.port);
  }

  stamp(net: RigNetwork): void {
    const derate = Math.max(0.4, 1 - DERATING_PER_KELVIN * Math.max(0, this.celsius - DERATES_FROM_CELSIUS));
    this.limit = this.baseLimit * derate;
    SOURCE.volts.set(
      net.values,
      this.port,
      this.baseVolts + this.blocks * VOLTS_PER_KELVIN * (this.celsius - STATED_AT_CELSIUS),
    );
    SOURCE.limit.set(net.values, this.port, this.limit);
    this.cooling = COOLING[net.inputs.engine] * this.frame;
    this.air = net.inputs.leg?.celsius ?? 25;
    this.engineWatts = net.inputs.engine === 'off' ? 0 : ENGINE_WATTS * this.frame;
  }
  observe(net: RigNetwork): number {
    this.amps = net.solver.pushed(this.port);
    this.volts = net.solver.portVolts[this.port]!;
    return 0;
  }

  /** A step in which it would warm by more than 5 K is too long to hold its limit for. */
  error(h: number): number {
    return Math.abs(this.target() - this.celsius) *
      (1 - Math.exp((-h * this.cooling) / (HEAT_CAPACITY_JOULES_PER_KELVIN * this.frame))) >
      5 && this.engineWatts > 0
      ? Infinity
      : 0;
  }

  private target(): number {
    return this.air + (LOSS_SHARE * Math.max(0, this.amps) * this.volts + this.engineWatts) / this.cooling;
  }

  accept(h: number): void {
    const target = this.target();
    this.warmTo(
      target + (this.celsius - target) * Math.exp((-h * this.cooling) / (HEAT_CAPACITY_JOULES_PER_KELVIN * this.frame)),
    );
  }
}
