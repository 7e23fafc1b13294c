/**
 * A battery through time: charge, two polarisations, self-discharge.
 *
 *   u = OCV(soc, T) + v1 + v2 + I·(R0 + taper)         I positive charging
 *   dvk/dt = (fk·η·asinh(I/I0) − vk) / τk              k = 1 minutes, 2 hours
 *   dsoc/dt = ε·I / Q − s                              ε the stored share, or (I/I20)^(peukert−1) discharging
 *
 * Over a step in which g(I) = η·asinh(I/I0) goes straight from g0 to g1, the exponential integrator gives
 * v(h) = v·e + f·(g0·(a − e) + g1·(1 − a)) with e = exp(−h/τ), a = (1 − e)·τ/h. Only g1 depends on the
 * end, so the polarisation is again the network's own sinh port with η·Σf(1 − a), and an EMF. Exact for a
 * straight current (Hochbruck and Ostermann, "Exponential integrators", 2010).
 */
import { OVERVOLTAGE } from '../circuit/devices';
import type { RigNetwork } from '../operate/rigNetwork';
import {
  bankCrankVolts,
  bankOhms,
  bankOvervolts,
  bankRestVolts,
  chemistryOf,
  storedShare,
  type BankState,
  type Chemistry,
} from '../parts/chemistry';
import { nominalOf, partKind, partOptions } from '../parts/kinds';
import { BatteryWarmth } from './batteryWarmth';
import type { Dynamic } from './dynamic';

/** An EMF this high in ohms has been opened, by a fault or a BMS. */
const OPENED_OHMS = 1e5;
const SECONDS_PER_HOUR = 3600;

export class BatteryDynamic implements Dynamic {
  soc: number;
  /** Polarisation of the whole bank, V, fast and slow. */
  v1 = 0;
  v2: number;
  /** Amps at the start of the step, positive charging. */
  amps = 0;
  /** Volts at the posts at the last read. */
  volts = 0;
  /**
   * Sums: Ah in, out, lost to efficiency, gassing and rate, lost by standing; J at the posts, J of the model's
   * own terms, J moved either way.
   */
  readonly totals = new Float64Array(7);
  readonly chemistry: Chemistry;
  readonly capacity: number;
  readonly blocks: number;
  readonly name: string;

  private predicted = 0;
  private end = 0;
  private slope = 0;
  private opened = false;
  private celsius = 25;
  /** Of a bank that heats itself. */
  private readonly warmth: BatteryWarmth | undefined;
  private startVolts = 0;
  private ohms0 = 0;
  private emfAtStart = 0;
  private readonly bank: BankState;
  private readonly upper: number;
  private readonly lower: number;
  private readonly port: number;
  private readonly plus: number;
  private readonly minus: number;

  constructor(
    net: RigNetwork,
    readonly part: string,
    startSoc?: number,
  ) {
    const { compiled } = net;
    const doc = compiled.rig.parts.find((p) => p.id === part)!;
    this.name = doc.name;
    this.chemistry = chemistryOf(partOptions(partKind(doc.kind), doc)['chemistry']!);
    this.blocks =
      nominalOf(
        doc,
        compiled.rig.vehicles.find((v) => v.id === doc.vehicle)!,
      ) / 12;
    const p = (name: string) => net.parameterNow(`${part}.${name}`);
    this.capacity = p('capacity');
    this.soc = Math.max(0, Math.min(1, startSoc ?? p('soc')));
    this.v2 = p('surface') * this.blocks;
    this.warmth =
      partOptions(partKind(doc.kind), doc)['heater'] === 'built-in' ? new BatteryWarmth(net, part) : undefined;
    this.bank = {
      chemistry: this.chemistry,
      capacity: this.capacity,
      blocks: this.blocks,
      soc: this.soc,
      celsius: this.celsius,
      ageing: p('ageing'),
      cca: p('cca'),
    };
    const emf = (id: string) => compiled.topology.emfs.findIndex((e) => e.id === `${part}.${id}`);
    this.upper = emf('emf');
    this.lower = emf('lower');
    this.port = compiled.port.get(`${part}.overvoltage`)!;
    this.plus = compiled.node.get(`${part}.plus`)!;
    this.minus = compiled.node.get(`${part}.minus`)!;
  }

