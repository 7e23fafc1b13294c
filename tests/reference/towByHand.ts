/**
 * The coupled rig once more, written apart from src/core: dense Gaussian elimination with damped Newton on the
 * node equations, from the model's description in docs/models.md. It shares the interface document, the
 * catalogue's ratings and the wire table with the core, nothing of its solver or its network.
 */
import { connectorOf } from '../../src/core/parts/connectors';
import type { TowInterface, TowWay } from '../../src/core/rig/tow';
import type { TowVehicle } from '../../src/core/compile/tow/vehicle';
import { wireResistance } from '../../src/core/units/wire';

type Law = (u: number) => [amps: number, slope: number];
interface Branch {
  a: string;
  b: string;
  /** A from a to b by the volts across, and its slope. */
  law: Law;
}
const ohms =
  (r: number): Law =>
  (u) => [u / r, 1 / r];
const draws =
  (i: () => number): Law =>
  () => [i(), 0];

/** Newton on the node equations, frame at 0 V, every step halved until the error falls. */
function nodes(branches: readonly Branch[], start: Map<string, number>): Map<string, number> {
  const names = [...new Set(branches.flatMap((b) => [b.a, b.b]))].filter((x) => x !== 'frame');
  const index = new Map(names.map((x, i) => [x, i]));
  const n = names.length;
  let v = names.map((x) => start.get(x) ?? 12);
  const volt = (x: string, of: number[]) => (x === 'frame' ? 0 : of[index.get(x)!]!);
  const error = (of: number[]) => {
    const f = new Array<number>(n).fill(0);
    for (const { a, b, law } of branches) {
      const [i] = law(volt(a, of) - volt(b, of));
      if (a !== 'frame') f[index.get(a)!]! += i;
      if (b !== 'frame') f[index.get(b)!]! -= i;
    }
    return f;
  };
  const size = (f: number[]) => Math.sqrt(f.reduce((s, x) => s + x * x, 0));
  for (let k = 0; k < 400; k++) {
    const f = error(v);
    if (size(f) < 1e-9) break;
    const J = names.map(() => new Array<number>(n + 1).fill(0));
    for (const { a, b, law } of branches) {
      const g = law(volt(a, v) - volt(b, v))[1];
      const [i, j] = [index.get(a), index.get(b)];
      if (i !== undefined) J[i]![i]! += g;
      if (j !== undefined) J[j]![j]! += g;
      if (i !== undefined && j !== undefined) {
        J[i]![j]! -= g;
        J[j]![i]! -= g;
      }
    }
    names.forEach((_, i) => (J[i]![n] = -f[i]!));
    for (let c = 0; c < n; c++) {
      let p = c;
      for (let r = c + 1; r < n; r++) if (Math.abs(J[r]![c]!) > Math.abs(J[p]![c]!)) p = r;
      [J[c], J[p]] = [J[p]!, J[c]!];
      for (let r = c + 1; r < n; r++) {
        const m = J[r]![c]! / J[c]![c]!;
        if (m !== 0) for (let q = c; q <= n; q++) J[r]![q]! -= m * J[c]![q]!;
      }
    }
    const step = new Array<number>(n).fill(0);
    for (let r = n - 1; r >= 0; r--)
      step[r] = (J[r]![n]! - J[r]!.slice(r + 1, n).reduce((s, x, q) => s + x * step[r + 1 + q]!, 0)) / J[r]![r]!;
    let t = 1;
    while (t > 1e-6 && size(error(v.map((x, i) => x + t * step[i]!))) >= size(f)) t /= 2;
    v = v.map((x, i) => x + t * step[i]!);
  }
  return new Map([...names.map((x, i): [string, number] => [x, v[i]!]), ['frame', 0]]);
}

export interface HandSolved {
  amps: Map<string, number>;
  fridge?: { amps: number; volts: number };
  brakes?: { amps: number; volts: number };
  breakaway?: number;
  charger: 'none' | 'off' | 'on' | 'starved';
  chargerAmps: number;
  start: number;
  apart: number;
  hitch: number;
}
export type When = 'road' | 'braking' | 'stopped' | 'overnight';

const LAMP: Record<string, number> = {
  tail: 4,
  left: 2.2,
  right: 2.2,
  stop: 4.2,
  reverse: 2.2,
  fog: 2.2,
  'charger-enable': 0.05,
  'fridge-trigger': 0.15,
};

