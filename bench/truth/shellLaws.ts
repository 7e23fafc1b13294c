/**
 * Laws of the fourth form: a battery as a plate, its pores and the free acid, three shells that acid passes between, with
 * volts by the acid at the plate (Nernst) and by how hard it is driven (an area law, arsinh); an alternator that can a
 * power rather than a current and whose regulator comes up slowly and cools its volts; joints of which some few are old.
 */
import type { Chance } from './random';
import {
  copper,
  positive,
  type AlternatorTruth,
  type BatterySpec,
  type BatteryTruth,
  type Laws,
  type SourceTruth,
} from './laws';

/** Share of the charge at the plate, in the pores, free; and what passes between two neighbors, per second of difference. */
const SHELLS = [0.08, 0.27, 0.65] as const;
const PASSES = [1.1e-3, 1.6e-4] as const;
const CELLS_PER_VOLT = 0.5;
/** V of a cell by its thermal energy over two electrons, near 25 °C. */
const NERNST = 0.0257;

type Three = [number, number, number];

class Shells implements BatteryTruth {
  readonly ah: number;
  readonly rated: number;
  readonly cca: number;
  deadCells = 0;
  worn: number;
  private acid: Three;

  constructor(
    readonly plus: number,
    readonly minus: number,
    readonly spec: BatterySpec,
  ) {
    this.ah = spec.ah;
    this.rated = spec.volts;
    this.cca = spec.cca;
    this.worn = spec.worn;
    this.acid = [spec.filled, spec.filled, spec.filled];
  }

  get filled(): number {
    return SHELLS.reduce<number>((sum, share, i) => sum + share * this.acid[i]!, 0);
  }
  set filled(x: number) {
    this.acid = [x, x, x];
  }

  private get lithium(): boolean {
    return this.spec.chemistry === 'lfp';
  }

  /** V of the whole piece at rest by the acid at its plate. */
  private rest(x: number): number {
    const part = this.rated / 12;
    if (this.lithium) {
      const tail = 0.24 * Math.log((0.004 + Math.max(0, x)) / 1.004);
      const brim = 3.2 * positive(x - 1.005, 0.01) * 10;
      return (13.2 + 0.28 * (x - 0.5) + tail + brim) * part;
    }
    const cells = this.rated * CELLS_PER_VOLT;
    const sealed = this.spec.chemistry === 'flooded' ? 0 : 0.022;
    const density = 1.952 + sealed + 0.17 * x;
    return (
      cells * (density + NERNST * 0.5 * Math.log((0.015 + Math.max(0, x)) / 1.015) + 12 * positive(x - 1.012, 0.006))
    );
  }

  /** A at which its plates are driven hard: more of them is more area, cold and age make it less. */
  private exchange(charging: boolean): number {
    const warm = Math.exp(0.03 * (this.spec.celsius - 25));
    const left = Math.max(0.02, charging ? 1.02 - this.acid[0] : this.acid[0]);
    return (this.ah * (this.lithium ? 1.2 : charging ? 0.055 : 0.12) * warm * Math.sqrt(left)) / this.worn;
  }

  private ohms(): number {
    const cold = 1 + 0.009 * Math.max(0, 25 - this.spec.celsius);
    const empty = 1 + 0.5 * (1 - Math.min(1, this.filled)) ** 2;
    const base = this.cca > 0 ? 2.9 / this.cca : (this.lithium ? 0.45 : 0.7) / this.ah;
    return base * (this.rated / 12) * this.worn * cold * empty;
  }

  /** Acid after so many seconds at so many amps of charge, implicitly: from the outermost shell inward and back. */
  private after(charge: number, dt: number): Three {
    const [s0, s1, s2] = SHELLS;
    const [p, q] = [PASSES[0] * dt, PASSES[1] * dt];
    const [a0, a1, a2] = this.acid;
    const inflow = (charge * dt) / 3600 / this.ah;
    // (s2 + q)·x2 − q·x1 = s2·a2;  (s1 + p + q)·x1 − p·x0 − q·x2 = s1·a1;  (s0 + p)·x0 − p·x1 = s0·a0 + inflow.
    const k2 = q / (s2 + q);
    const r2 = (s2 * a2) / (s2 + q);
    const d1 = s1 + p + q - q * k2;
    const k1 = p / d1;
    const r1 = (s1 * a1 + q * r2) / d1;
    const x0 = (s0 * a0 + inflow + p * r1) / (s0 + p - p * k1);
    const x1 = r1 + k1 * x0;
    return [x0, x1, r2 + k2 * x1];
  }

  private law(dt: number): (charge: number) => number {
    const cells = this.rated * CELLS_PER_VOLT;
    const drive = (this.lithium ? 0.006 : 0.018) * cells;
    const [r, up, down] = [this.ohms(), this.exchange(true), this.exchange(false)];
    const dead = this.deadCells * 2;
    return (charge) => {
      const mostly = 1 / (1 + Math.exp(-charge / (0.01 * this.ah)));
      return (
        this.rest(this.after(charge, dt)[0]) -
        dead +
        r * charge +
        drive * Math.asinh(charge / (down + (up - down) * mostly))
      );
    };
  }

