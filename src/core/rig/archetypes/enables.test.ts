/** Chargers told to run in every way the trade knows, before the plug and behind it: drawn whole, sound, and doing it. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../../compile/compile';
import { ANCHORS } from '../../../ui/strip/anchors';
import { stripLayout } from '../../../ui/strip/layout';
import { rigFaults } from '../../diagnose/faults';
import { RigModel } from '../../operate/settle';
import { statesOf } from '../../operate/states';
import { ENABLE_SCHOOLS } from '../../parts/enableSchools';
import { troublesOf } from '../../plan/troubles';
import { usualScenarios } from '../../plan/usualScenarios';
import { auditTow } from '../../rules/tow/audit';
import { usualTow } from '../../rules/tow/usual';
import { towVehicle } from '../../compile/tow/vehicle';
import { checkDesign } from '../../rules/check';
import type { Leg, Scenario } from '../../simulate/scenarioSchema';
import { simulate } from '../../simulate/simulate';
import { sizeRig } from '../../size/sizing';
import { withPart } from '../applyEdit';
import { checkRig } from '../check';
import type { Rig } from '../schema';
import { coupledRig, USUAL_COUPLED } from './coupled';
import type { CoupledChoices } from './coupledSchema';
import type { MotorhomeChoices } from './choicesSchema';
import { tapsIgnition } from './ignitionTap';
import { motorhome, USUAL_MOTORHOME } from './motorhome';

const rigOf = (more: Partial<CoupledChoices>) =>
  coupledRig('t', 'T', { ...USUAL_COUPLED.trailer, link: 'dcdc', dcdcAmps: 25, ...more });
const leg = (kind: Leg['kind'], more: Partial<Leg> = {}): Leg => ({
  id: kind,
  name: kind,
  kind,
  hours: 2,
  celsius: 20,
  sunHours: 0,
  loads: [],
  ...more,
});
const useOf = (one: Leg): Scenario => ({
  id: 'use',
  name: 'Use',
  startHour: 8,
  startSoc: { 'coach-bank': 0.4 },
  legs: [one],
});
/** Share of the bank’s charge that one leg gives it. */
const gains = (rig: Rig, one: Leg) => {
  const bank = simulate(compileRig(rig), useOf(one), { series: false }).summary.batteries.find(
    (b) => b.part === 'coach-bank',
  )!;
  return bank.endSoc - bank.startSoc;
};

const WAYS = ENABLE_SCHOOLS.flatMap(({ id }) =>
  (['behind', 'tow'] as const).flatMap((chargerAt) =>
    (['dcdc', 'dcdc-pin'] as const).map((link) => [id, chargerAt, link] as const),
  ),
);

describe.each(WAYS)('a charger enabled by %s, standing %s, as %s', (enable, chargerAt, link) => {
  const rig = rigOf({ enable, chargerAt, link, ...(link === 'dcdc-pin' ? { dcdcAmps: 12 } : {}) });

  it('is a sound drawing that settles in every state and raises no danger but what it is itself', () => {
    expect(checkRig(rig)).toEqual([]);
    const model = new RigModel(compileRig(rig));
    for (const state of statesOf(rig)) expect(model.settle(state.id).solved, state.id).toBe(true);
    const findings = checkDesign(rig, sizeRig(rig, usualScenarios({ driveHours: 1, nights: 1 }, 'coach-bank')));
    expect(findings.filter((f) => f.severity === 'danger' && f.rule !== 'enable-always').map((f) => f.says)).toEqual(
      [],
    );
    expect(findings.map((f) => f.rule)).not.toContain('enable-missing');
  });

  it('stands on the strip where it is, and its enable has faults of its own', () => {
    const charger = rig.parts.find((p) => p.id === 'dcdc')!;
    expect(charger.vehicle).toBe(chargerAt === 'tow' ? 'tow' : 'behind');
    expect(() => stripLayout(rig)).not.toThrow();
    for (const p of rig.parts) expect(ANCHORS[p.kind], p.kind).toBeDefined();
    if (enable !== 'volts') expect(rigFaults(rig).map((f) => f.id)).toContain('dcdc-enable.not-enabled');
  });

  it('fills the bank on the road, with what enables it, and never with the engine off but by the input', () => {
    const lampsOn = enable === 'marker-lights';
    // By volts on a thin line it sees its own sag, and gives little.
    const little = enable === 'volts' && link === 'dcdc-pin' && chargerAt === 'behind';
    expect(gains(rig, leg('drive', { lampsOn }))).toBeGreaterThan(little ? 0.001 : 0.02);
    if (enable !== 'always') expect(gains(rig, leg('stand'))).toBeLessThan(0.002);
  });
});

describe.each(
  (['ignition', 'volts', 'manual', 'always'] as const).flatMap((enable) =>
    (['dcdc', 'dcdc-boost'] as const).flatMap((link) =>
      ([12, 24] as const).flatMap((volts) => [12, 60].map((amps) => [amps, link, enable, volts] as const)),
    ),
  ),
)('a motorhome’s %i A charger, %s, enabled by %s, at %i V', (dcdcAmps, link, enable, nominalVolts) => {
  const rig = motorhome('t', 'T', { ...USUAL_MOTORHOME, link, enable, nominalVolts, dcdcAmps });

  it('is a sound drawing without a danger, and charges the coach bank on the road', () => {
    expect(checkRig(rig)).toEqual([]);
    const findings = checkDesign(rig, sizeRig(rig, usualScenarios({ driveHours: 1, nights: 1 }, 'coach-bank')));
    expect(findings.filter((f) => f.severity === 'danger' && f.rule !== 'enable-always').map((f) => f.says)).toEqual(
      [],
    );
    expect(gains(rig, leg('drive'))).toBeGreaterThan(0.01);
    if (enable !== 'always') expect(gains(rig, leg('stand'))).toBeLessThan(0.002);
  });
});