/** One situation by hand. */
export function byHand(tow: TowInterface, vehicle: TowVehicle, when: When, ran: boolean): HandSolved {
  const engine = when === 'road' || when === 'braking';
  const braking = when === 'braking';
  const live = (w: TowWay, combined: boolean): boolean =>
    w.feed === 'constant' ||
    (w.feed === 'ignition' && engine) ||
    (w.feed === 'tail' && engine) ||
    (w.feed === 'stop' && braking) ||
    (w.feed === 'brake' && braking) ||
    ((w.feed === 'left' || w.feed === 'right') && combined && braking);
  const all = tow.plugs.flatMap((plug) => plug.ways.map((way) => ({ plug, way, c: connectorOf(plug.connector) })));
  const fed = (use: string) => all.some((x) => (x.way.uses as string[]).includes(use) && live(x.way, x.c.combined));
  const relay =
    tow.fridge &&
    (tow.fridge.trigger === 'none' || (tow.fridge.trigger === 'looped' ? fed('fridge') : fed('fridge-trigger')));
  const branches: Branch[] = [];
  const between = (a: string, b: string, law: Law) => branches.push({ a, b, law });
  const bank = (plus: string, minus: string, b: TowVehicle['start'], above: number) => {
    const {
      ohmsTimesAh,
      grows,
      ohmsPerKelvin,
      taperTimesAh,
      taperEnd,
      exchangePerAh,
      chargeOvervolts,
      dischargeOvervolts,
      voltsPerKelvin,
      restVolts,
    } = b.chemistry;
    // Rest volts by the table, straight between its points.
    let k = 1;
    while (k < restVolts.length - 1 && restVolts[k]![0] < b.soc) k++;
    const [s0, v0] = restVolts[k - 1]!;
    const [s1, v1] = restVolts[k]!;
    const rest = b.blocks * (v0 + ((v1 - v0) * (b.soc - s0)) / (s1 - s0) + voltsPerKelvin * (b.celsius - 25)) + above;
    // A starting battery gives through the ohms its cranking amps tell: 2.7 V over them, more discharged and cold.
    const starts = !engine && (b.cca ?? 0) > 0;
    const [at25, more, cold] = starts ? [2.7 / b.cca!, 1.9, 0.02] : [ohmsTimesAh / b.capacity, grows, ohmsPerKelvin];
    const ends = engine ? taperTimesAh / b.capacity / (taperEnd - b.soc) : 0.012 / b.capacity / b.soc;
    const r = b.blocks * (at25 * (1 + more * (1 - b.soc) ** 2) * (1 + cold * Math.max(0, 25 - b.celsius)) + ends);
    const i0 = exchangePerAh * b.capacity;
    between(plus, `${plus}~`, (u) => {
      const eta = (u >= 0 ? chargeOvervolts : dischargeOvervolts) * b.blocks;
      const x = Math.max(-30, Math.min(30, u / eta));
      return [i0 * Math.sinh(x) + (i0 * Math.cosh(x) * (u - x * eta)) / eta, (i0 * Math.cosh(x)) / eta];
    });
    between(`${plus}~`, minus, (u) => [(u - rest) / r, 1 / r]);
    return { inner: `${plus}~`, rest, r };
  };
  const limited =
    (volts: number, r: number, limit: number): Law =>
    (u) =>
      u >= volts ? [0, 1e-12] : (volts - u) / r >= limit ? [-limit, 1e-12] : [-(volts - u) / r, 1 / r];
  const start = bank(
    'start',
    'frame',
    vehicle.start,
    when === 'stopped' && vehicle.start.chemistry.id !== 'lfp' ? 0.35 : 0,
  );
  if (engine) between('start', 'frame', limited(vehicle.alternator.volts, 0.003, vehicle.alternator.amps));
  between(
    'start',
    'frame',
    draws(() => (engine ? vehicle.running : vehicle.asleep)),
  );
  let fillerTakes = 0;
  if (vehicle.accessory) {
    bank('accessory', 'frame', vehicle.accessory.bank, 0);
    if (engine) {
      between('accessory', 'frame', limited(vehicle.accessory.chargerVolts, 0.01, vehicle.accessory.chargerAmps));
      between(
        'start',
        'frame',
        draws(() => fillerTakes),
      );
    }
  }
  between('trailer', 'frame', ohms(vehicle.hitchOhms));
  let chargerTakes = 0;
  let charger: { plus: string; minus: string } | undefined;
  let away: { node: string; minus: string; rest: number } | undefined;
  const across: { use: string; a: string; b: string; r: number }[] = [];
  const contacts: { key: string; a: string; b: string; r: number }[] = [];
  for (const { plug, way, c } of all) {
    const key = `${plug.id}.${way.pin}`;
    const position = c.positions.find((p) => p.id === way.pin)!;
    const roles = c.conventions.find((x) => x.id === plug.convention)!.uses;
    const joints = c.contact === 'bar' ? 0.0007 : way.feed === 'ground' ? 0.005 : 0.018;
    const front = wireResistance(way.gauge, way.length) + joints + (way.fuse ? 0.09 / way.fuse : 0);
    const loaded = (way.seen ?? [])
      .filter((s) => s.loaded !== undefined && Math.abs(s.open) > 9)
      .sort((a, b) => b.amps! - a.amps!)[0];
    const contact = Math.max(
      0.12 / position.amps,
      loaded ? Math.max(0, Math.abs(loaded.open) - Math.abs(loaded.loaded!)) / loaded.amps! : 0,
    );
    const own = roles[way.pin] === 'charge' ? 'ground-charge' : roles[way.pin] === 'switched' ? 'ground-switched' : '';
    const ownWired = plug.ways.some((w) => roles[w.pin] === own && w.feed === 'ground' && w.uses.includes('ground'));
    const minus = ownWired ? `${plug.id}/${own}` : 'trailer';
    if (way.feed === 'ground') between('frame', `s${key}`, ohms(front));
    else if (live(way, c.combined))
      between(way.from === 'accessory' && vehicle.accessory ? 'accessory' : 'start', `s${key}`, ohms(front));
    between(`s${key}`, `p${key}`, ohms(contact));
    between(`s${key}`, 'frame', ohms(1e7));
    contacts.push({ key, a: `s${key}`, b: `p${key}`, r: contact });
    if (way.uses.length === 0) continue;
    between(`p${key}`, `e${key}`, ohms(wireResistance(way.usesGauge, way.usesLength) + joints));
    for (const use of way.uses as string[]) {
      const hang = (r: number) => {
        between(`e${key}`, minus, ohms(r));
        across.push({ use, a: `e${key}`, b: minus, r });
      };
      if (use === 'ground')
        between(
          `e${key}`,
          roles[way.pin]!.startsWith('ground-') ? `${plug.id}/${roles[way.pin]}` : 'trailer',
          ohms(0.001),
        );
      else if (use === 'charger') {
        charger = { plus: `e${key}`, minus };
        between(
          `e${key}`,
          minus,
          draws(() => chargerTakes),
        );
      } else if (use === 'bank') {
        if (vehicle.behind) {
          bank(`e${key}`, minus, vehicle.behind, 0);
          between(
            `e${key}`,
            minus,
            draws(() => vehicle.behindDraws),
          );
        }
      } else if (use === 'breakaway') {
        away = { node: 'away', minus, rest: 12.2 + 0.6 * (tow.breakaway?.soc ?? 0.8) };
        between(`e${key}`, 'away', (u) => {
          const x = Math.min(30, u / 0.027);
          return [
            1e-5 * (Math.exp(x) - 1) + (1e-5 * Math.exp(x) * (u - x * 0.027)) / 0.027,
            (1e-5 * Math.exp(x)) / 0.027 + 1e-12,
          ];
        });
        const { rest } = away;
        between('away', minus, (u) => [(u - rest) / 0.4, 2.5]);
      } else if (use === 'fridge') hang(relay ? 144 / tow.fridge!.watts : 1e7);
      else if (use === 'brakes') {
        if (tow.brakes!.supply === 'pin') hang(12 / tow.brakes!.amps);
      } else hang(12 / LAMP[use]!);
    }
  }
  let v = new Map<string, number>();
  const solve = () => {
    for (let k = 0; k < 60; k++) {
      v = nodes(branches, v);
      if (!vehicle.accessory || !engine) return;
      const u = v.get('accessory')!;
      const given = Math.max(0, Math.min(vehicle.accessory.chargerAmps, (vehicle.accessory.chargerVolts - u) / 0.01));
      const next = (given * u) / 0.88 / v.get('start')!;
      if (Math.abs(next - fillerTakes) < 1e-6) return;
      fillerTakes = next;
    }
  };
  solve();
  let state: HandSolved['charger'] = charger ? 'off' : 'none';
  if (charger && tow.charger) {
    const input = () => v.get(charger!.plus)! - v.get(charger!.minus)!;
    const { enable, lockout, amps, outVolts, inLimit } = tow.charger;
    const told =
      enable === 'wire'
        ? engine
        : enable === 'pin'
          ? fed('charger-enable')
          : enable === 'always'
            ? input() > lockout
            : input() >= (ran ? (tow.charger.stopsAt ?? 13.2) : (tow.charger.startsAt ?? 13.8));
    if (told && input() > 1) {
      state = 'on';
      for (let k = 0; k < 60; k++) {
        const next = Math.min(inLimit, (amps * outVolts) / 0.88 / input());
        if (Math.abs(next - chargerTakes) < 1e-5) break;
        chargerTakes = next;
        solve();
        if (input() < lockout) {
          state = 'starved';
          chargerTakes = 0;
          solve();
          break;
        }
      }
    }
  }
  const volts = (x: { a: string; b: string }) => v.get(x.a)! - v.get(x.b)!;
  const of = (use: string) => {
    const x = across.find((y) => y.use === use);
    return x && { volts: volts(x), amps: volts(x) / x.r };
  };
  const fridge = of('fridge');
  const brakes = of('brakes');
  return {
    amps: new Map(contacts.map((x) => [x.key, volts(x) / x.r])),
    ...(fridge ? { fridge } : {}),
    ...(brakes ? { brakes } : {}),
    ...(away ? { breakaway: (v.get('away')! - v.get(away.minus)! - away.rest) / 0.4 } : {}),
    charger: state,
    chargerAmps: chargerTakes,
    start: (v.get(start.inner)! - start.rest) / start.r,
    apart: v.get('trailer')!,
    hitch: v.get('trailer')! / vehicle.hitchOhms,
  };
}
