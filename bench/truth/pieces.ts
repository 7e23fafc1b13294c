/** How every kind of part really works: one row a kind. All of it common practice and handbook figures, from memory. */
import { written, type DocPart } from './document';
import type { Device } from './network';
import type { Doing } from './doing';
import type { Contact, Piece, Vehicle } from './vehicle';

type Make = (v: Vehicle, part: DocPart) => Piece;

/** Something that takes amps by the volts it gets: a resistor of so many amps at its rated volts. */
const draws = (v: Vehicle, part: DocPart, amps: (doing: Doing) => number): Piece => {
  const nominal = v.nominal(part);
  const r = v.resistor(`${part.id}.draw`, `${part.id}.plus`, `${part.id}.minus`, Infinity);
  return {
    told(doing) {
      const a = amps(doing);
      r.ohms = a > 0 ? (nominal * 1.05) / a : Infinity;
    },
  };
};

/** A battery bank: halves with a middle, strings side by side where it has them, none quite like another. */
function bank(v: Vehicle, part: DocPart): Piece {
  const { chance, laws, net } = v;
  const nominal = v.nominal(part);
  const at = (n: string) => net.node(`${part.id}.${n}`);
  const starts = part.side === 'engine' && part.options?.['chemistry'] !== 'lfp' && part.id.startsWith('chassis');
  const ah = written(part, 'capacity', 100) * chance.between(0.8, 1.03);
  const filled = starts ? chance.between(0.72, 0.98) : chance.between(0.42, 0.92);
  const worn = chance.decades(0.9, 1.9);
  const strings = part.options?.['layout'] === 'series-parallel' ? 2 : 1;
  const list = [];
  for (let s = 0; s < strings; s++) {
    const middle = s === 0 ? at('middle') : net.node(`${part.id}.middle${s}`);
    if (s > 0)
      v.resistor(`${part.id}.jumper${s}`, `${part.id}.plus`, `${part.id}.plus~${s}`, chance.decades(1e-4, 8e-4));
    const plus = s === 0 ? at('plus') : net.node(`${part.id}.plus~${s}`);
    for (const [a, b] of [
      [plus, middle],
      [middle, at('minus')],
    ] as const)
      list.push(
        laws.battery(
          a,
          b,
          {
            chemistry: part.options?.['chemistry'] ?? 'flooded',
            ah: (ah / strings) * chance.between(0.95, 1.05),
            volts: nominal / 2,
            cca: starts ? 8.5 * written(part, 'capacity', 100) * chance.between(0.85, 1.1) : 0,
            filled: Math.max(0.03, Math.min(0.995, filled + 0.012 * chance.bell())),
            worn: worn * chance.between(0.9, 1.1),
            celsius: v.celsius,
          },
          chance,
        ),
      );
  }
  net.devices.push(...list);
  v.batteries.set(part.id, list);
  v.resistor(`${part.id}.post-plus`, `${part.id}.plus`, `${part.id}.plus^`, chance.decades(3e-5, 5e-4));
  v.resistor(`${part.id}.post-minus`, `${part.id}.minus`, `${part.id}.minus^`, chance.decades(3e-5, 5e-4));
  return {};
}

/** A module that puts volts on its output while it wants to. `wants` is asked after every step. */
function module(
  v: Vehicle,
  part: DocPart,
  feeds: readonly string[],
  wants: (volts: (terminal: string) => number, dt: number) => string | undefined,
): Piece {
  const { ohms, leak } = v.laws.module(v.chance);
  const p = (t: string) => `${part.id}.${t}`;
  const contacts = feeds.map((f) => v.contact(p(`from-${f}`), p(f), p('output'), ohms));
  v.resistor(p('leak'), p(feeds[0]!), p('output'), leak);
  for (const f of feeds) v.resistor(p(`supply-${f}`), p(f), p('ground'), v.chance.between(500, 3000));
  return {
    decide(dt) {
      const feed = v.marks.has(p('dead')) ? undefined : wants((t) => v.volts(p(t), p('ground')), dt);
      let changed = false;
      feeds.forEach((f, i) => (changed = contacts[i]!.set(f === feed) || changed));
      return changed;
    },
  };
}

