/**
 * The tow audit against a second solve written apart from it, and its smallest set of changes against trying
 * every smaller set.
 */
import { RULE_SETS } from '../../src/core/codes';
import { describe, expect, it } from 'vitest';
import { connectorOf } from '../../src/core/parts/connectors';
import { pinUse, type FeedId } from '../../src/core/parts/pinUses';
import { coupledRig, USUAL_COUPLED } from '../../src/core/rig/archetypes/coupled';
import { COUPLED_FAMILIES, linksFor } from '../../src/core/rig/archetypes/coupledChoices';
import { checkRig } from '../../src/core/rig/check';
import type { TowInterface, TowWay } from '../../src/core/rig/tow';
import { auditTow } from '../../src/core/rules/tow/audit';
import { changesFor } from '../../src/core/rules/tow/changes';
import { waysOf } from '../../src/core/compile/tow/ways';
import { solveTow } from '../../src/core/operate/tow/solveTow';
import { COUPLED_HOURS, towTroubles } from '../../src/core/rules/tow/troubles';
import { usualTow } from '../../src/core/rules/tow/usual';
import { towVehicle, type TowVehicle } from '../../src/core/compile/tow/vehicle';
import { startLimitSoc } from '../../src/core/size/calculators/batteries';
import { seededRng } from '../../src/core/units/rng';
import { byHand, type HandSolved, type When } from './towByHand';

const RIGS = COUPLED_FAMILIES.flatMap(({ id }) =>
  linksFor(id).map((l) => ({
    name: `${id}, ${l.id}`,
    rig: coupledRig('t', 'T', { ...USUAL_COUPLED[id], link: l.id }),
  })),
);
const FEEDS: FeedId[] = ['none', 'ground', 'constant', 'ignition', 'tail', 'stop', 'brake'];

/** An interface with so many things done wrong to it that technicians have seen done. */
function spoiled(tow: TowInterface, rng: ReturnType<typeof seededRng>, times: number): TowInterface {
  const t = structuredClone(tow);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(rng.uniform() * list.length)]!;
  const way = (): TowWay => pick(t.plugs.flatMap((p) => p.ways));
  const powered = (): TowWay => {
    const list = t.plugs.flatMap((p) => p.ways).filter((w) => w.uses.some((u) => pinUse(u).power));
    return list.length > 0 ? pick(list) : way();
  };
  const wrongs: (() => void)[] = [
    () => void (powered().feed = 'constant'),
    () => void (powered().feed = 'none'),
    () => void (powered().from = 'accessory'),
    () => void (powered().fuse = 0),
    () => void (powered().fuse = 100),
    () => void (way().feed = pick(FEEDS)),
    () => void (t.fridge && (t.fridge.trigger = 'looped')),
    () => void (t.charger && (t.charger.enable = pick(['always', 'sense'] as const))),
    () => void (t.brakes && (t.brakes.supply = 'converter')),
    () => void (t.breakaway && (t.breakaway.capacity = 2)),
    () => {
      const w = powered();
      w.seen = [{ when: 'key-on', open: 12.5, loaded: 10.5, amps: 4 }];
    },
    () => {
      const [a, b] = [powered(), powered()];
      [a.uses, b.uses] = [b.uses, a.uses];
    },
    () => {
      const w = powered();
      w.gauge = '14';
      w.usesGauge = '14';
    },
  ];
  for (let k = 0; k < times; k++) pick(wrongs)();
  return t;
}

/** What must hold of a good interface, said of the independent solve alone. */
function violations(tow: TowInterface, vehicle: TowVehicle): string[] {
  const road = byHand(tow, vehicle, 'road', false);
  const ran = road.charger === 'on';
  const s: Record<When, HandSolved> = {
    road,
    braking: byHand(tow, vehicle, 'braking', ran),
    stopped: byHand(tow, vehicle, 'stopped', ran),
    overnight: byHand(tow, vehicle, 'overnight', false),
  };
  const bad: string[] = [];
  const say = (wrong: boolean, what: string) => void (wrong && bad.push(what));
  for (const id of ['stopped', 'overnight'] as const) {
    say((s[id].fridge?.amps ?? 0) > 1, `fridge ${id}`);
    say(s[id].chargerAmps > 1, `charger ${id}`);
  }
  const usable =
    Math.max(0, vehicle.start.soc - startLimitSoc(vehicle.start, vehicle.starter)) * vehicle.start.capacity;
  say(s.overnight.start < 0 && usable / -s.overnight.start < COUPLED_HOURS, 'no start');
  const bears = (key: string) => {
    const [plug, pin] = key.split('.');
    return connectorOf(tow.plugs.find((p) => p.id === plug)!.connector).positions.find((p) => p.id === pin)!.amps;
  };
  for (const id of ['road', 'stopped', 'overnight'] as const)
    for (const [key, amps] of s[id].amps) say(Math.abs(amps) > bears(key) * 1.001, `${key} carries ${amps} ${id}`);
  if (s.road.fridge) say(s.road.fridge.volts < 10.499 || s.road.fridge.amps < 10, 'fridge cold');
  if (s.braking.brakes) say(s.braking.brakes.volts < 10.199, 'brakes weak');
  say(s.road.brakes !== undefined && s.road.brakes.amps > 0.5, 'brakes drag');
  say(tow.brakes !== undefined && (tow.brakes.supply !== 'pin' || s.braking.brakes === undefined), 'brakes unfed');
  say(tow.breakaway !== undefined && !tow.breakaway.keeper && (s.road.breakaway ?? 0) < 0.0499, 'breakaway uncharged');
  say(
    tow.breakaway !== undefined &&
      tow.brakes !== undefined &&
      (tow.breakaway.capacity * tow.breakaway.soc * 0.55 * 60) / tow.brakes.amps < 15,
    'breakaway short',
  );
  say(s.road.charger === 'off' || s.road.charger === 'starved', `charger ${s.road.charger}`);
  say(Math.abs(s.road.apart) > 0.601 || Math.abs(s.road.hitch) > 1.001, 'frames apart');
  for (const { way } of tow.plugs.flatMap((p) => p.ways.map((w) => ({ way: w })))) {
    for (const use of way.uses)
      say(!(pinUse(use).served as readonly string[]).includes(way.feed), `${use} on ${way.feed}`);
    say((way.feed === 'constant' || way.feed === 'ignition') && !way.fuse, 'no fuse');
    if (way.uses.includes('charger') || way.uses.includes('fridge'))
      say(way.from === 'accessory' && vehicle.accessory !== undefined, 'chained');
  }
  return bad;
}