describe('an enable on a line that is live only while the engine runs', () => {
  const run = rigOf({ enable: 'ignition' });
  const engine = rigOf({ enable: 'ignition', ignitionLive: 'engine' });
  const at = (rig: Rig, state: string) => {
    const compiled = compileRig(rig);
    const model = new RigModel(compiled);
    model.settle(state, {});
    return model.solver.volts[compiled.node.get('dcdc.enable')!]!;
  };

  it('is dead with the key on and the engine off, where one live in run is not; with the engine both are live', () => {
    expect(at(run, 'key-on')).toBeGreaterThan(10);
    expect(Math.abs(at(engine, 'key-on'))).toBeLessThan(0.1);
    for (const rig of [run, engine]) expect(at(rig, 'idle')).toBeGreaterThan(11);
  });

  it('fills the bank on the road, and never while it stands', () => {
    expect(gains(engine, leg('drive'))).toBeCloseTo(gains(run, leg('drive')), 6);
    expect(gains(engine, leg('stand'))).toBeLessThan(0.002);
  });

  it('is asked for where a wire comes from the ignition, in every family and link, and nowhere else', () => {
    const asked = (more: Partial<CoupledChoices>) => tapsIgnition(rigOf(more));
    expect(asked({ enable: 'ignition' }) && asked({ enable: 'manual' })).toBe(true);
    expect(asked({ enable: 'volts', feed: 'constant' }) || asked({ enable: 'relay', feed: 'constant' })).toBe(false);
    const coach = (link: MotorhomeChoices['link'], enable?: MotorhomeChoices['enable']) =>
      tapsIgnition(motorhome('t', 'T', { ...USUAL_MOTORHOME, link, boost: false, ...(enable ? { enable } : {}) }));
    expect(coach('ignition-delay') && coach('dcdc', 'ignition')).toBe(true);
    expect(coach('diode') || coach('dcdc', 'volts') || coach('one-way')).toBe(false);
  });

  it('tells a delay module nothing with the key on and the engine off, and is there with the engine', () => {
    const told = (ignitionLive: 'run' | 'engine', state: string) => {
      const compiled = compileRig(motorhome('t', 'T', { ...USUAL_MOTORHOME, ignitionLive }));
      const model = new RigModel(compiled);
      model.settle(state, {});
      return model.solver.volts[compiled.node.get('delay.ignition')!]!;
    };
    expect(told('run', 'key-on')).toBeGreaterThan(10);
    expect(Math.abs(told('engine', 'key-on'))).toBeLessThan(0.1);
    for (const live of ['run', 'engine'] as const) expect(told(live, 'idle')).toBeGreaterThan(11);
  });

  it('cannot be what is live for ever, and is whole by the rules', () => {
    expect(rigFaults(run).map((f) => f.id)).toContain('ignition.always-live');
    expect(rigFaults(engine).map((f) => f.id)).not.toContain('ignition.always-live');
    expect(checkRig(engine)).toEqual(checkRig(run));
  });
});

describe('what an enable is forgotten in', () => {
  const drive = usualScenarios({ driveHours: 1, nights: 1 }, 'coach-bank');

  it('marker lights that are off on every drive are said at the charger, and it gets nothing', () => {
    const rig = rigOf({ enable: 'marker-lights' });
    expect(gains(rig, leg('drive'))).toBeLessThan(0.002);
    expect(troublesOf(rig, drive)).toContainEqual(expect.objectContaining({ at: 'dcdc', stops: false }));
    const lit = drive.map((s) => ({ ...s, legs: s.legs.map((l) => ({ ...l, lampsOn: true })) }));
    expect(troublesOf(rig, lit)).toEqual([]);
  });

  it('a hand switch left off is said at the switch, and nothing charges', () => {
    const rig = withPart(rigOf({ enable: 'manual' }), 'enable-switch', { options: { position: 'off' } });
    expect(gains(rig, leg('drive'))).toBeLessThan(0.002);
    expect(troublesOf(rig, drive)).toContainEqual(expect.objectContaining({ at: 'enable-switch' }));
    expect(gains(rigOf({ enable: 'manual' }), leg('drive', { held: true }))).toBeLessThan(0.002);
  });
});

describe('a charger before the plug', () => {
  it('is no charger of the trailer: its pin carries the bank, fused at the start battery, live with the ignition', () => {
    const rig = rigOf({ chargerAt: 'tow', link: 'dcdc-pin', dcdcAmps: 12 });
    const tow = usualTow(rig)!;
    expect(tow.charger).toBeUndefined();
    const way = tow.plugs.flatMap((p) => p.ways).find((w) => w.uses.includes('bank'))!;
    expect(way).toMatchObject({ pin: '4', feed: 'ignition' });
    expect(way.fuse).toBeGreaterThan(0);
    const audit = auditTow(tow, towVehicle(rig)!);
    expect(audit.before.troubles.filter((t) => JSON.stringify(t).includes('fuse'))).toEqual([]);
  });

  it('loses nothing on the long line that it does not lift before: behind the plug it sees the sag', () => {
    const at = (chargerAt: 'tow' | 'behind') => {
      const compiled = compileRig(rigOf({ chargerAt }));
      const model = new RigModel(compiled);
      model.settle('idle');
      const volts = (terminal: string) =>
        model.solver.volts[compiled.node.get(`dcdc.${terminal}`)!]! -
        model.solver.volts[compiled.node.get('dcdc.ground')!]!;
      return volts('input');
    };
    expect(at('tow')).toBeGreaterThan(at('behind') + 0.1);
  });
});
