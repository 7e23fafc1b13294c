import { describe, expect, it } from 'vitest';
import { motorhome, USUAL_MOTORHOME } from '../../rig/archetypes/motorhome';
import { coupledRig, USUAL_COUPLED } from '../../rig/archetypes/coupled';
import { COUPLED_FAMILIES, linksFor } from '../../rig/archetypes/coupledChoices';
import { LINK_CHOICES } from '../../rig/archetypes/choices';
import type { Rig } from '../../rig/schema';
import { candidatesOf } from '../candidates';
import { buildPlan } from './build';
import { SERVICE_LOOP_METRES } from './cutList';
import { orderSteps, respects, trips, type BuildStep } from './graph';
import { buildSteps } from './steps';

/** Every change of link our archetypes can make, as a technician would be given it. */
const CHANGES: { name: string; from: Rig; to: Rig }[] = [
  motorhome('t', 'T'),
  motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'dcdc', engineAt: 'front' }),
  ...COUPLED_FAMILIES.map(({ id }) => coupledRig('t', 'T', { ...USUAL_COUPLED[id], link: linksFor(id)[0]!.id })),
].flatMap((from) => candidatesOf(from).map((c) => ({ name: `${from.kind}: ${c.name}`, from, to: c.rig })));

/** Kahn's algorithm, written out apart: whether an order could have come of the graph. */
function couldBe(steps: readonly BuildStep[], order: readonly BuildStep[]): boolean {
  const waits = new Map(steps.map((s) => [s.id, new Set(s.after)]));
  for (const s of order) {
    if (!waits.has(s.id) || waits.get(s.id)!.size > 0) return false;
    waits.delete(s.id);
    for (const w of waits.values()) w.delete(s.id);
  }
  return waits.size === 0;
}

describe('a build', () => {
  it('covers the archetypes’ links', () => {
    expect(CHANGES.length).toBeGreaterThan(20);
    expect(LINK_CHOICES.length).toBeGreaterThan(5);
  });

  it.each(CHANGES)('$name: every step once, none before what it waits for', ({ from, to }) => {
    const plan = buildPlan(from, to);
    expect(couldBe(buildSteps(from, to), plan.steps)).toBe(true);
    if (plan.steps.length === 0) {
      expect(plan).toMatchObject({ parts: [], cuts: [], minutes: [0, 0] });
      return;
    }
    const at = (id: string) => plan.steps.findIndex((s) => s.id === id);
    // Negatives off before anything is touched, on after every wire; fuses last of all, so that the spark is at a fuse.
    const touched = plan.steps.filter((s) => /^(out|remove|mount|pull|connect)-/.test(s.id)).map((s) => at(s.id));
    for (const s of plan.steps.filter((x) => x.id.startsWith('off-')))
      expect(at(s.id)).toBeLessThan(Math.min(...touched, plan.steps.length));
    for (const s of plan.steps.filter((x) => x.id.startsWith('on-')))
      expect(at(s.id)).toBeGreaterThan(Math.max(...touched, 0));
    const battery = new Set(to.parts.filter((p) => p.kind === 'battery-bank').map((p) => p.id));
    const positives = plan.cuts
      .filter((c) => c.use === 'feed' && c.ends.some((e) => battery.has(e.at.part)))
      .map((c) => at(`connect-${c.id}`));
    const on = plan.steps.filter((x) => x.id.startsWith('on-')).map((x) => at(x.id));
    for (const s of plan.steps.filter((x) => x.id.startsWith('fuse-')))
      expect(at(s.id)).toBeGreaterThan(Math.max(...positives, ...on, 0));
    // A heavy wire has its lug before it is pulled.
    for (const c of plan.cuts) if (at(`lug-${c.id}`) >= 0) expect(at(`lug-${c.id}`)).toBeLessThan(at(`pull-${c.id}`));
    expect(plan.minutes[0]).toBeGreaterThan(0);
    expect(plan.minutes[1]).toBeGreaterThan(plan.minutes[0]);
  });

  it.each(CHANGES)('$name: what is new is ordered and cut, what stays is not', ({ from, to }) => {
    const plan = buildPlan(from, to);
    const fresh = to.parts.filter((p) => !from.parts.some((q) => q.id === p.id));
    for (const p of fresh) expect(plan.parts.map((l) => l.id)).toContain(p.id);
    const wires = to.conductors.filter((c) => !from.conductors.some((d) => JSON.stringify(d) === JSON.stringify(c)));
    for (const c of plan.cuts) {
      expect(wires.map((w) => w.id)).toContain(c.id);
      const run = to.conductors.find((w) => w.id === c.id)!.length + 2 * SERVICE_LOOP_METRES;
      expect(c.length).toBeGreaterThanOrEqual(run - 1e-6);
      expect(c.length).toBeLessThan(run + 0.011);
    }
    for (const w of to.conductors.filter((c) => !from.conductors.some((d) => d.id === c.id)))
      expect(plan.cuts.map((c) => c.id)).toContain(w.id);
    const metres = plan.parts.filter((l) => l.group === 'cable').reduce((sum, l) => sum + l.quantity, 0);
    expect(metres).toBeGreaterThanOrEqual(plan.cuts.reduce((sum, c) => sum + c.length, 0));
    const ends = plan.parts.filter((l) => l.group === 'ends').reduce((sum, l) => sum + l.quantity, 0);
    expect(ends).toBe(2 * plan.cuts.length);
  });

  it.each(CHANGES)('$name: what can hurt is said at the step before it can', ({ from, to }) => {
    const { steps } = buildPlan(from, to);
    if (steps.length === 0) return;
    const said = (s: BuildStep) => s.cautions.join(' ');
    const [first] = steps.filter((s) => s.id === 'isolate');
    expect(said(first!)).toMatch(/LP gas off/);
    expect(said(first!)).toMatch(/airbags/);
    for (const s of steps) {
      const part = to.parts.find((p) => p.id === s.piece);
      if (s.under) expect(said(s), s.id).toMatch(/stands/);
      if (s.id.startsWith('out-')) expect(said(s), s.id).toMatch(/Fuse out or negative off/);
      if (s.id.startsWith('on-')) expect(said(s), s.id).toMatch(/slide-outs/);
      if (s.id.startsWith('fuse-')) expect(said(s), s.id).toMatch(/away from the battery/);
      if (s.id.startsWith('mount-') && part?.kind === 'link-fuse') expect(said(s), s.id).toMatch(/ignition-protected/);
      if (s.id.startsWith('off-'))
        expect(said(s), s.id).toMatch(
          part?.options?.['chemistry'] === 'lfp' ? /BMS does not stop a short/ : /no spark/,
        );
    }
  });

  it('a part gone has its module taken out and its socket capped', () => {
    const from = motorhome('t', 'T');
    const to = motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'dcdc' });
    const step = buildPlan(from, to).steps.find((s) => s.id === 'remove-delay');
    expect(step?.title).toContain('cap its socket');
  });

  it('the shop’s own order is kept while it respects the graph', () => {
    const from = motorhome('t', 'T');
    const to = motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'dcdc' });
    const steps = buildSteps(from, to);
    const other = [...orderSteps(steps)].reverse();
    const rng = (n: number) => (n * 7919) % 13;
    // Another order of the same graph: ready steps drawn otherwise.
    const left = new Set(steps.map((s) => s.id));
    const own: string[] = [];
    for (let k = 0; left.size > 0; k++) {
      const ready = steps.filter((s) => left.has(s.id) && s.after.every((a) => !left.has(a)));
      const pick = ready[rng(k) % ready.length]!;
      own.push(pick.id);
      left.delete(pick.id);
    }
    expect(buildPlan(from, to, own).steps.map((s) => s.id)).toEqual(own);
    expect(respects(steps, other)).toBe(false);
    expect(buildPlan(from, to, other).steps.map((s) => s.id)).toEqual(orderSteps(steps));
  });
});

