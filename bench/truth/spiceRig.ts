/** A rig solved by ngspice: what was done to it is kept, and the deck is run again whenever somebody measures later. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { key, written, type DocPart, type RigDocument } from './document';
import { PARKED, type Doing } from './doing';
import { copper } from './laws';
import type { Chance } from './random';
import { deck, node, SPICE_PARTS } from './spiceDeck';
import type { Hand, TrueBattery, TrueContact, TrueRig } from './trueRig';

/** Seconds a run looks ahead, so that the next readings in a state need no other. */
const AHEAD = 900;

interface Run {
  until: number;
  times: Float64Array;
  column: Map<string, Float64Array>;
}

const isHeavy = (gauge: string) => gauge.includes('/') || Number(gauge) < 12;

export class SpiceRig implements TrueRig {
  readonly ohms = new Map<string, { ohms: number }>();
  readonly contacts = new Map<string, TrueContact & { closed: boolean }>();
  readonly batteries = new Map<string, TrueBattery[]>();
  readonly alternators = new Map<string, { strength: number; shift: number }>();
  readonly marks = new Set<string>();
  readonly joined: { id: string; a: string; b: string }[] = [];
  readonly hand: Hand = { gain: 0.004, clampGain: 0.02, clampZero: 0.3, slips: 0.015, early: 0.06 };
  readonly celsius: number;
  readonly figures;
  private time = 0;
  private readonly history: { from: number; doing: Doing; house: number }[] = [];
  private run: Run | undefined;
  private readonly onClamp: boolean;

  /** Whether a deck has a paragraph for every part of a drawing. */
  static can(rig: RigDocument): boolean {
    return rig.parts.every((p) => p.kind in SPICE_PARTS) && rig.vehicles.every((v) => v.nominalVolts === 12);
  }

  constructor(
    readonly rig: RigDocument,
    readonly chance: Chance,
  ) {
    this.celsius = 8 + 22 * chance.unit();
    this.onClamp = chance.happens(0.15);
    this.figures = {
      regulator: chance.between(13.85, 14.5),
      droop: chance.between(0.05, 0.16),
      idle: chance.between(0.38, 0.66),
      shore: chance.between(14.15, 14.6),
      charger: chance.between(0.85, 1.03),
      sun: chance.between(0, 5),
      others: chance.decades(0.7, 8),
      ignitionOhms: chance.decades(0.008, 0.07),
      pulls: chance.between(6.6, 8.6),
      leak: chance.decades(6000, 150_000),
      delay: chance.between(16, 34),
      off: chance.between(0.02, 0.06),
      keyOn: chance.between(4, 11),
      running: chance.between(10, 30),
      house: chance.decades(0.5, 6),
    };
    for (const w of rig.conductors) {
      const joint = () => (isHeavy(w.gauge) ? chance.decades(6e-5, 1.1e-3) : chance.decades(0.004, 0.05));
      const run = copper(
        w.gauge,
        w.length * chance.between(0.72, 1.3),
        chance.between(5, 40),
        chance.happens(0.1) ? 1 : 0,
      );
      this.ohms.set(w.id, { ohms: run + joint() + joint() });
    }
    for (const g of rig.grounds)
      for (const p of g.points.slice(1)) this.ohms.set(`${g.id}/${p.id}`, { ohms: chance.decades(1e-4, 1.2e-3) });
    for (const b of rig.bonds)
      this.ohms.set(b.id, { ohms: b.id === 'hitch' ? chance.decades(0.4, 50) : chance.decades(2e-4, 2.5e-3) });
    for (const part of rig.parts) this.figure(part);
    this.history.push({ from: 0, doing: PARKED, house: 1 });
  }

