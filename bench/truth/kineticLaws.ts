/**
 * Laws of the third form: a battery as two tanks of charge with a pipe between them (the kinetic battery model of
 * Manwell and McGowan), so that what is charged fast stands high and seeps away; an alternator by a machine's curve
 * with a regulator that sags as it heats; wire, joints, loads and hand with other spreads.
 */
import type { Chance } from './random';
import {
  copper,
  meet,
  positive,
  type AlternatorTruth,
  type BatterySpec,
  type BatteryTruth,
  type Laws,
  type SourceTruth,
} from './laws';

/** Share of the charge that is at hand, and the pipe between the tanks, per second. */
const AT_HAND = 0.3;
const PIPE = 2.4e-4;

class TwoTanks implements BatteryTruth {
  readonly ah: number;
  readonly rated: number;
  readonly cca: number;
  deadCells = 0;
  worn: number;
  /** Levels of the two tanks, 0…1; the first may stand over its brim while it gasses. */
  private near: number;
  private far: number;
  private quick = 0;
  private last = 0;

  constructor(
    readonly plus: number,
    readonly minus: number,
    readonly spec: BatterySpec,
  ) {
    this.ah = spec.ah;
    this.rated = spec.volts;
    this.cca = spec.cca;
    this.worn = spec.worn;
    this.near = spec.filled;
    this.far = spec.filled;
  }

  get filled(): number {
    return AT_HAND * this.near + (1 - AT_HAND) * this.far;
  }
  set filled(x: number) {
    this.near = x;
    this.far = x;
  }

  /** Rest volts of "12 V" with the near tank at a level: a straight line, steep when it gasses and when it is empty. */
  private rest(level: number): number {
    if (this.spec.chemistry === 'lfp') {
      const edge = (x: number, at: number, width: number) => 1 / (1 + Math.exp(-(x - at) / width));
      return (
        12.6 + 0.75 * level - 2.2 * (1 - edge(level, 0.02, 0.02)) + 1.4 * edge(level, 1.04, 0.015) - 0.15 * level ** 2
      );
    }
    const high = this.spec.chemistry === 'flooded' ? 0 : 0.14;
    const gas = positive(level - 1, 0.012);
    const empty = positive(0.08 - level, 0.02);
    return 11.62 + high + 1.06 * level + 7.5 * gas - 9 * empty;
  }

  private ohms(): number {
    const { ah, volts, cca, celsius } = this.spec;
    const cold = Math.exp(0.011 * Math.max(0, 25 - celsius));
    const base = cca > 0 ? 3.4 / cca : (this.spec.chemistry === 'lfp' ? 0.6 : 0.95) / ah;
    return base * (volts / 12) * this.worn * cold;
  }

  /** Ohms of the quick share, that comes in half a minute. */
  private slow(): number {
    return this.ohms() * (this.spec.chemistry === 'lfp' ? 0.4 : 0.8);
  }

  private levelAfter(charge: number, dt: number): number {
    const inflow = (charge * dt) / 3600 / (this.spec.ah * AT_HAND);
    const seep = (1 - Math.exp((-PIPE * dt) / AT_HAND / (1 - AT_HAND))) * (1 - AT_HAND) * (this.near - this.far);
    return this.near + inflow - seep;
  }

  private law(dt: number): (charge: number) => number {
    const part = this.spec.volts / 12;
    const stays = Math.exp(-dt / 30);
    const r = this.ohms() + (1 - stays) * this.slow();
    return (charge) =>
      this.rest(this.levelAfter(charge, dt)) * part - this.deadCells * 2 + r * charge + this.quick * stays;
  }

  push(volts: number, dt: number): { amps: number; slope: number } {
    const { amps, slope } = meet(this.law(dt), volts, this.last, 40 * this.spec.ah);
    return { amps: -amps, slope };
  }

  remember(_volts: number, pushed: number, dt: number): void {
    const charge = -pushed;
    this.last = charge;
    const before = this.near;
    this.near = this.levelAfter(charge, dt);
    const seeped = before + (charge * dt) / 3600 / (this.spec.ah * AT_HAND) - this.near;
    this.far += (seeped * AT_HAND) / (1 - AT_HAND);
    // What stands over the brim gasses off.
    if (this.near > 1) this.near -= (this.near - 1) * (1 - Math.exp(-dt / 900));
    const stays = Math.exp(-dt / 30);
    this.quick = this.quick * stays + (1 - stays) * this.slow() * charge;
  }
}