/** Closes after its inputs were over a mark for a while, opens after they were under another. */
class Hysteresis {
  private since = 0;
  on = false;
  constructor(
    readonly close: number,
    readonly open: number,
    readonly delay: number,
  ) {}
  step(volts: number, dt: number): boolean {
    const wants = this.on ? volts >= this.open : volts > this.close;
    this.since = wants === this.on ? 0 : this.since + dt;
    if (this.since >= (this.on ? 5 : this.delay)) {
      this.on = wants;
      this.since = 0;
    }
    return this.on;
  }
}

/** Charger between two places: takes at its input what it gives at its output and what it loses. */
function converter(v: Vehicle, part: DocPart): Piece {
  const { chance, net, laws } = v;
  const p = (t: string) => `${part.id}.${t}`;
  const nominal = v.nominal(part);
  const times = written(part, 'absorb', 14.4) > 40 ? 4 : nominal > 20 ? nominal / 12 : 1;
  const out = laws.charger(net.node(p('output')), net.node(p('ground')), 1, times, chance);
  const limit = written(part, 'limit', 20) * chance.between(0.93, 1.04);
  out.can = 0;
  net.devices.push(out);
  v.chargers.set(part.id, out);
  const lossy = chance.between(0.83, 0.92);
  const input: Device & { takes: number } = {
    plus: net.node(p('input')),
    minus: net.node(p('ground')),
    takes: 0,
    push(volts) {
      // Below 9 V it lets go, smoothly enough for the arithmetic.
      const share = Math.max(0, Math.min(1, (volts - 8) / 2));
      return { amps: -this.takes * share, slope: volts > 8 && volts < 10 ? this.takes / 2 : 0 };
    },
    remember: () => undefined,
  };
  net.devices.push(input);
  v.resistor(p('supply'), p('input'), p('ground'), chance.between(800, 4000));
  v.resistor(p('enable-pull'), p('enable'), p('ground'), chance.between(1500, 5000));
  const byVolts = part.options?.['enable'] === 'volts';
  const always = part.options?.['enable'] === 'always';
  const gate = byVolts
    ? new Hysteresis(chance.between(13.1, 13.7), chance.between(12.6, 13), chance.between(5, 60))
    : new Hysteresis(8, 6, chance.between(1, 8));
  const lock = new Hysteresis(chance.between(12.1, 12.4), chance.between(11.3, 11.9), 3);
  return {
    decide(dt) {
      const vin = v.volts(p('input'), p('ground'));
      const vout = v.volts(p('output'), p('ground'));
      const dead = v.marks.has(p('dead')) || vout < 3;
      const enabled = gate.step(byVolts || always ? vin : v.volts(p('enable'), p('ground')), dt);
      const may = lock.step(vin, dt) && enabled && !dead;
      const wish = may ? limit * (v.marks.has(p('derated')) ? 0.3 : 1) : 0;
      const before = out.can;
      // It comes up and goes down softly, and never takes more than its input may.
      const share = Math.min(1, 1 - Math.exp(-dt / 3));
      out.can = wish === 0 ? 0 : before + (wish - before) * share;
      const amps = out.can > 0 ? out.push(vout, dt).amps : 0;
      const wants = out.can > 0 ? (amps * vout) / Math.max(8, vin) / lossy : 0;
      const most = written(part, 'inLimit', 60);
      if (wants > most) out.can *= most / wants;
      const takes = Math.min(wants, most);
      const moved = Math.abs(takes - input.takes) > 0.02 * Math.max(1, takes);
      input.takes += (takes - input.takes) * 0.7;
      return moved && Math.abs(out.can - before) > 0.01 * limit;
    },
  };
}

