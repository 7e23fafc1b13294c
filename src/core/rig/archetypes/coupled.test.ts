/** What two coupled vehicles can be drawn with beside their link: a fridge that chooses, a house bank as the source. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../../compile/compile';
import { towVehicle } from '../../compile/tow/vehicle';
import { rigFaults } from '../../diagnose/faults';
import { RigModel } from '../../operate/settle';
import { statesOf } from '../../operate/states';
import { usualScenarios } from '../../plan/usualScenarios';
import { checkDesign } from '../../rules/check';
import { auditTow } from '../../rules/tow/audit';
import { usualTow } from '../../rules/tow/usual';
import type { Leg, Scenario } from '../../simulate/scenarioSchema';
import { simulate } from '../../simulate/simulate';
import { sizeRig } from '../../size/sizing';
import { checkRig } from '../check';
import type { Rig } from '../schema';
import { coupledRig, USUAL_COUPLED } from './coupled';
import type { CoupledChoices } from './coupledSchema';

const leg = (kind: Leg['kind'], hours: number, more: Partial<Leg> = {}): Leg => ({
  id: `${kind}${hours}`,
  name: kind,
  kind,
  hours,
  celsius: 20,
  sunHours: 0,
  loads: [],
  ...more,
});
const run = (rig: Rig, legs: readonly Leg[], startSoc: Record<string, number> = {}) =>
  simulate(compileRig(rig), { id: 'use', name: 'Use', startHour: 8, startSoc, legs: [...legs] } satisfies Scenario, {
    series: false,
  });
const endOf = (rig: Rig, part: string, legs: readonly Leg[], startSoc: Record<string, number> = {}) =>
  run(rig, legs, startSoc).summary.batteries.find((b) => b.part === part)!.endSoc;
/** A into the fridge's element in a state. */
const fridgeAmps = (rig: Rig, state: string) => {
  const compiled = compileRig(rig);
  const model = new RigModel(compiled);
  const { modes } = model.settle(state);
  const at = (key: string) => model.solver.volts[compiled.node.get(key)!]!;
  const on = modes['fridge']?.mode === 'battery';
  return on ? (at('fridge.plus') - at('fridge.minus')) / (12 ** 2 / 290) : 0;
};
const dangers = (rig: Rig) =>
  checkDesign(rig, sizeRig(rig, usualScenarios({ driveHours: 1, nights: 1 }, 'coach-bank')))
    .filter((f) => f.severity === 'danger')
    .map((f) => f.says);

const FRIDGES = [
  ['camper, thin line', { ...USUAL_COUPLED.camper, fridgeSelects: 'itself' }],
  ['trailer, heavy line', { ...USUAL_COUPLED.trailer, link: 'heavy-line', fridge: true, fridgeSelects: 'itself' }],
  [
    'trailer, charger on a switched line',
    { ...USUAL_COUPLED.trailer, link: 'dcdc', fridge: true, fridgeSelects: 'itself' },
  ],
  [
    'trailer, charger on a constant line',
    { ...USUAL_COUPLED.trailer, link: 'dcdc', feed: 'constant', fridge: true, fridgeSelects: 'itself' },
  ],
] as const satisfies readonly (readonly [string, CoupledChoices])[];

describe.each(FRIDGES)('a fridge that goes to 12 V by itself: %s', (name, choices) => {
  const rig = coupledRig('t', 'T', choices);
  const byHand = coupledRig('t', 'T', { ...choices, fridgeSelects: 'hand' });

  it('is a sound drawing without a danger', () => {
    expect(checkRig(rig)).toEqual([]);
    const model = new RigModel(compileRig(rig));
    for (const state of statesOf(rig)) expect(model.settle(state.id).solved, state.id).toBe(true);
    expect(dangers(rig)).toEqual([]);
  });

  it('draws its 23 to 25 A wherever the engine runs, nothing at rest, and nothing on 12 V while there is shore power', () => {
    // Common practice: measured at the end of eight meters. A thin line sags, and gives less.
    const amps = fridgeAmps(rig, 'idle');
    expect(amps).toBeGreaterThan(15);
    expect(amps).toBeLessThan(27);
    expect(fridgeAmps(rig, 'rested')).toBe(0);
  });

  it('costs the start battery nothing overnight; chosen by hand and forgotten, it empties it', () => {
    const night = [leg('drive', 1), leg('stand', 10)];
    const left = endOf(rig, 'chassis-bank', night);
    const forgotten = endOf(
      byHand,
      'chassis-bank',
      night.map((l) => ({ ...l, fridgeOnBattery: true })),
    );
    expect(left).toBeGreaterThan(0.7);
    expect(left).toBeGreaterThanOrEqual(forgotten - 0.01);
  });

  it('waits a quarter of an hour after the stop before it is on gas', () => {
    const { events } = run(rig, [leg('drive', 1), leg('stand', 1)]);
    const said = events.filter((e) => e.part === 'fridge').map((e) => [e.t, e.what] as const);
    const off = said.find(([, says]) => /lets go of 12 V/.test(says))!;
    const gas = said.find(([s, says]) => s > off[0] && /goes to gas/.test(says))!;
    expect(gas[0] - off[0]).toBeGreaterThan(14.9 * 60);
    expect(gas[0] - off[0]).toBeLessThan(15.1 * 60);
  });

  it('passes its tow plug’s audit, its trigger known: one of feed and trigger is switched, not both, not none', () => {
    const tow = usualTow(rig)!;
    expect(tow.fridge!.trigger).toBe(name.includes('switched') ? 'looped' : 'wire');
    const { before } = auditTow(tow, towVehicle(rig)!);
    expect(before.troubles.map((t) => t.id)).not.toContain('tow-fridge-parked');
    expect(before.troubles.map((t) => t.id)).not.toContain('tow-trigger-double');
  });

  it('has faults of its own: trigger, element, a relay that stays', () => {
    expect(rigFaults(rig).map((f) => f.id)).toEqual(
      expect.arrayContaining(['fridge-trigger.trigger-lost', 'fridge.element-open', 'fridge.stays-on']),
    );
  });
});

