/**
 * What gets hot in a link: a solenoid's coil and contact, a charger's fins. First-order bodies; the numbers
 * are from memory, the order of what a hand on the part says.
 */
import { is } from '../parts/kinds';
import { resistorAmps } from '../circuit/readings';
import type { RigNetwork } from '../operate/rigNetwork';

interface Body {
  id: string;
  label: string;
  /** K per W against the air, and s. */
  kelvinPerWatt: number;
  seconds: number;
  /** °C it must not pass. */
  limit: number;
}

const COIL: Body = { id: 'coil', label: 'coil', kelvinPerWatt: 5, seconds: 900, limit: 130 };
const CONTACT: Body = { id: 'contact', label: 'contact', kelvinPerWatt: 8, seconds: 400, limit: 105 };

/** Follows one body; it never acts back on the network. */
export class Heating {
  celsius: number;
  hottest: number;
  constructor(
    readonly part: string,
    readonly body: Body,
    private readonly watts: (net: RigNetwork) => number,
    celsius: number,
  ) {
    this.celsius = celsius;
    this.hottest = celsius;
  }

  commit(net: RigNetwork, h: number): void {
    const target = (net.inputs.leg?.celsius ?? 25) + this.watts(net) * this.body.kelvinPerWatt;
    this.celsius = target + (this.celsius - target) * Math.exp(-h / this.body.seconds);
    this.hottest = Math.max(this.hottest, this.celsius);
  }
}

/** Every body of the rig that is followed. */
export function heatingsOf(net: RigNetwork, celsius: number): Heating[] {
  const { rig, resistor } = net.compiled;
  const lossIn = (element: string) => (n: RigNetwork) => {
    const index = resistor.get(element)!;
    const ohms = n.values.resistorOhms[index]!;
    if (!Number.isFinite(ohms)) return 0;
    return resistorAmps(n.solver, n.values, index) ** 2 * ohms;
  };
  return rig.parts.flatMap((part) =>
    is(part, 'solenoid')
      ? [
          new Heating(part.id, COIL, lossIn(`${part.id}.coil`), celsius),
          new Heating(part.id, CONTACT, lossIn(`${part.id}.contact`), celsius),
        ]
      : [],
  );
}