/** Two things in a row, as one: a lamp whose ohms rise with what it gets, and a diode that lets nothing back. */
function lampAndDiode(v: Vehicle, part: DocPart): Piece {
  const { chance, net } = v;
  const p = (t: string) => `${part.id}.${t}`;
  const hot = written(part, 'watts', 55) / 12 / Math.pow(12, 0.58);
  const knee = chance.between(0.55, 0.75);
  const device: Device = {
    plus: net.node(p('to')),
    minus: net.node(p('from')),
    push(volts) {
      const over = -volts - knee;
      if (v.marks.has(p('blown')) || over <= 0) return { amps: 0, slope: 1e-6 };
      // Cold it has a tenth of its ohms: straight below a volt.
      const amps = over < 1 ? hot * over : hot * Math.pow(over, 0.58);
      return { amps, slope: over < 1 ? hot : 0.58 * hot * Math.pow(over, -0.42) };
    },
    remember: () => undefined,
  };
  net.devices.push(device);
  return {};
}

function diodePair(v: Vehicle, part: DocPart): Piece {
  const p = (t: string) => `${part.id}.${t}`;
  for (const stud of ['chassis-stud', 'coach-stud'])
    v.net.devices.push({
      plus: v.net.node(p(stud)),
      minus: v.net.node(p('input')),
      push(volts) {
        if (v.marks.has(p(`${stud}-open`))) return { amps: 0, slope: 1e-6 };
        const over = -volts - 0.62;
        return over > 0 ? { amps: over / 0.004, slope: 1 / 0.004 } : { amps: 0, slope: 1e-6 };
      },
      remember: () => undefined,
    });
  return {};
}

/** A breaker that opens when it got too hot, and closes again once it has cooled; a manual one stays open. */
function breaker(v: Vehicle, part: DocPart): Piece {
  const rating = written(part, 'rating', 30) * v.chance.between(0.95, 1.25);
  const c = v.contact(`${part.id}.element`, `${part.id}.source`, `${part.id}.load`, v.chance.decades(0.004, 0.03));
  c.set(true);
  let heat = 0;
  let out = false;
  return {
    decide(dt) {
      const amps = Math.abs(v.net.amps(c.resistor));
      heat += ((amps / (rating * (v.marks.has(`${part.id}.weak`) ? 0.25 : 1))) ** 2 - heat) * (1 - Math.exp(-dt / 40));
      if (!out && heat > 1.4) out = true;
      else if (out && heat < 0.5 && part.options?.['type'] !== 'manual') out = false;
      return c.set(!out);
    },
  };
}

const simpleContact = (
  v: Vehicle,
  id: string,
  a: string,
  b: string,
  ohms: number,
  closed: (d: Doing) => boolean,
): Piece => {
  const c = v.contact(id, a, b, ohms);
  return {
    told(doing) {
      c.set(closed(doing));
    },
  };
};

/** A heavy contact pulled in by its coil, dropped by a weak one. */
function solenoid(v: Vehicle, part: DocPart): Piece {
  const p = (t: string) => `${part.id}.${t}`;
  const n = v.nominal(part) / 12;
  const relay = written(part, 'coil', 15) > 40;
  const ohms = relay ? v.chance.between(0.003, 0.012) : v.chance.decades(3e-4, 1.6e-3);
  const c: Contact = v.contact(p('contact'), p('chassis-stud'), p('coach-stud'), ohms);
  const coil = v.resistor(
    p('coil'),
    p('coil-plus'),
    p('coil-minus'),
    written(part, 'coil', 15) * v.chance.between(0.85, 1.2),
  );
  const pulls = v.chance.between(6.5, 8.6) * n;
  return {
    decide() {
      // It is the current that pulls: an open coil has volts and pulls nothing.
      const alive = Number.isFinite(coil.ohms);
      const volts = alive ? Math.abs(v.volts(p('coil-plus'), p('coil-minus'))) : 0;
      const mark = c.closed ? 3.2 * n : v.marks.has(p('stiff')) ? 99 : pulls;
      return c.set(volts > mark);
    },
  };
}

