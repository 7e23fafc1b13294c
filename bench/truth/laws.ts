/**
 * What a form of truth has laws of its own for: batteries, what charges them, wire and joints. Nothing here or in
 * what implements it comes from the product's core: figures are handbook values and trade facts from memory.
 */
import type { Chance } from './random';
import type { Device } from './network';
import type { Hand, TrueBattery } from './trueRig';

export interface BatterySpec {
  chemistry: string;
  ah: number;
  /** Rated volts of this piece of a bank: 6 of half a 12 V bank. */
  volts: number;
  /** Cold cranking amps, 0 where it starts nothing. */
  cca: number;
  /** Share of its charge, and its ohms against new. */
  filled: number;
  worn: number;
  celsius: number;
}

export interface BatteryTruth extends Device, TrueBattery {}

export interface SourceTruth extends Device {
  /** Volts it holds, amps it can; 0 A is off. */
  holds: number;
  can: number;
  /** How long it has worked, seconds: regulators get hot. */
  working: number;
}

export interface Laws {
  readonly name: string;
  battery(plus: number, minus: number, spec: BatterySpec, chance: Chance): BatteryTruth;
  /** Of a rated alternator: how it stands at idle and at 1,500 rpm. */
  alternator(
    plus: number,
    minus: number,
    rated: number,
    times: number,
    smart: boolean,
    chance: Chance,
  ): AlternatorTruth;
  charger(plus: number, minus: number, limit: number, times: number, chance: Chance): SourceTruth;
  /** Ohms of a joint. */
  joint(heavy: boolean, chance: Chance): number;
  /** Ohms of a run of copper as it really is, of the gauge and length somebody wrote down. */
  run(gauge: string, meters: number, chance: Chance): number;
  /** Amps the vehicle's own things draw: key off, key on, running; other things on the ignition circuit; the house. */
  loads(chance: Chance): { off: number; keyOn: number; running: number; ignition: number; house: number };
  /** Ohms in a module's output when it is on, and its leak when it is off. */
  module(chance: Chance): { ohms: number; leak: number };
  /** Seconds a technician rests a rig that worked before he calls it rested. */
  restSeconds(chance: Chance): number;
  /** The hand that measures. */
  hand: Hand;
}

export interface AlternatorTruth extends SourceTruth {
  /** Amps it could give at 'idle' or 'fast-idle', cold. */
  speed(rpm: 'off' | 'idle' | 'fast-idle', chance: Chance): void;
  /** What a fault does to it: share of its amps left, volts its regulator is off. */
  strength: number;
  shift: number;
}

/** Copper at 20 °C, ohm·m, and a strand's way round the lay. Handbook. */
const RHO = 1.7241e-8;
const LAY = 1.03;

/** Square metres of an American gauge by its definition (ASTM B258: 36 AWG is 0.005 in, 4/0 is 0.46 in). */
function area(gauge: string): number {
  const n = gauge.includes('/') ? 1 - Number(gauge.split('/')[0]) : Number(gauge);
  const diameter = 0.000127 * Math.pow(92, (36 - n) / 39);
  return (Math.PI / 4) * diameter * diameter;
}

/** One gauge thinner in the steps wire is sold by. */
const thinner = (gauge: string): string => {
  if (gauge.includes('/')) {
    const n = Number(gauge.split('/')[0]);
    return n > 1 ? `${n - 1}/0` : '2';
  }
  return String(Math.min(22, Number(gauge) + 2));
};

export function copper(gauge: string, meters: number, celsius: number, steps = 0): number {
  let g = gauge;
  for (let i = 0; i < steps; i++) g = thinner(g);
  return ((RHO * LAY * meters) / area(g)) * (1 + 0.00393 * (celsius - 20));
}

/** The amps at which a rising law of volts by charging amps meets these volts, and how fast they change with volts. */
export function meet(
  law: (amps: number) => number,
  volts: number,
  guess: number,
  span: number,
): { amps: number; slope: number } {
  // `law` rises with charging amps; it is met by Newton's method with a numeric slope, held to the span.
  let x = Math.max(-span, Math.min(span, guess));
  const h = 1e-4;
  for (let i = 0; i < 60; i++) {
    const f = law(x) - volts;
    const d = (law(x + h) - law(x - h)) / (2 * h);
    const step = f / Math.max(d, 1e-6);
    x = Math.max(-span, Math.min(span, x - Math.max(-span / 4, Math.min(span / 4, step))));
    if (Math.abs(step) < 1e-9 * (1 + Math.abs(x))) break;
  }
  const d = (law(x + h) - law(x - h)) / (2 * h);
  return { amps: x, slope: 1 / Math.max(d, 1e-6) };
}

export const table = (rows: readonly (readonly [number, number])[], x: number): number => {
  if (x <= rows[0]![0]) return rows[0]![1];
  for (let i = 1; i < rows.length; i++) {
    const [x0, y0] = rows[i - 1]!;
    const [x1, y1] = rows[i]!;
    if (x <= x1) return y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);
  }
  return rows.at(-1)![1];
};

/** Smooth step up from zero: the positive part, with a soft corner of this width. */
export const positive = (x: number, width: number): number =>
  x > 30 * width ? x : width * Math.log1p(Math.exp(Math.max(-60, x / width)));