describe('the order of steps', () => {
  it.each(CHANGES)('$name: goes under the vehicle no oftener than the graph’s own order would', ({ from, to }) => {
    const steps = buildSteps(from, to);
    if (steps.length === 0) return;
    const plain = trips(
      steps,
      steps.map((s) => s.id),
    );
    const ours = trips(steps, orderSteps(steps));
    if (
      respects(
        steps,
        steps.map((s) => s.id),
      )
    )
      expect(ours.under + ours.moves / 100).toBeLessThanOrEqual(plain.under + plain.moves / 100);
    expect(ours.under).toBeLessThanOrEqual(3);
  });

  it('is the fewest trips there are on small graphs, tried out whole', () => {
    const step = (id: string, place: string, under: boolean, after: string[]): BuildStep => ({
      id,
      title: id,
      place,
      under,
      minutes: [1, 2],
      after,
      cautions: [],
    });
    const small = [
      step('a', 'X', false, []),
      step('b', 'U', true, ['a']),
      step('c', 'X', false, ['a']),
      step('d', 'U', true, ['c']),
      step('e', 'Y', false, ['b', 'd']),
      step('f', 'X', false, ['a']),
    ];
    const orders = (done: string[]): string[][] => {
      const ready = small.filter((s) => !done.includes(s.id) && s.after.every((a) => done.includes(a)));
      return ready.length === 0 ? [done] : ready.flatMap((s) => orders([...done, s.id]));
    };
    const best = Math.min(...orders([]).map((o) => trips(small, o).under));
    expect(trips(small, orderSteps(small)).under).toBe(best);
  });

  it('of steps that wait for each other is refused', () => {
    const s = (id: string, after: string[]): BuildStep => ({
      id,
      title: id,
      place: 'X',
      under: false,
      minutes: [1, 2],
      after,
      cautions: [],
    });
    expect(() => orderSteps([s('a', ['b']), s('b', ['a'])])).toThrow(/circle/);
  });
});