/** A charger on the mains: holds its first stage until the bank takes little, then floats. */
function mains(v: Vehicle, part: DocPart): Piece {
  const { net, chance, laws } = v;
  const times = v.nominal(part) / 12;
  const source = laws.charger(
    net.node(`${part.id}.plus`),
    net.node(`${part.id}.minus`),
    written(part, 'limit', 45),
    times,
    chance,
  );
  const first = part.options?.['build'] === 'converter' ? 13.6 * times : source.holds;
  const floats = chance.between(13.3, 13.7) * times;
  const most = source.can;
  source.can = 0;
  net.devices.push(source);
  v.chargers.set(part.id, source);
  let low = 0;
  return {
    told(doing) {
      source.can = doing.mains && !v.marks.has(`${part.id}.dead`) ? most : 0;
      source.holds = v.marks.has(`${part.id}.floats`) ? 13.2 * times : first;
      low = 0;
    },
    decide(dt) {
      if (source.can === 0) return false;
      const { amps } = source.push(v.volts(`${part.id}.plus`, `${part.id}.minus`), dt);
      low = amps < 0.05 * most ? low + dt : 0;
      if (low < 900 || source.holds === floats) return false;
      source.holds = floats;
      return true;
    },
  };
}

const sun: Make = (v, part) => {
  const source = v.laws.charger(
    v.net.node(`${part.id}.plus`),
    v.net.node(`${part.id}.minus`),
    1,
    v.nominal(part) / 12,
    v.chance,
  );
  const most = v.chance.between(0, 1.2) * written(part, 'amps', 4);
  source.can = 0;
  v.net.devices.push(source);
  return {
    told(doing) {
      source.can = doing.sun ? most : 0;
    },
  };
};

const alternator: Make = (v, part) => {
  const { chance, net, laws } = v;
  const smart = part.options?.['regulator'] === 'smart' || chance.happens(0.06);
  const rated = written(part, 'fastLimit', 120) * 1.08;
  const a = laws.alternator(
    net.node(`${part.id}.output`),
    net.node(`${part.id}.case`),
    rated,
    v.nominal(part) / 12,
    smart,
    chance,
  );
  net.devices.push(a);
  v.alternators.set(part.id, a);
  return { told: (doing) => a.speed(doing.rpm, chance) };
};

