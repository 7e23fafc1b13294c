/**
 * A DC-DC charger through time: it warms with what it loses, and gives less when hot, sooner where it is boxed
 * in. First-order body; the figures are from memory, the order of what fins feel like on a low bank.
 */
import { SOURCE } from '../circuit/devices';
import type { RigNetwork } from '../operate/rigNetwork';
import { Warm, type Dynamic } from './dynamic';

/** K per W of loss against the air, by how it is mounted. */
const KELVIN_PER_WATT: Readonly<Record<string, number>> = { open: 0.35, 'stand-off': 0.5, boxed: 1.3 };
const WARMING_SECONDS = 1500;
/** °C of its fins from which it gives less, by how much a K, and the least it gives. */
export const CHARGER_DERATES_FROM_CELSIUS = 75;
const DERATING_PER_KELVIN = 0.02;
const MIN_OUTPUT_SHARE = 0.3;

export class ChargerHeat extends Warm implements Dynamic {
  readonly part: string;
  private readonly outPort: number;
  private readonly inPort: number;
  private readonly kelvinPerWatt: number;
  private base = 0;
  private watts = 0;
  private air = 25;

  /** @param converter which of the network's, by index: a part may hold two. */
  constructor(
    net: RigNetwork,
    private readonly converter: number,
    celsius: number,
  ) {
    const { part, outPort, inPort } = net.compiled.converters[converter]!;
    const doc = net.compiled.rig.parts.find((p) => p.id === part)!;
    super(doc.name, celsius, CHARGER_DERATES_FROM_CELSIUS, 'air around its fins and a stand-off would help');
    this.part = part;
    this.outPort = outPort;
    this.inPort = inPort;
    this.kelvinPerWatt = KELVIN_PER_WATT[doc.options?.['mounting'] ?? 'stand-off']!;
  }

  refresh(net: RigNetwork): void {
    this.base = SOURCE.limit.get(net.values, this.outPort);
    this.air = net.inputs.leg?.celsius ?? 25;
  }

  /** Share of its output that its heat leaves it. */
  private share(): number {
    return Math.max(
      MIN_OUTPUT_SHARE,
      1 - DERATING_PER_KELVIN * Math.max(0, this.celsius - CHARGER_DERATES_FROM_CELSIUS),
    );
  }

  stamp(net: RigNetwork): void {
    SOURCE.limit.set(net.values, this.outPort, this.base * this.share());
  }

  observe(net: RigNetwork): number {
    const taken = net.converterStates[this.converter]!.amps * net.solver.portVolts[this.inPort]!;
    this.watts = Math.max(
      0,
      taken - Math.max(0, net.solver.pushed(this.outPort)) * net.solver.portVolts[this.outPort]!,
    );
    return 0;
  }

  private after(h: number): number {
    const target = this.air + this.watts * this.kelvinPerWatt;
    return target + (this.celsius - target) * Math.exp(-h / WARMING_SECONDS);
  }

  /** While it gives less with every K, a step of more than 3 K is too long. */
  error(h: number): number {
    const end = this.after(h);
    return Math.max(end, this.celsius) > CHARGER_DERATES_FROM_CELSIUS &&
      Math.abs(end - this.celsius) > 3 &&
      this.watts > 1
      ? Infinity
      : 0;
  }

  accept(h: number): void {
    this.warmTo(this.after(h));
  }
}