  private figure(part: DocPart): void {
    const { chance } = this;
    const ohm = (name: string, ohms: number) => this.ohms.set(`${part.id}.${name}`, { ohms });
    const contact = (name: string, ohms: number) =>
      this.contacts.set(`${part.id}.${name}`, { ohms, open: false, welded: false, closed: false });
    if (part.kind === 'battery-bank') {
      const strings = part.options?.['layout'] === 'series-parallel' ? 2 : 1;
      const starts = part.id.startsWith('chassis');
      const filled = starts ? chance.between(0.7, 0.97) : chance.between(0.4, 0.93);
      const worn = chance.decades(0.9, 1.8);
      const ah = (written(part, 'capacity', 100) * chance.between(0.8, 1.02)) / strings;
      const halves = Array.from({ length: 2 * strings }, () => ({
        ah: ah * chance.between(0.96, 1.04),
        rated: 6,
        cca: starts ? 8.5 * written(part, 'capacity', 100) : 0,
        deadCells: 0,
        filled: Math.min(0.99, filled + 0.012 * chance.bell()),
        worn: worn * chance.between(0.9, 1.1),
      }));
      this.batteries.set(part.id, halves);
      ohm('post-plus', chance.decades(4e-5, 5e-4));
      ohm('post-minus', chance.decades(4e-5, 5e-4));
      if (strings > 1) ohm('jumper1', chance.decades(1e-4, 7e-4));
    } else if (part.kind === 'alternator') this.alternators.set(part.id, { strength: 1, shift: 0 });
    else if (part.kind === 'link-fuse') ohm('element', chance.decades(4e-4, 3e-3));
    else if (part.kind === 'line-breaker') contact('element', chance.decades(0.004, 0.025));
    else if (part.kind === 'disconnect') contact('contact', chance.decades(3e-4, 2e-3));
    else if (part.kind === 'tow-connector') {
      contact('pin', chance.decades(0.002, 0.012));
      contact('ground-pin', chance.decades(0.002, 0.012));
    } else if (part.kind === 'boost-switch') {
      ohm('fuse', chance.decades(0.006, 0.05));
      contact('contact', chance.decades(0.01, 0.1));
    } else if (part.kind === 'link-solenoid') {
      const relay = written(part, 'coil', 15) > 40;
      contact('contact', relay ? chance.between(0.003, 0.012) : chance.decades(3e-4, 1.5e-3));
      ohm('coil', written(part, 'coil', 15) * chance.between(0.85, 1.2));
    } else if (part.kind === 'ignition-delay-module') contact('from-ignition', chance.between(0.1, 0.9));
  }

  /** A resistor's line; one that is open is left out. */
  r(id: string, a: string, b: string): string {
    const { ohms } = this.ohms.get(id)!;
    return Number.isFinite(ohms) ? `R_${node(id)} ${a} ${b} ${ohms}` : `* ${node(id)} is open`;
  }

  clampOf(point: string): string {
    const [part, terminal] = point.split('.') as [string, string];
    const bank = this.rig.parts.some((p) => p.id === part && p.kind === 'battery-bank');
    return bank && (terminal === 'plus' || terminal === 'minus') ? `${point}.clamp` : point;
  }

  join(id: string, a: string, b: string, ohms: number): void {
    this.ohms.set(id, { ohms });
    this.joined.push({ id, a, b });
  }

  now(doing: Partial<Doing>): void {
    this.history.push({ from: this.time, doing: { ...PARKED, ...doing }, house: this.chance.between(0.5, 1.4) });
    if (this.run && this.run.until > this.time) this.run = undefined;
  }

  wait(seconds: number): void {
    this.time += seconds;
  }

  restSeconds(): number {
    return this.chance.happens(0.2) ? 1800 : this.chance.between(120, 360);
  }

  /** What is done, as step functions by name of a control node. */
  controls(): [string, string][] {
    const f = this.figures;
    const of: Readonly<Record<string, (d: Doing, house: number) => number>> = {
      c_key: (d) => Number(d.key),
      c_boost: (d) => Number(d.boost),
      c_mains: (d) => Number(d.mains),
      c_sun: (d) => Number(d.sun),
      c_coupled: (d) => Number(d.coupled),
      c_disconnect: (d) => Number(d.disconnect),
      c_rpm: (d) => ({ off: 0, idle: f.idle, 'fast-idle': 0.9 })[d.rpm],
      c_chassis: (d) => (d.rpm !== 'off' ? f.running : d.key ? f.keyOn : f.off),
      c_house: (d, house) => (d.disconnect ? f.house * house : 0),
      c_towed: (d) => (d.rpm === 'off' ? 0.03 : 1.8),
    };
    return Object.entries(of).map(([name, value]) => {
      const points: string[] = [];
      let last = 0;
      for (const { from, doing, house } of this.history) {
        const x = value(doing, house);
        if (points.length === 0) points.push(`0 ${x}`);
        else if (x !== last) points.push(`${from + 0.001} ${last} ${from + 0.051} ${x}`);
        last = x;
      }
      return [name, points.join(' ')];
    });
  }