export const PIECES: Readonly<Record<string, Make>> = {
  alternator,
  'battery-bank': bank,
  'shore-charger': mains,
  'solar-charger': sun,
  'dcdc-charger': converter,
  'dual-charger': converter,
  'diode-lamp': lampAndDiode,
  'diode-isolator': diodePair,
  'line-breaker': breaker,
  'link-solenoid': solenoid,
  'chassis-loads': (v, part) => {
    const { off, keyOn, running } = v.loads;
    return draws(v, part, (d) => (d.rpm !== 'off' ? running : d.key ? keyOn : off));
  },
  // Fridge and fans come and go by themselves: other amps each time somebody looks.
  'house-loads': (v, part) =>
    draws(v, part, (d) => (d.disconnect ? v.loads.house * v.chance.between(0.5, 1.4) : 0) * (12 / v.nominal(part))),
  'towed-car-loads': (v, part) => draws(v, part, (d) => (d.rpm === 'off' ? 0.03 : 1.8) * v.chance.between(0.7, 1.6)),
  'fridge-element': (v, part) =>
    draws(v, part, () => (part.options?.['position'] === 'battery' ? written(part, 'watts', 290) / 12 : 0)),
  generator: (v, part) => draws(v, part, () => 0),
  'link-fuse': (v, part) => {
    v.resistor(`${part.id}.element`, `${part.id}.source`, `${part.id}.load`, v.chance.decades(4e-4, 4e-3));
    return {};
  },
  disconnect: (v, part) =>
    simpleContact(
      v,
      `${part.id}.contact`,
      `${part.id}.battery`,
      `${part.id}.house`,
      v.chance.decades(3e-4, 2.5e-3),
      (d) => d.disconnect,
    ),
  'tow-connector': (v, part) => {
    const p = (t: string) => `${part.id}.${t}`;
    const heavy = written(part, 'pin', 0.004) < 0.002;
    const ohms = () => v.chance.decades(heavy ? 2e-4 : 0.002, heavy ? 1e-3 : 0.014);
    const pins = [
      simpleContact(v, p('pin'), p('front'), p('rear'), ohms(), (d) => d.coupled),
      simpleContact(v, p('ground-pin'), p('rear-ground'), p('front-ground'), ohms(), (d) => d.coupled),
    ];
    return {
      told(doing) {
        for (const pin of pins) pin.told!(doing);
      },
    };
  },
  'ignition-switch': (v, part) => {
    const p = (t: string) => `${part.id}.${t}`;
    // Other circuits hang on the same run: blower, radio, gauges.
    const metal = v.rig.grounds[0]!;
    const other = v.net.resistor(p('run'), `${metal.id}.${metal.points[0]!.id}`, Infinity);
    const contact = simpleContact(v, p('contact'), p('feed'), p('run'), v.chance.decades(0.006, 0.06), (d) => d.key);
    return {
      told(doing) {
        contact.told!(doing);
        other.ohms = doing.key ? v.nominal(part) / (v.loads.ignition * v.chance.between(0.6, 1.2)) : Infinity;
      },
    };
  },
  'boost-switch': (v, part) => {
    const p = (t: string) => `${part.id}.${t}`;
    v.resistor(p('fuse'), p('feed'), p('fused'), v.chance.decades(0.006, 0.05));
    return simpleContact(
      v,
      p('contact'),
      p('fused'),
      p('output'),
      v.chance.decades(0.01, 0.1),
      (d) => d.boost || v.marks.has(p('wedged')),
    );
  },
  'link-switch': (v, part) =>
    simpleContact(
      v,
      `${part.id}.contact`,
      `${part.id}.feed`,
      `${part.id}.output`,
      v.chance.decades(0.01, 0.08),
      () => part.options?.['position'] !== 'off',
    ),
  'ignition-delay-module': (v, part) => {
    const gate = new Hysteresis(7.5, 6, v.chance.between(15, 35));
    return module(v, part, ['ignition'], (volts, dt) => (gate.step(volts('ignition'), dt) ? 'ignition' : undefined));
  },
  'voltage-link-module': (v, part) => {
    const n = v.nominal(part) / 12;
    const gate = new Hysteresis(
      v.chance.between(12.95, 13.35) * n,
      v.chance.between(12.6, 12.85) * n,
      v.chance.between(2, 12),
    );
    return module(v, part, ['chassis-sense'], (volts, dt) =>
      gate.step(volts('chassis-sense'), dt) ? 'chassis-sense' : undefined,
    );
  },
  'bidirectional-module': (v, part) => {
    const n = v.nominal(part) / 12;
    const marks = () =>
      new Hysteresis(v.chance.between(13, 13.35) * n, v.chance.between(12.65, 12.85) * n, v.chance.between(2, 20));
    const chassis = marks();
    const coach = marks();
    return module(v, part, ['chassis-sense', 'coach-sense'], (volts, dt) => {
      const a = chassis.step(volts('chassis-sense'), dt);
      const b = coach.step(volts('coach-sense'), dt);
      return a ? 'chassis-sense' : b ? 'coach-sense' : undefined;
    });
  },
  'voltage-relay': (v, part) => {
    const p = (t: string) => `${part.id}.${t}`;
    const gate = new Hysteresis(v.chance.between(12.9, 13.35), v.chance.between(12.4, 12.75), v.chance.between(1, 8));
    const c = v.contact(p('contact'), p('input'), p('output'), v.chance.decades(0.002, 0.012));
    v.resistor(p('supply'), p('input'), p('ground'), v.chance.between(600, 2500));
    return { decide: (dt) => c.set(gate.step(v.volts(p('input'), p('ground')), dt)) };
  },
};
