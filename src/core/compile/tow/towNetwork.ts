/** A network by names whose topology is the same in every situation: what is off is an open circuit, or gives nothing. */
import { DEVICE_PARAMS, deviceIndex, type DeviceKind, type DeviceParamName } from '../../circuit/devices';
import type { Topology, DeviceValues } from '../../circuit/network';
import { bankOhms, bankRestVolts, type BankState } from '../../parts/chemistry';
import { METER_OHMS } from '../compile';
import type { TowSituation } from './situations';

/** A number that may go by the situation. */
type BySituation = number | ((s: TowSituation) => number);
const inSituation = (x: BySituation, s: TowSituation): number => (typeof x === 'number' ? x : x(s));

/** A network whose topology is the same in every situation: what is off is an open circuit, or gives nothing. */
export class TowNet {
  readonly topology: Topology = { nodeNames: ['vehicle frame'], resistors: [], emfs: [], ports: [] };
  private readonly byName = new Map<string, number>([['vehicle frame', 0]]);
  private readonly set: ((v: DeviceValues, s: TowSituation) => void)[] = [];
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
  /** A nonlinear element, its numbers by name. */
  port<K extends DeviceKind>(
    kind: K,
    plus: string,
    minus: string,
    numbers: Readonly<Record<DeviceParamName<K>, BySituation>>,
  ): number {
    const i =
      this.topology.ports.push({ id: `${kind} ${plus}`, kind, plus: this.node(plus), minus: this.node(minus) }) - 1;
    for (const name of DEVICE_PARAMS[kind] as readonly DeviceParamName<K>[]) {
      const at = deviceIndex(kind, i, name);
      this.set.push((v, s) => (v.deviceParams[at] = inSituation(numbers[name], s)));
    }
    return i;
  }
  /** A battery as EMF, resistance and overvoltage; returns the EMF's index. */
  battery(plus: string, minus: string, b: BankState, above: (s: TowSituation) => number = () => 0): number {
    const inner = `${plus} inside`;
    const { exchangePerAh, chargeOvervolts, dischargeOvervolts } = b.chemistry;
    this.port('overvoltage', plus, inner, {
      i0: exchangePerAh * b.capacity,
      charging: chargeOvervolts * b.blocks,
      discharging: dischargeOvervolts * b.blocks,
    });
    return this.emf(
      inner,
      minus,
      (s) => bankRestVolts(b) + above(s),
      (s) => bankOhms(b, s.engine),
    );
  }
  values(into: DeviceValues, s: TowSituation): void {
    for (const f of this.set) f(into, s);
  }
}