describe('a fridge’s trigger', () => {
  const rig = coupledRig('t', 'T', FRIDGES[1][1]);
  const rules = (r: Rig) => checkDesign(r, sizeRig(r, [])).map((f) => f.rule);
  const wires = (change: (c: Rig['conductors'][number]) => Rig['conductors'][number][]): Rig => ({
    ...rig,
    conductors: rig.conductors.flatMap((c) => (c.id === 'fridge-trigger' ? change(c) : [c])),
  });

  it('looped to a line that a bank hangs on never goes dead: a danger, and the model agrees', () => {
    const looped = wires((c) => [{ ...c, from: { part: 'fridge', terminal: 'plus' } }]);
    expect(rules(looped)).toContain('fridge-trigger-live');
    expect(fridgeAmps(looped, 'rested')).toBeGreaterThan(10);
    expect(rules(rig)).not.toContain('fridge-trigger-live');
  });

  it('looped to a pin that is always live never goes dead either, though no bank behind hangs on it', () => {
    const constant = coupledRig('t', 'T', {
      ...USUAL_COUPLED.trailer,
      link: 'dcdc',
      feed: 'constant',
      fridge: true,
      fridgeSelects: 'itself',
    });
    const looped: Rig = {
      ...constant,
      conductors: constant.conductors.map((c) =>
        c.id === 'fridge-trigger' ? { ...c, from: { part: 'fridge', terminal: 'plus' } } : c,
      ),
    };
    expect(rules(looped)).toContain('fridge-trigger-live');
    expect(fridgeAmps(looped, 'rested')).toBeGreaterThan(10);
    expect(rules(constant)).not.toContain('fridge-trigger-live');
  });

  it('that is not there is said', () => {
    expect(rules(wires(() => []))).toContain('fridge-trigger-nowhere');
    expect(rules(rig)).not.toContain('fridge-trigger-nowhere');
  });
});

describe('a towed car fed from the motorhome’s house bank', () => {
  const choices = { ...USUAL_COUPLED['towed-car'], source: 'house' } as const satisfies CoupledChoices;
  const rig = coupledRig('t', 'T', choices);

  it('is a sound drawing: the line begins at the house bank, fused there', () => {
    expect(checkRig(rig)).toEqual([]);
    expect(dangers(rig)).toEqual([]);
    expect(rig.conductors.find((c) => c.id === 'fuse-lead')!.from).toEqual({
      part: 'accessory-bank',
      terminal: 'plus',
    });
    expect(rig.parts.find((p) => p.id === 'accessory-bank')!.name).toBe('House bank');
    expect(
      usualTow(rig)!
        .plugs.flatMap((p) => p.ways)
        .find((w) => w.uses.includes('bank'))!.from,
    ).toBe('accessory');
  });

  it('takes the car’s charge from that bank, not from the start battery', () => {
    const soc = { 'accessory-bank': 0.8, 'coach-bank': 0.5, 'chassis-bank': 0.9 };
    const standing = coupledRig('t', 'T', { ...choices, feed: 'constant' });
    const left = (part: string) => endOf(standing, part, [leg('stand', 8)], soc);
    expect(left('accessory-bank')).toBeLessThan(0.797);
    expect(left('chassis-bank')).toBeGreaterThan(0.88);
    expect(left('coach-bank')).toBeGreaterThan(0.5);
  });

  it('may have a breaker set by hand at the car: it opens and stays open', () => {
    const broken = coupledRig('t', 'T', { ...choices, behindBreaker: true });
    expect(checkRig(broken)).toEqual([]);
    expect(dangers(broken)).toEqual([]);
    const breaker = broken.parts.find((p) => p.id === 'behind-fuse')!;
    expect(breaker).toMatchObject({ kind: 'line-breaker', options: { type: 'manual' } });
    expect(rigFaults(broken).some((f) => f.owner === 'behind-fuse')).toBe(true);
  });
});
