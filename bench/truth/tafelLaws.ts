/**
 * Laws of the first form: rest volts by table, an inverse-hyperbolic-sine overvoltage that comes and goes by three
 * time constants (the slowest is the surface charge that stays), an alternator with an exponential limit.
 */
import type { Chance } from './random';
import {
  copper,
  meet,
  positive,
  table,
  type AlternatorTruth,
  type BatterySpec,
  type BatteryTruth,
  type Laws,
  type SourceTruth,
} from './laws';

/** Rest volts of "12 V" by charge. Handbook figures for lead-acid at 25 °C and for four iron phosphate cells, from memory. */
const REST: Readonly<Record<string, readonly (readonly [number, number])[]>> = {
  flooded: [
    [0, 11.6],
    [0.2, 11.96],
    [0.5, 12.25],
    [0.75, 12.46],
    [1, 12.7],
  ],
  agm: [
    [0, 11.75],
    [0.2, 12.08],
    [0.5, 12.38],
    [0.75, 12.6],
    [1, 12.86],
  ],
  gel: [
    [0, 11.7],
    [0.2, 12.05],
    [0.5, 12.36],
    [0.75, 12.6],
    [1, 12.85],
  ],
  lfp: [
    [0, 10.4],
    [0.04, 12.2],
    [0.1, 12.85],
    [0.2, 13.05],
    [0.4, 13.16],
    [0.7, 13.3],
    [0.95, 13.38],
    [1, 13.55],
  ],
};
const TAUS = [7, 140, 5000] as const;
const CHARGE = [0.05, 0.095, 0.062] as const;
const GIVE = [0.012, 0.02, 0.016] as const;

class TafelBattery implements BatteryTruth {
  readonly ah: number;
  readonly rated: number;
  readonly cca: number;
  deadCells = 0;
  filled: number;
  worn: number;
  private readonly over = [0, 0, 0];
  private last = 0;

  constructor(
    readonly plus: number,
    readonly minus: number,
    readonly spec: BatterySpec,
  ) {
    this.ah = spec.ah;
    this.rated = spec.volts;
    this.cca = spec.cca;
    this.filled = spec.filled;
    this.worn = spec.worn;
  }

  private get lfp(): boolean {
    return this.spec.chemistry === 'lfp';
  }

  /** Ohms of metal and acid. A starting battery by its cold cranking amps: 7.2 of 12.6 V left at −18 °C. */
  private ohms(): number {
    const { ah, volts, cca, celsius } = this.spec;
    const cold = 1 + 0.012 * Math.max(0, 25 - celsius);
    const base = cca > 0 ? (0.62 * 5.2) / cca : (this.lfp ? 0.5 : 0.78) / ah;
    return base * (volts / 12) * this.worn * cold * (this.lfp ? 1 : 1 + 0.7 * (1 - this.filled) ** 2);
  }

  private law(dt: number): (charge: number) => number {
    const { ah, volts } = this.spec;
    const part = volts / 12;
    const rest = table(REST[this.spec.chemistry] ?? REST['flooded']!, this.filled) * part - this.deadCells * 2.1;
    const r = this.ohms();
    const kinetic = this.lfp ? 0.16 : 1 + 0.15 * (this.worn - 1);
    return (charge) => {
      let v = rest + r * charge;
      for (let k = 0; k < 3; k++) {
        const stays = Math.exp(-dt / TAUS[k]!);
        const size = (charge > 0 ? CHARGE[k]! : GIVE[k]!) * part * kinetic;
        v += this.over[k]! * stays + (1 - stays) * size * Math.asinh(charge / (0.004 * ah));
      }
      if (charge > 0 && !this.lfp) v += (charge * 0.22 * part) / ah / (1.03 - Math.min(1, this.filled));
      return v;
    };
  }

  push(volts: number, dt: number): { amps: number; slope: number } {
    const { amps, slope } = meet(this.law(dt), volts, this.last, 40 * this.spec.ah);
    return { amps: -amps, slope };
  }

