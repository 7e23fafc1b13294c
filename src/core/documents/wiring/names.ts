/** What things on a wiring sheet are called: wires and ground points by number, gauges and lengths in the shop's units. */
import { partKind } from '../../parts/kinds';
import type { Conductor, Endpoint, Part, Rig } from '../../rig/schema';
import { lengthShown, type GaugeUnit, type LengthUnit } from '../../units/preferences';
import { gaugeShown } from '../../units/wire';

export interface WiringUnits {
  length: LengthUnit;
  gauge: GaugeUnit;
}

/** Wires by number, in the order of the document: an id keeps its number while nothing before it is taken out. */
export const wireLabels = (rig: Rig): Map<string, string> => new Map(rig.conductors.map((c, i) => [c.id, `W${i + 1}`]));

const lengthWords = (metres: number, u: WiringUnits): string =>
  `${lengthShown(metres, u.length).toFixed(u.length === 'ft' ? 0 : 1)} ${u.length}`.replace(/^0 ft$/, '< 1 ft');

export class SheetNames {
  private readonly labels: Map<string, string>;
  private readonly grounds: Map<string, string>;
  private readonly probes: Map<string, string>;

  constructor(
    readonly rig: Rig,
    private readonly units: WiringUnits,
  ) {
    this.labels = wireLabels(rig);
    this.grounds = new Map(
      rig.grounds.flatMap((g) => g.points.map((p) => `${g.id}.${p.id}`)).map((key, i) => [key, `G${i + 1}`]),
    );
    this.probes = new Map(rig.probes.filter((p) => !p.retired).map((p) => [p.key, p.label]));
  }

  wire(c: Conductor): string {
    return this.labels.get(c.id)!;
  }

  gauge(c: Conductor): string {
    return gaugeShown(c.gauge, this.units.gauge);
  }

  length(c: Conductor): string {
    return lengthWords(c.length, this.units);
  }

  /** What stands on a wire's track. */
  span(c: Conductor): string {
    return `${this.wire(c)}  ${this.gauge(c)}, ${this.length(c)}`;
  }

  /** @param key `ground.point`; empty where it is no ground. */
  ground(key: string): string {
    return this.grounds.get(key) ?? '';
  }

  /** The probe at a key, if the technician has one there. */
  probe(key: string): string | undefined {
    return this.probes.get(key);
  }

  /** A terminal, with the probe that stands on it. */
  pin(p: Part, t: { id: string; label: string }): string {
    const flag = this.probes.get(`${p.id}.${t.id}`);
    return flag ? `${t.label} ${flag}` : t.label;
  }

  /** Where a wire ends, in words. */
  end(e: Endpoint): string {
    const p = this.rig.parts.find((q) => q.id === e.part);
    if (p) return `${p.name}, ${partKind(p.kind).terminals.find((t) => t.id === e.terminal)?.label ?? e.terminal}`;
    const point = this.rig.grounds.find((g) => g.id === e.part)?.points.find((q) => q.id === e.terminal);
    return `${this.ground(`${e.part}.${e.terminal}`)} ${point?.label ?? e.part}`.trim();
  }
}
