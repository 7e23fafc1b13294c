/** What a motorhome can be drawn with beside its link: each whole, without a danger of its own, and doing what it should. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../../compile/compile';
import { rigFaults } from '../../diagnose/faults';
import { observationsOf } from '../../diagnose/observations';
import { ownerSentences } from '../../documents/ownerCard';
import { RigModel } from '../../operate/settle';
import { statesOf } from '../../operate/states';
import { generatorCranks } from '../../plan/questions';
import { usualScenarios } from '../../plan/usualScenarios';
import { checkDesign } from '../../rules/check';
import type { Leg, Scenario } from '../../simulate/scenarioSchema';
import { simulate } from '../../simulate/simulate';
import { DEFAULT_SETTINGS } from '../../shop/shop';
import { sizeRig } from '../../size/sizing';
import { stripLayout } from '../../../ui/strip/layout';
import { checkRig } from '../check';
import type { Rig } from '../schema';
import type { MotorhomeChoices } from './choicesSchema';
import { motorhome, USUAL_MOTORHOME } from './motorhome';

const of = (more: Partial<MotorhomeChoices>) => motorhome('t', 'T', { ...USUAL_MOTORHOME, ...more });
const found = (rig: Rig) => checkDesign(rig, sizeRig(rig, usualScenarios({ driveHours: 1, nights: 1 }, 'coach-bank')));
const VAN: Partial<MotorhomeChoices> = {
  engineAt: 'front',
  length: 6.4,
  link: 'dcdc-dual',
  dcdcAmps: 30,
  solar: true,
  disconnect: 'none',
  chassis: { chemistry: 'agm', layout: 'single', capacity: 95 },
  coach: { chemistry: 'lfp', layout: 'single', capacity: 200 },
};
const WAYS = [
  ['keyed connectors round the charger', { link: 'dcdc', bypass: true, bypassBy: 'keyed' }],
  ['a monitor', { monitor: true }],
  ['an aluminum body', { body: 'aluminum' }],
  ['a key of a switch panel', { switchPanel: true }],
  ['a third more cable', { detour: 0.3 }],
  ['a van with a dual-input charger and lithium', VAN],
  ['a 24 V coach with a dual-input charger, no panels', { link: 'dcdc-dual', nominalVolts: 24, dcdcAmps: 15 }],
] as const satisfies readonly (readonly [string, Partial<MotorhomeChoices>])[];

describe.each(WAYS)('a motorhome with %s', (_, more) => {
  const rig = of(more);

  it('is a sound drawing that settles in every state, on the strip, without a danger', () => {
    expect(checkRig(rig)).toEqual([]);
    const model = new RigModel(compileRig(rig));
    for (const state of statesOf(rig)) expect(model.settle(state.id).solved, state.id).toBe(true);
    expect(() => stripLayout(rig)).not.toThrow();
    expect(
      found(rig)
        .filter((f) => f.severity === 'danger')
        .map((f) => f.says),
    ).toEqual([]);
  });
});

describe('keyed connectors', () => {
  const rig = of({ link: 'dcdc', bypass: true, bypassBy: 'keyed' });

  it('are the way round on the card, and forgotten joined are a fault of their own', () => {
    expect(JSON.stringify(ownerSentences('works', rig, DEFAULT_SETTINGS))).toMatch(/join the two keyed connectors/);
    expect(JSON.stringify(ownerSentences('works', of({ link: 'dcdc', bypass: true }), DEFAULT_SETTINGS))).toMatch(
      /close the bypass by hand/,
    );
    expect(rigFaults(rig).map((f) => f.id)).toContain('bypass.left-closed');
  });
});

describe('a monitor’s shunt', () => {
  const rig = of({ monitor: true, generator: true });
  const moved = (id: string, end: 'from' | 'to', part: string, terminal: string): Rig => ({
    ...rig,
    conductors: rig.conductors.map((c) => (c.id === id ? { ...c, [end]: { part, terminal } } : c)),
  });
  const rules = (r: Rig) => found(r).map((f) => f.rule);

  it('sees all that is drawn; a return on the post goes past it, and is named', () => {
    for (const rule of ['shunt-bypassed', 'shunt-in-feed', 'shunt-reversed']) expect(rules(rig)).not.toContain(rule);
    const past = moved('generator-negative', 'to', 'coach-bank', 'minus');
    expect(found(past).find((f) => f.rule === 'shunt-bypassed')?.at).toBe('generator-negative');
  });

  it('in the positive, or the wrong way round, is said', () => {
    expect(rules(moved('shunt-lead', 'from', 'coach-bank', 'plus'))).toContain('shunt-in-feed');
    const swapped: Rig = {
      ...rig,
      conductors: rig.conductors.map((c) =>
        c.id === 'shunt-lead'
          ? { ...c, to: { part: 'shunt', terminal: 'system' } }
          : c.id === 'coach-negative'
            ? { ...c, from: { part: 'shunt', terminal: 'battery' } }
            : c,
      ),
    };
    expect(rules(swapped)).toContain('shunt-reversed');
  });

  it('loses its 50 mV at 500 A and no more: common practice', () => {
    const compiled = compileRig(rig);
    const model = new RigModel(compiled);
    model.settle('idle');
    const at = (key: string) => model.solver.volts[compiled.node.get(key)!]!;
    expect(Math.abs(at('shunt.battery') - at('shunt.system'))).toBeLessThan(0.03);
  });
});

describe('a generator with its own starter', () => {
  const rig = of({ generator: true, coach: { chemistry: 'flooded', layout: 'series', capacity: 105 } });
  const ask = (from: number, celsius = 15) =>
    generatorCranks({ compiled: compileRig(rig), bank: 'coach-bank', celsius, loads: [] }, from)!;
  const volts = (says: string) => [...says.matchAll(/([\d.]+) V under/g)].map((m) => Number(m[1]));

  it('cranks on a good bank, not on an empty one in the cold, and boost helps it', () => {
    expect(ask(0.9).says).toMatch(/^Now it cranks/);
    expect(ask(0.03, -20).says).toMatch(/^Now it would not crank/);
    const [now, boosted] = volts(ask(0.15, -10).says);
    expect(boosted).toBeGreaterThan(now!);
  });

  it('has fewer volts the emptier the bank and the colder it is', () => {
    const at = [0.9, 0.6, 0.3, 0.1].map((soc) => ask(soc).at);
    for (let i = 1; i < at.length; i++) expect(at[i]).toBeLessThan(at[i - 1]!);
    expect(ask(0.5, -15).at).toBeLessThan(ask(0.5, 20).at);
  });

  it('is told of boost only where there is a way to lend the other bank', () => {
    expect(ask(0.5).says).toMatch(/ten minutes of boost/);
    const without = of({ generator: true, boost: false });
    const told = generatorCranks({ compiled: compileRig(without), bank: 'coach-bank', celsius: 15, loads: [] }, 0.5)!;
    expect(told.says).toMatch(/^Now it /);
    expect(told.says).not.toMatch(/boost/);
  });

  it('is no question where there is none', () => {
    expect(
      generatorCranks({ compiled: compileRig(of({})), bank: 'coach-bank', celsius: 15, loads: [] }, 0.5),
    ).toBeUndefined();
  });
});

describe('a switch panel', () => {
  it('has a swap test and a lamp that tell panel, wire and fuse apart; a switch of its own has neither', () => {
    const rig = of({ switchPanel: true });
    const asked = observationsOf(rig, rigFaults(rig));
    const swap = asked.find((q) => q.id === 'panel-swap.boost')!;
    expect(swap.faults['boost.switch-open']!['no']).toBeGreaterThan(0.9);
    expect(swap.how).toMatch(/order the new one/);
    expect(asked.find((q) => q.id === 'panel-lamp.boost')!.faults['boost.fuse-blown']!['blown']).toBeGreaterThan(0.8);
    const plain = of({});
    expect(observationsOf(plain, rigFaults(plain)).some((q) => q.id.startsWith('panel-'))).toBe(false);
  });
});

describe('an aluminum body', () => {
  it('is asked how its returns are joined, until somebody looked', () => {
    const rig = of({ body: 'aluminum' });
    const finding = found(rig).find((f) => f.rule === 'aluminum-joint')!;
    expect(finding.severity).toBe('look');
    const seen: Rig = { ...rig, conductors: rig.conductors.map((c) => ({ ...c, looked: true })) };
    expect(found(seen).some((f) => f.rule === 'aluminum-joint')).toBe(false);
    expect(found(of({})).some((f) => f.rule === 'aluminum-joint')).toBe(false);
  });
});

describe('a detour', () => {
  it('makes every run that much longer, and the drop with it', () => {
    const length = (detour: number) => of({ detour }).conductors.find((c) => c.id === 'link-cable')!.length;
    expect(length(0.5)).toBeGreaterThan(1.3 * length(0));
    expect(length(0)).toBe(of({}).conductors.find((c) => c.id === 'link-cable')!.length);
  });
});

describe('a van in one box', () => {
  it('charges lithium on the road, and gives its start battery a trickle once the bank is full', () => {
    const rig = of(VAN);
    const legs: Leg[] = [
      { id: 'drive', name: 'Drive', kind: 'drive', hours: 3, celsius: 18, sunHours: 0, loads: [] },
      { id: 'stand', name: 'Stand', kind: 'stand', hours: 24, celsius: 20, sunHours: 8, loads: [] },
    ];
    const run = (startSoc: Record<string, number>) =>
      simulate(compileRig(rig), { id: 'u', name: 'U', startHour: 8, startSoc, legs } satisfies Scenario, {
        series: false,
      }).summary.batteries;
    const low = run({ 'coach-bank': 0.4, 'chassis-bank': 0.8 });
    expect(low.find((b) => b.part === 'coach-bank')!.endSoc).toBeGreaterThan(0.6);
    const full = run({ 'coach-bank': 0.99, 'chassis-bank': 0.7 });
    expect(full.find((b) => b.part === 'chassis-bank')!.endSoc).toBeGreaterThan(0.7);
  });
});
