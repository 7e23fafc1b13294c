/**
 * A rig as it really stands in the bay: the pieces of a drawing with true figures of their own, and all of them
 * together in time, with what each remembers. It is told what is being done to it, and can be measured.
 */
import { key, type DocPart, type RigDocument } from './document';
import { PARKED, type Doing } from './doing';
import type { AlternatorTruth, BatteryTruth, Laws, SourceTruth } from './laws';
import { Network, type Resistor } from './network';
import { PIECES } from './pieces';
import type { Chance } from './random';
import { nominalOf, type Hand, type TrueContact, type TrueRig } from './trueRig';

/** A contact with true ohms: it may be burned open, or welded. */
export class Contact implements TrueContact {
  open = false;
  welded = false;
  closed = false;

  constructor(
    readonly resistor: Resistor,
    public ohms: number,
  ) {
    resistor.ohms = Infinity;
  }

  /** True when that changed anything. */
  set(closed: boolean): boolean {
    this.closed = closed;
    const was = this.resistor.ohms;
    this.resistor.ohms = (closed && !this.open) || this.welded ? this.ohms : Infinity;
    return was !== this.resistor.ohms;
  }
}

export interface Piece {
  /** What is being done has changed. */
  told?(doing: Doing): void;
  /** After a step: what it decides. True when it moved a contact or a source. */
  decide?(dt: number): boolean;
}

/** Steps after anything changed, seconds; then the longest one. */
const STEPS = [0.2, 0.8, 1, 1, 2, 2, 3, 5, 5, 10, 10, 20] as const;

export class Vehicle implements TrueRig {
  readonly net = new Network();
  /** Runs of wire, bonds and simple pieces by `id` or `part.piece`. */
  readonly ohms = new Map<string, Resistor>();
  readonly contacts = new Map<string, Contact>();
  readonly batteries = new Map<string, BatteryTruth[]>();
  readonly alternators = new Map<string, AlternatorTruth>();
  readonly chargers = new Map<string, SourceTruth>();
  /** What is wrong with a part that no figure says: `dead`, `wedged`. */
  readonly marks = new Set<string>();
  readonly loads: ReturnType<Laws['loads']>;
  readonly celsius: number;
  private readonly pieces: Piece[] = [];
  private sinceChange = 0;
  doing: Doing = PARKED;
  /** Leads go on the clamp of a battery where somebody is lazy. */
  readonly onClamp: boolean;

  constructor(
    readonly rig: RigDocument,
    readonly laws: Laws,
    readonly chance: Chance,
  ) {
    this.loads = laws.loads(chance);
    this.celsius = chance.between(2, 33);
    this.onClamp = chance.happens(0.2);
    this.net.node(key(rig.reference));
    for (const part of rig.parts) {
      const make = PIECES[part.kind];
      if (!make) throw new RangeError(`the truth has no law for a ${part.kind}`);
      this.pieces.push(make(this, part));
    }
    for (const wire of rig.conductors) {
      const heavy = wire.use !== 'control' && !(Number(wire.gauge) >= 12);
      const ohms = laws.run(wire.gauge, wire.length, chance) + laws.joint(heavy, chance) + laws.joint(heavy, chance);
      this.resistor(wire.id, this.clampOf(key(wire.from)), this.clampOf(key(wire.to)), ohms);
    }
    for (const ground of rig.grounds)
      ground.points.slice(1).forEach((p, i) => {
        const before = ground.points[i]!;
        this.resistor(
          `${ground.id}/${p.id}`,
          `${ground.id}.${before.id}`,
          `${ground.id}.${p.id}`,
          chance.decades(1e-4, 1.5e-3),
        );
      });
    for (const bond of rig.bonds) this.resistor(bond.id, key(bond.from), key(bond.to), this.bondOhms(bond.id));
  }

  /** A ball and hitch is no ground; a splice or a mount is. */
  private bondOhms(id: string): number {
    if (id === 'hitch') return this.chance.decades(0.3, 60);
    return id === 'frame-splice' ? this.chance.decades(4e-4, 3e-3) : this.chance.decades(1e-4, 6e-4);
  }

  /** Wires sit on the clamp of a battery, leads on its post. */
  clampOf(point: string): string {
    const [part, terminal] = point.split('.') as [string, string];
    const battery = this.rig.parts.find((p) => p.id === part && p.kind === 'battery-bank');
    return battery && (terminal === 'plus' || terminal === 'minus') ? `${point}^` : point;
  }

  resistor(id: string, a: string, b: string, ohms: number): Resistor {
    const r = this.net.resistor(a, b, ohms);
    this.ohms.set(id, r);
    return r;
  }

  contact(id: string, a: string, b: string, ohms: number): Contact {
    const c = new Contact(this.net.resistor(a, b, Infinity), ohms);
    this.contacts.set(id, c);
    return c;
  }

  nominal(part: DocPart): number {
    return nominalOf(this.rig, part);
  }

  get hand(): Hand {
    return this.laws.hand;
  }
  restSeconds(): number {
    return this.laws.restSeconds(this.chance);
  }
  join(id: string, a: string, b: string, ohms: number): void {
    this.resistor(id, a, b, ohms);
  }
  amps(id: string): number {
    const r = this.contacts.get(id)?.resistor ?? this.ohms.get(id);
    return r ? this.net.amps(r) : 0;
  }
  lampAt(point: string): number {
    if (!this.net.has(point)) return 0;
    const metal = this.rig.grounds[0]!;
    const lamp = this.net.resistor(point, `${metal.id}.${metal.points[0]!.id}`, 2.7);
    this.net.solve(0.5);
    const volts = this.net.at(point);
    lamp.ohms = Infinity;
    this.net.solve(0.5);
    return volts;
  }

  volts(a: string, b: string): number {
    return this.net.has(a) && this.net.has(b) ? this.net.at(a) - this.net.at(b) : 0;
  }

  /** Somebody changes what is being done. */
  now(doing: Partial<Doing>): void {
    this.doing = { ...PARKED, ...doing };
    for (const p of this.pieces) p.told?.(this.doing);
    this.sinceChange = 0;
  }

  /** Time goes by. */
  wait(seconds: number): void {
    let left = seconds;
    while (left > 1e-9) {
      const dt = Math.min(left, STEPS[this.sinceChange] ?? 30);
      this.sinceChange++;
      this.net.step(dt);
      left -= dt;
      let changed = false;
      for (const p of this.pieces) changed = (p.decide?.(dt) ?? false) || changed;
      if (changed) this.sinceChange = 0;
    }
  }

  /** What a lead or clamp really finds. */
  reading(probe: string, black?: string): number {
    const [owner, terminal] = probe.split('.') as [string, string];
    if (terminal === 'clamp') return this.net.amps(this.ohms.get(owner)!);
    const put = (point: string) => this.net.at(this.onClamp ? this.clampOf(point) : point);
    return put(probe) - (black === undefined ? 0 : put(black));
  }
}
