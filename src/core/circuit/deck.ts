/**
 * The same network as a SPICE deck that `ngspice -b` runs as it is and that prints every probe and branch
 * under its id. `.nodeset` carries our solution as a starting guess: a limited source has corners on which
 * SPICE's own Newton may cycle. A deck without it (`nodeset: false`) is the independent check.
 */
import { lampCoefficients } from './lamp';
import { PORT_VALUES, type Topology, type DeviceValues } from './network';

export interface DeckProbe {
  /** Printed name: lower case letters, digits, underscore. */
  name: string;
  red: number;
  black: number;
}

export interface DeckClamp {
  name: string;
  /** Index of the resistor whose amps it shows, from its a to its b. */
  resistor: number;
}

export interface DeckOptions {
  title: string;
  probes: readonly DeckProbe[];
  clamps?: readonly DeckClamp[];
  volts: Float64Array;
  nodeset?: boolean;
}

/** A SPICE-safe name for an element or probe id. */
export const spiceName = (id: string): string => id.toLowerCase().replace(/[^a-z0-9]+/g, '_');

/** kT/q at 300.15 K, V (CODATA constants). */
const THERMAL_VOLTS_27C = (1.380649e-23 * 300.15) / 1.602176634e-19;

const num = (x: number): string => x.toExponential(15);

export function spiceDeck(topology: Topology, values: DeviceValues, options: DeckOptions): string {
  const node = (n: number) => (n === 0 ? '0' : `n${n}`);
  const across = (a: number, b: number) =>
    a === 0 ? `(-v(${node(b)}))` : b === 0 ? `v(${node(a)})` : `(v(${node(a)})-v(${node(b)}))`;
  const lines: string[] = [`* ${options.title.replace(/[\r\n]+/g, ' ')}`];
  topology.nodeNames.forEach((name, n) => lines.push(`* ${node(n)} = ${name}`));
  const branches: [name: string, expression: string][] = [];

  topology.resistors.forEach((r, i) => {
    const ohms = values.resistorOhms[i]!;
    const name = spiceName(r.id);
    if (!Number.isFinite(ohms)) {
      lines.push(`* R_${name} open`);
      return;
    }
    lines.push(`R_${name} ${node(r.a)} ${node(r.b)} ${num(ohms)}`);
    branches.push([name, `${across(r.a, r.b)}/${num(ohms)}`]);
  });
  topology.emfs.forEach((e, i) => {
    const name = spiceName(e.id);
    lines.push(`V_${name} x_${name} ${node(e.minus)} dc ${num(values.emfVolts[i]!)}`);
    lines.push(`R_${name} ${node(e.plus)} x_${name} ${num(values.emfOhms[i]!)}`);
    branches.push([name, `i(V_${name})`]);
  });
  topology.ports.forEach((p, i) => {
    const name = spiceName(p.id);
    const at = i * PORT_VALUES;
    const [p0, p1, p2] = [values.deviceParams[at]!, values.deviceParams[at + 1]!, values.deviceParams[at + 2]!];
    const u = across(p.plus, p.minus);
    if (p.kind === 'source') {
      if (p2 <= 0) {
        lines.push(`* B_${name} off`);
        return;
      }
      lines.push(`B_${name} ${node(p.minus)} ${node(p.plus)} I=min(${num(p2)},max(0,(${num(p0)}-${u})/${num(p1)}))`);
    } else if (p.kind === 'current') {
      lines.push(`I_${name} ${node(p.plus)} ${node(p.minus)} dc ${num(p0)}`);
    } else if (p.kind === 'lamp') {
      // Its temperature, in units of the cold one, is a node of its own on which the heat balances.
      const { cold, radiates, conducts } = lampCoefficients(p0, p1);
      const heat = `v(t_${name})`;
      lines.push(
        `B_${name} ${node(p.plus)} ${node(p.minus)} I=${u}/(${num(cold)}*pow(max(1,${heat}),1.2))`,
        `B_heat_${name} 0 t_${name} ` +
          `I=${u}*${u}/(${num(cold)}*pow(max(1,${heat}),1.2))-${num(radiates)}*(pow(max(1,${heat}),4)-1)-${num(conducts)}*(${heat}-1)`,
        `R_heat_${name} t_${name} 0 1e9`,
      );
    } else if (p.kind === 'diode') {
      // SPICE's default temperature is 27 °C: n·Vt given in volts becomes an emission coefficient there.
      lines.push(
        `D_${name} ${node(p.minus)} ${node(p.plus)} M_${name}`,
        `.model M_${name} D(IS=${num(p0)} N=${num(p1 / THERMAL_VOLTS_27C)} RS=0)`,
      );
    } else {
      lines.push(
        `B_${name} ${node(p.plus)} ${node(p.minus)} I=${num(p0)}*sinh(${u}/(${u}>=0 ? ${num(p1)} : ${num(p2)}))`,
      );
    }
  });
  if (options.nodeset !== false) {
    const hints = topology.nodeNames
      .map((_, n) => (n === 0 ? '' : `v(${node(n)})=${num(options.volts[n]!)}`))
      .filter(Boolean);
    for (let i = 0; i < hints.length; i += 4) lines.push(`.nodeset ${hints.slice(i, i + 4).join(' ')}`);
  }
  lines.push('.options reltol=1e-6 abstol=1e-12 vntol=1e-9 gmin=1e-15 itl1=500', '.control', 'set numdgt=12', 'op');
  for (const probe of options.probes) {
    lines.push(`let ${probe.name} = ${across(probe.red, probe.black)}`, `print ${probe.name}`);
  }
  for (const { name, resistor } of options.clamps ?? []) {
    const [r, ohms] = [topology.resistors[resistor]!, values.resistorOhms[resistor]!];
    lines.push(`let ${name} = ${Number.isFinite(ohms) ? `${across(r.a, r.b)}/${num(ohms)}` : '0'}`, `print ${name}`);
  }
  for (const [name, expression] of branches) {
    lines.push(`let i_${name} = ${expression}`, `print i_${name}`);
  }
  lines.push('quit 0', '.endc', '.end', '');
  return lines.join('\n');
}