  refresh(net: RigNetwork): void {
    this.opened = net.values.emfOhms[this.upper]! > OPENED_OHMS;
    const air = net.inputs.leg?.celsius ?? 25;
    this.celsius = this.warmth ? this.warmth.refresh(net, air) : air;
  }

  /** The one working copy at a charge: asked for many times a step. */
  private state(soc: number): BankState {
    this.bank.soc = soc;
    this.bank.celsius = this.celsius;
    return this.bank;
  }

  private rest(soc: number): number {
    return bankRestVolts(this.state(soc));
  }

  /** Charge after a leap over repeats, whose sums are already in: what would lie beyond empty or full is not stored. */
  leapTo(soc: number): void {
    this.soc = Math.max(0, Math.min(1, soc));
    this.totals[2] = this.totals[2]! + (soc - this.soc) * this.capacity;
  }

  private ohmic(soc: number, charging: boolean): number {
    return bankOhms(this.state(soc), charging);
  }

  private overvolts(amps: number): number {
    return bankOvervolts(this.state(this.soc), amps);
  }

  /** Share of soc per A and s at a mean current. */
  private rate(amps: number, soc: number): number {
    const perSecond = 1 / (SECONDS_PER_HOUR * this.capacity);
    if (amps >= 0) return perSecond * storedShare(soc, this.chemistry);
    const i20 = this.capacity / 20;
    return perSecond * (-amps > i20 ? (-amps / i20) ** (this.chemistry.peukert - 1) : 1);
  }

  private standing(): number {
    return (this.chemistry.selfDischargePerDay / 86_400) * 2 ** ((this.celsius - 25) / 10);
  }

  private socAfter(mean: number, h: number): number {
    // What is stored depends on the charge itself: twice, at the start and at the middle so found.
    const half = this.soc + (this.rate(mean, this.soc) * mean * h) / 2;
    return Math.max(0, Math.min(1, this.soc + this.rate(mean, half) * mean * h - this.standing() * h));
  }

  stamp(net: RigNetwork, h: number): void {
    const { values } = net;
    this.warmth?.ahead(net, h);
    const mean = (this.amps + this.predicted) / 2;
    const soc = this.socAfter(mean, h);
    let volts = this.rest(soc);
    let ohms = this.ohmic(soc, this.predicted > 0);
    // How the rest volts follow the end current, unless the bank is at an end of its charge.
    if (h > 0 && soc > 0 && soc < 1) {
      const byAmp = (this.rate(mean, (this.soc + soc) / 2) * h) / 2;
      const ds = 1e-5;
      const slope = (this.rest(soc + ds) - this.rest(soc - ds)) / (2 * ds);
      volts -= slope * byAmp * this.predicted;
      ohms += slope * byAmp;
    }
    const g0 = this.overvolts(this.amps);
    let share = 0;
    const branch = (v: number, [f, tau]: readonly [number, number]) => {
      const x = h / tau;
      const e = Math.exp(-x);
      const a = x < 1e-6 ? 1 - x / 2 : (1 - e) / x;
      share += f * (1 - a);
      return v * e + f * g0 * (a - e);
    };
    volts += branch(this.v1, this.chemistry.builds[0]!) + branch(this.v2, this.chemistry.builds[1]!);
    values.emfVolts[this.upper] = volts / 2;
    values.emfVolts[this.lower] = volts / 2;
    values.emfOhms[this.lower] = ohms / 2;
    values.emfOhms[this.upper] = this.opened ? 1e6 : ohms / 2;
    // A step of no length has no share; the least one keeps the port's slope finite.
    const least = Math.max(share, 1e-4);
    OVERVOLTAGE.charging.set(values, this.port, this.blocks * this.chemistry.chargeOvervolts * least);
    OVERVOLTAGE.discharging.set(values, this.port, this.blocks * this.chemistry.dischargeOvervolts * least);
  }

  observe(net: RigNetwork): number {
    this.end = -net.solver.pushed(this.port);
    this.volts = net.solver.volts[this.plus]! - net.solver.volts[this.minus]!;
    const off = Math.abs(this.end - this.predicted);
    this.predicted = this.end;
    return off;
  }