  remember(_volts: number, pushed: number, dt: number): void {
    const charge = -pushed;
    this.last = charge;
    const part = this.spec.volts / 12;
    const kinetic = this.lfp ? 0.16 : 1 + 0.15 * (this.worn - 1);
    for (let k = 0; k < 3; k++) {
      const stays = Math.exp(-dt / TAUS[k]!);
      const size = (charge > 0 ? CHARGE[k]! : GIVE[k]!) * part * kinetic;
      this.over[k] = this.over[k]! * stays + (1 - stays) * size * Math.asinh(charge / (0.004 * this.spec.ah));
    }
    const keeps = charge > 0 && !this.lfp ? 0.9 : 1;
    this.filled = Math.max(0, Math.min(1, this.filled + (charge * keeps * dt) / 3600 / this.spec.ah));
  }
}

/** A source with a droop, no way back, and a limit it nears exponentially. */
export class DroopSource implements SourceTruth {
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
    const p = positive(x, 0.4);
    const dp = 1 / (1 + Math.exp(-Math.max(-60, Math.min(60, x / 0.4))));
    const left = Math.exp(-p / this.can);
    return { amps: this.can * (1 - left), slope: (left * dp) / this.droop };
  }

  remember(_volts: number, _amps: number, dt: number): void {
    this.working = this.can > 0 ? this.working + dt : 0;
  }
}

class Alternator extends DroopSource implements AlternatorTruth {
  strength = 1;
  shift = 0;
  private readonly cold: number;
  private readonly falls: number;
  private readonly idleShare: number;
  private at: 'off' | 'idle' | 'fast-idle' = 'off';

  constructor(
    plus: number,
    minus: number,
    private readonly rated: number,
    private readonly times: number,
    private readonly smart: boolean,
    chance: Chance,
  ) {
    super(plus, minus, 14.2 * times, chance.between(0.003, 0.011) * times);
    this.cold = chance.between(14.0, 14.55);
    this.falls = chance.between(0.1, 0.4);
    this.idleShare = chance.between(0.4, 0.7);
  }

  speed(rpm: 'off' | 'idle' | 'fast-idle', chance: Chance): void {
    if (this.at === 'off' && this.smart) this.wish = chance.between(12.6, 14.9);
    this.at = rpm;
    this.can = rpm === 'off' ? 0 : this.rated * this.strength * (rpm === 'idle' ? this.idleShare : 0.9);
    this.regulate();
  }

  private wish: number | undefined;

  private regulate(): void {
    const warm = 1 - Math.exp(-this.working / 500);
    this.holds = ((this.wish ?? this.cold - this.falls * warm) + this.shift) * this.times;
  }

  override remember(volts: number, amps: number, dt: number): void {
    super.remember(volts, amps, dt);
    this.regulate();
  }
}

export const TAFEL: Laws = {
  name: 'stepped',
  battery: (plus, minus, spec) => new TafelBattery(plus, minus, spec),
  alternator: (plus, minus, rated, times, smart, chance) => new Alternator(plus, minus, rated, times, smart, chance),
  charger: (plus, minus, limit, times, chance) => {
    const source = new DroopSource(plus, minus, chance.between(14.1, 14.65) * times, 0.006 * times);
    source.can = limit * chance.between(0.9, 1.05);
    return source;
  },
  joint: (heavy, chance) => (heavy ? chance.decades(5e-5, 1e-3) : chance.decades(0.003, 0.04)),
  run: (gauge, meters, chance) =>
    copper(gauge, meters * chance.between(0.7, 1.35), chance.between(5, 45), chance.happens(0.12) ? 1 : 0),
  loads: (chance) => ({
    off: chance.between(0.015, 0.06),
    keyOn: chance.between(4, 12),
    running: chance.between(9, 32),
    ignition: chance.between(0.5, 9),
    house: chance.decades(0.4, 7),
  }),
  module: (chance) => ({ ohms: chance.between(0.1, 1.1), leak: chance.decades(4000, 200_000) }),
  restSeconds: (chance) => (chance.happens(0.2) ? 1800 : chance.between(120, 400)),
  hand: { gain: 0.003, clampGain: 0.02, clampZero: 0.25, slips: 0.015, early: 0.05 },
};