/** A source that gives what its machine can, bent into the limit by a hyperbola. */
class BentSource implements SourceTruth {
  working = 0;
  can = 0;
  constructor(
    readonly plus: number,
    readonly minus: number,
    public holds: number,
    readonly droop: number,
  ) {}

  push(volts: number): { amps: number; slope: number } {
    if (this.can <= 0) return { amps: 0, slope: 0 };
    const x = (this.holds - volts) / this.droop;
    const p = positive(x, 0.7);
    const dp = 1 / (1 + Math.exp(-Math.max(-60, Math.min(60, x / 0.7))));
    const bend = Math.sqrt(1 + (p / this.can) ** 2);
    return { amps: p / bend, slope: dp / (this.droop * bend ** 3) };
  }

  remember(_volts: number, _amps: number, dt: number): void {
    this.working = this.can > 0 ? this.working + dt : 0;
  }
}

class Machine extends BentSource implements AlternatorTruth {
  strength = 1;
  shift = 0;
  private turn: 'off' | 'idle' | 'fast-idle' = 'off';
  private readonly set: number;
  private readonly idles: number;
  private heat = 0;
  private mood = 0;

  constructor(
    plus: number,
    minus: number,
    private readonly rated: number,
    private readonly times: number,
    private readonly smart: boolean,
    chance: Chance,
  ) {
    super(plus, minus, 14 * times, chance.between(0.002, 0.014) * times);
    this.set = 14.2 + 0.17 * chance.bell();
    this.idles = chance.between(0.35, 0.65);
  }

  speed(rpm: 'off' | 'idle' | 'fast-idle', chance: Chance): void {
    if (this.smart && this.turn === 'off') this.mood = chance.between(-1.6, 0.6);
    this.turn = rpm;
    this.regulate();
  }

  private regulate(): void {
    const share = { off: 0, idle: this.idles, 'fast-idle': 0.85 }[this.turn];
    this.can = this.rated * this.strength * share * (1 - 0.18 * this.heat);
    this.holds = (this.set + this.mood + this.shift - 0.3 * this.heat) * this.times;
  }

  override remember(volts: number, amps: number, dt: number): void {
    super.remember(volts, amps, dt);
    // It heats by what it gives and cools with the engine off, in some ten minutes.
    const towards = this.can > 0 ? Math.min(1, 0.3 + (1.2 * amps) / this.rated) : 0;
    this.heat += (towards - this.heat) * (1 - Math.exp(-dt / 600));
    this.regulate();
  }
}

export const KINETIC: Laws = {
  name: 'kinetic',
  battery: (plus, minus, spec) => new TwoTanks(plus, minus, spec),
  alternator: (plus, minus, rated, times, smart, chance) => new Machine(plus, minus, rated, times, smart, chance),
  charger: (plus, minus, limit, times, chance) => {
    const source = new BentSource(plus, minus, (14.35 + 0.15 * chance.bell()) * times, 0.004 * times);
    source.can = limit * chance.between(0.85, 1.02);
    return source;
  },
  joint: (heavy, chance) => (heavy ? 1.6e-4 * Math.exp(0.9 * chance.bell()) : 0.01 * Math.exp(0.8 * chance.bell())),
  run: (gauge, meters, chance) =>
    copper(gauge, meters * Math.exp(0.2 * chance.bell()), 20 + 15 * chance.bell(), chance.happens(0.1) ? 1 : 0),
  loads: (chance) => ({
    off: 0.03 * Math.exp(0.4 * chance.bell()),
    keyOn: 7 * Math.exp(0.4 * chance.bell()),
    running: 17 * Math.exp(0.4 * chance.bell()),
    ignition: 3 * Math.exp(0.7 * chance.bell()),
    house: 2.2 * Math.exp(0.8 * chance.bell()),
  }),
  module: (chance) => ({ ohms: 0.15 * Math.exp(0.8 * chance.bell()), leak: chance.decades(8000, 80_000) }),
  restSeconds: (chance) => (chance.happens(0.3) ? 1800 : 180 + 120 * chance.unit()),
  hand: { gain: 0.0035, clampGain: 0.025, clampZero: 0.3, slips: 0.02, early: 0.04 },
};