  private solve(until: number, lamp?: string): Run {
    const folder = mkdtempSync(join(tmpdir(), 'truth-'));
    try {
      const text = deck(this, Math.max(0, this.time - 2), until, lamp).replace('write OUT', `write ${folder}/out.raw`);
      // A contact that chatters can stop ngspice: then a little more stray capacitance. A deck that prints nothing ends
      // with status 1: the file is what tells.
      for (const stray of ['1e-6', '1e-4', '1e-3'])
        if (!existsSync(join(folder, 'out.raw'))) {
          writeFileSync(join(folder, 'deck.cir'), text.replace('cshunt=1e-6', `cshunt=${stray}`));
          spawnSync('ngspice', ['-b', join(folder, 'deck.cir')], { stdio: 'ignore', timeout: 60_000 });
        }
      return { until, ...parse(readFileSync(join(folder, 'out.raw'), 'latin1')) };
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  }

  private volts(point: string, run = this.present()): number {
    if (point === key(this.rig.reference)) return 0;
    const column = run.column.get(`v(${node(point).toLowerCase()})`);
    if (!column) return 0;
    const { times } = run;
    let i = times.length - 1;
    while (i > 0 && times[i - 1]! >= this.time) i--;
    if (i === 0) return column[0]!;
    const share = (this.time - times[i - 1]!) / Math.max(1e-9, times[i]! - times[i - 1]!);
    return column[i - 1]! + Math.min(1, share) * (column[i]! - column[i - 1]!);
  }

  private present(): Run {
    if (!this.run || this.run.until < this.time) this.run = this.solve(this.time + AHEAD);
    for (const [id, c] of this.contacts) {
      const part = id.split('.')[0]!;
      const kind = this.rig.parts.find((p) => p.id === part)?.kind;
      if (kind === 'link-solenoid') {
        const run = this.run;
        c.closed =
          Number.isFinite(this.ohms.get(`${part}.coil`)!.ohms) &&
          Math.abs(this.volts(`${part}.coil-plus`, run) - this.volts(`${part}.coil-minus`, run)) > 5;
      } else if (kind === 'ignition-delay-module') {
        const run = this.run;
        c.closed =
          this.volts(`${part}.output`, run) > 0.6 * this.volts(`${part}.ignition`, run) &&
          this.volts(`${part}.ignition`, run) > 6;
      }
    }
    return this.run;
  }

  reading(probe: string, black?: string): number {
    const [owner, terminal] = probe.split('.') as [string, string];
    this.present();
    if (terminal === 'clamp') return this.amps(owner);
    const put = (point: string) => this.volts(this.onClamp ? this.clampOf(point) : point);
    return put(probe) - (black === undefined ? 0 : put(black));
  }

  amps(id: string): number {
    const wire = this.rig.conductors.find((c) => c.id === id);
    if (wire) return this.through(id, this.clampOf(key(wire.from)), this.clampOf(key(wire.to)));
    const [part, piece] = id.split('.') as [string, string];
    const ends = { contact: ['chassis-stud', 'coach-stud'], element: ['source', 'load'] }[piece];
    return ends ? this.through(id, `${part}.${ends[0]}`, `${part}.${ends[1]}`) : 0;
  }

  private through(id: string, a: string, b: string): number {
    const ohms = this.contacts.get(id)?.ohms ?? this.ohms.get(id)!.ohms;
    return Number.isFinite(ohms) ? (this.volts(a) - this.volts(b)) / ohms : 0;
  }

  lampAt(point: string): number {
    return this.volts(point, this.solve(this.time + 1, point));
  }
}

/** Columns of ngspice's raw file of numbers as text. */
function parse(raw: string): { times: Float64Array; column: Map<string, Float64Array> } {
  const names = [...raw.slice(raw.indexOf('Variables:'), raw.indexOf('Values:')).matchAll(/^\t\d+\t(\S+)\t/gm)].map(
    (m) => m[1]!,
  );
  const numbers = raw
    .slice(raw.indexOf('Values:') + 7)
    .trim()
    .split(/\s+/);
  const wide = names.length + 1;
  const count = Math.floor(numbers.length / wide);
  const column = new Map(names.map((n) => [n, new Float64Array(count)]));
  names.forEach((n, k) => {
    const list = column.get(n)!;
    for (let i = 0; i < count; i++) list[i] = Number(numbers[i * wide + 1 + k]);
  });
  return { times: column.get('time')!, column };
}