  error(h: number): number {
    const bent = (Math.abs(this.end - this.amps - this.slope * h) * h) / SECONDS_PER_HOUR / 6;
    // What it would give beyond what is in it: such a step is too long.
    const mean = (this.amps + this.end) / 2;
    const beyond = mean < 0 ? -(this.soc + this.rate(mean, this.soc) * mean * h) * this.capacity : 0;
    return Math.max(bent, beyond, this.warmth?.error() ?? 0);
  }

  accept(h: number): void {
    if (h > 0) this.advance(h);
    this.warmth?.accept();
    this.slope = h > 0 ? (this.end - this.amps) / h : 0;
    this.amps = this.end;
    this.startVolts = this.volts;
    this.ohms0 = this.ohmic(this.soc, this.amps > 0);
    this.emfAtStart = this.rest(this.soc);
  }

  private advance(h: number): void {
    const [g0, g1] = [this.overvolts(this.amps), this.overvolts(this.end)];
    const branch = (v: number, [f, tau]: readonly [number, number]) => {
      const x = h / tau;
      const e = Math.exp(-x);
      const a = x < 1e-6 ? 1 - x / 2 : (1 - e) / x;
      return v * e + f * (g0 * (a - e) + g1 * (1 - a));
    };
    const vBefore = this.v1 + this.v2;
    this.v1 = branch(this.v1, this.chemistry.builds[0]!);
    this.v2 = branch(this.v2, this.chemistry.builds[1]!);
    const mean = (this.amps + this.end) / 2;
    const hours = h / SECONDS_PER_HOUR;
    const before = this.soc;
    this.soc = this.socAfter(mean, h);
    const stood = Math.min(this.standing() * h * this.capacity, before * this.capacity);
    const { totals } = this;
    totals[3] = totals[3]! + stood;
    if (mean >= 0) {
      totals[0] = totals[0]! + mean * hours;
      totals[2] = totals[2]! + mean * hours - stood - (this.soc - before) * this.capacity;
    } else {
      totals[1] = totals[1]! - mean * hours;
      totals[2] = totals[2]! + (before - this.soc) * this.capacity - stood + mean * hours;
    }
    // The same work twice: at the posts, and summed over the model's own terms.
    const { amps: i0, end: i1 } = this;
    const posts = ((this.startVolts * i0 + this.volts * i1) / 2) * h;
    totals[4] = totals[4]! + posts;
    totals[6] = totals[6]! + Math.abs(posts);
    const emfEnd = this.rest(this.soc);
    const ohmsEnd = this.ohmic(this.soc, i1 > 0);
    totals[5] =
      totals[5]! +
      ((this.emfAtStart + vBefore + this.ohms0 * i0) * i0 + (emfEnd + this.v1 + this.v2 + ohmsEnd * i1) * i1) * (h / 2);
  }

  discontinuity(): void {
    this.slope = 0;
    this.predicted = this.amps;
  }

  /** Where a straight continuation puts the end current. */
  predict(h: number): void {
    this.predicted = this.amps + this.slope * h;
  }

  /** Volts at the posts while the starter draws `amps`, some seconds in. */
  crankVolts(amps: number, seconds = 5): number {
    return bankCrankVolts(this.state(this.soc), amps, seconds) + this.v1 + this.v2;
  }

  save(): readonly number[] {
    return [
      this.soc,
      this.v1,
      this.v2,
      this.amps,
      this.slope,
      this.predicted,
      this.end,
      this.volts,
      this.startVolts,
      this.ohms0,
      this.emfAtStart,
      this.warmth?.rise ?? 0,
    ];
  }

  restore(s: readonly number[]): void {
    this.warmth?.restore(s[11]!);
    [
      this.soc,
      this.v1,
      this.v2,
      this.amps,
      this.slope,
      this.predicted,
      this.end,
      this.volts,
      this.startVolts,
      this.ohms0,
      this.emfAtStart,
    ] = s as [number, number, number, number, number, number, number, number, number, number, number];
  }
}