  push(volts: number, dt: number): { amps: number; slope: number } {
    // The law rises with charge: halving finds where it has these volts, however it bends.
    const law = this.law(dt);
    let [low, high] = [-40 * this.ah, 40 * this.ah];
    for (let i = 0; i < 70; i++) {
      const middle = (low + high) / 2;
      if (law(middle) < volts) low = middle;
      else high = middle;
    }
    const amps = (low + high) / 2;
    const h = 1e-3 + 1e-4 * Math.abs(amps);
    return { amps: -amps, slope: (2 * h) / Math.max(1e-9, law(amps + h) - law(amps - h)) };
  }

  remember(_volts: number, pushed: number, dt: number): void {
    this.acid = this.after(-pushed, dt);
    // What the plate cannot hold goes off as gas.
    if (this.acid[0] > 1) this.acid[0] -= (this.acid[0] - 1) * (1 - Math.exp(-dt / 1500));
    this.acid[0] = Math.max(0, this.acid[0]);
  }
}

/** A source held at volts by a stiff regulator, up to a power: the more volts, the fewer amps. */
class PowerSource implements SourceTruth {
  working = 0;
  can = 0;
  constructor(
    readonly plus: number,
    readonly minus: number,
    public holds: number,
    private readonly ohms: number,
    private readonly rated: number,
  ) {}

  push(volts: number): { amps: number; slope: number } {
    if (this.can <= 0) return { amps: 0, slope: 0 };
    const most = (this.can * this.rated) / Math.max(0.7 * this.rated, volts);
    const x = (this.holds - volts) / this.ohms;
    // The smaller of the two, its corner rounded.
    const soft = 0.06 * this.can + 0.6;
    const gives = most - positive(most - positive(x, soft), soft);
    const h = 1e-5;
    const at = (v: number) => {
      const m = (this.can * this.rated) / Math.max(0.7 * this.rated, v);
      return m - positive(m - positive((this.holds - v) / this.ohms, soft), soft);
    };
    return { amps: Math.max(0, gives), slope: Math.max(0, (at(volts - h) - at(volts + h)) / (2 * h)) };
  }

  remember(_volts: number, _amps: number, dt: number): void {
    this.working = this.can > 0 ? this.working + dt : 0;
  }
}

class Belted extends PowerSource implements AlternatorTruth {
  strength = 1;
  shift = 0;
  private turn: 'off' | 'idle' | 'fast-idle' = 'off';
  private readonly set: number;
  private readonly idles: number;
  private mood = 0;

  constructor(
    plus: number,
    minus: number,
    private readonly most: number,
    private readonly times: number,
    private readonly smart: boolean,
    private readonly chance: Chance,
  ) {
    super(plus, minus, 14 * times, chance.between(0.004, 0.014) * times, 13.5 * times);
    this.set = chance.between(13.85, 14.6);
    this.idles = chance.between(0.38, 0.72);
  }

  speed(rpm: 'off' | 'idle' | 'fast-idle'): void {
    if (this.smart && this.turn === 'off') this.mood = this.chance.between(-1.4, 0.5);
    this.turn = rpm;
    this.regulate();
  }

  private regulate(): void {
    const share = { off: 0, idle: this.idles, 'fast-idle': 0.92 }[this.turn];
    // The field comes up in seconds; the housing takes a quarter of an hour to be warm, and the set-point falls with it.
    const up = 1 - Math.exp(-(this.working + 2) / 4);
    const warm = 1 - Math.exp(-this.working / 900);
    this.can = this.most * this.strength * share * up * (1 - 0.12 * warm);
    this.holds = (this.set + this.mood + this.shift - 0.35 * warm) * this.times;
  }

  override remember(volts: number, amps: number, dt: number): void {
    super.remember(volts, amps, dt);
    this.regulate();
  }
}

export const SHELL: Laws = {
  name: 'shells',
  battery: (plus, minus, spec) => new Shells(plus, minus, spec),
  alternator: (plus, minus, rated, times, smart, chance) => new Belted(plus, minus, rated, times, smart, chance),
  charger: (plus, minus, limit, times, chance) => {
    const source = new PowerSource(plus, minus, chance.between(14.1, 14.7) * times, 0.006 * times, 13.5 * times);
    source.can = limit * chance.between(0.8, 1);
    return source;
  },
  joint: (heavy, chance) => {
    const old = chance.happens(0.12) ? 3.5 : 1;
    return old * (heavy ? chance.decades(6e-5, 3.5e-4) : chance.decades(3e-3, 0.02));
  },
  run: (gauge, meters, chance) =>
    copper(gauge, meters * chance.between(0.72, 1.38), chance.between(0, 45), chance.happens(0.07) ? 1 : 0),
  loads: (chance) => ({
    off: chance.decades(0.012, 0.06),
    keyOn: chance.between(3, 12),
    running: chance.between(9, 28),
    ignition: chance.decades(1, 8),
    house: chance.decades(0.7, 6),
  }),
  module: (chance) => ({ ohms: chance.decades(0.05, 0.5), leak: chance.decades(6000, 100_000) }),
  restSeconds: (chance) => (chance.happens(0.4) ? 1800 : chance.between(60, 360)),
  hand: { gain: 0.004, clampGain: 0.02, clampZero: 0.4, slips: 0.015, early: 0.05 },
};