describe('the coupled rig', () => {
  it('solved twice, apart, carries the same amps at every position in every situation', () => {
    const rng = seededRng(77);
    let compared = 0;
    for (const { name, rig } of RIGS)
      for (let k = 0; k < 6; k++) {
        const tow = spoiled(usualTow(rig)!, rng, k);
        if (checkRig({ ...rig, tow }).length > 0) continue;
        const vehicle = towVehicle(rig)!;
        const solved = solveTow(tow, vehicle);
        for (const c of solved) {
          const hand = byHand(
            tow,
            vehicle,
            c.situation.id,
            solved[0]!.charger === 'on' && c.situation.id !== 'overnight' && c.situation.id !== 'road',
          );
          const where = `${name}, ${c.situation.id}`;
          expect(c.charger, where).toBe(hand.charger);
          // Into a dead short the two stop at their own clamps; that it is one, both say.
          const short = [...hand.amps.values()].some((a) => Math.abs(a) > 100);
          if (short) expect(Math.max(...[...c.ways.values()].map((f) => Math.abs(f.amps))), where).toBeGreaterThan(90);
          if (short) continue;
          for (const [key, flow] of c.ways)
            expect(
              Math.abs(flow.amps - hand.amps.get(key)!),
              `${where}, ${key}: ${flow.amps} and ${hand.amps.get(key)}`,
            ).toBeLessThan(0.02);
          expect(Math.abs(c.start - hand.start), `${where}, start`).toBeLessThan(0.03);
          compared++;
        }
      }
    expect(compared).toBeGreaterThan(200);
  });

  it('as drawn passes what the trade measures (common practice, no source)', () => {
    const thin = RIGS.find((r) => r.name === 'trailer, thin-line')!.rig;
    const into = solveTow(usualTow(thin)!, towVehicle(thin)!)[0]!.uses.get('bank')!.amps;
    // A thin factory line: 3 to 8 A into a bank that has come up some way.
    expect(into).toBeGreaterThan(3);
    expect(into).toBeLessThan(8);
    const fridge = RIGS.find((r) => r.name === 'camper, dcdc')!.rig;
    const element = solveTow(usualTow(fridge)!, towVehicle(fridge)!)[0]!.uses.get('fridge')!;
    // About 23–25 A, measured at the end of an 8 m run; a short heavy one passes a little more.
    expect(element.amps).toBeGreaterThan(23);
    expect(element.amps).toBeLessThan(28);
  });
});

describe('the audit', () => {
  it('leaves nothing that the second solve finds wrong, and nothing smaller would have done', () => {
    const rng = seededRng(2026);
    let mended = 0;
    let proved = 0;
    for (let k = 0; k < 120; k++) {
      const { name, rig } = RIGS[k % RIGS.length]!;
      const tow = spoiled(usualTow(rig)!, rng, 1 + (k % 3));
      if (checkRig({ ...rig, tow }).length > 0) continue;
      const vehicle = towVehicle(rig)!;
      const audit = auditTow(tow, vehicle);
      expect(audit.left.map((t) => `${name} ${k}: ${t.id} ${t.says}`)).toEqual([]);
      const end = audit.after?.tow ?? tow;
      expect(checkRig({ ...rig, tow: end })).toEqual([]);
      expect(violations(end, vehicle), `${name} ${k}`).toEqual([]);
      if (audit.changes.length === 0) continue;
      expect(audit.before.troubles.length).toBeGreaterThan(0);
      mended++;
      if (audit.changes.length > 2 || !audit.smallest) continue;
      // Every smaller set, of all changes against any trouble: none is enough.
      const { troubles, solved } = towTroubles(tow, vehicle);
      const context = { tow, vehicle, ways: waysOf(tow), solved, rules: RULE_SETS.us };
      if (audit.changes.length === 2)
        for (const t of troubles)
          for (const change of changesFor(context, t))
            expect(
              violations(change.tow, vehicle).length + towTroubles(change.tow, vehicle).troubles.length,
              `${name} ${k}: ${change.says}`,
            ).toBeGreaterThan(0);
      proved++;
    }
    expect(mended).toBeGreaterThan(40);
    expect(proved).toBeGreaterThan(25);
  });
});
