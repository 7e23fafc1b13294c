import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { kirchhoffResidual } from '../circuit/readings';
import { readOutputs, rigOutputs } from '../probe/outputs';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { motorhome } from '../rig/archetypes/motorhome';
import { usualScenarios } from '../plan/usualScenarios';
import { simulate } from '../simulate/simulate';
import { seededRng } from '../units/rng';
import type { Effect } from './effects';
import { RigModel, type Situation } from './settle';
import { changeMinutes, OPERATING_STATES, STATE_IDS, statesOf, operatingState } from './states';

const compiled = compileRig(motorhome('test', 'Test coach'));

function read(state: string, situation: Situation = {}) {
  const model = new RigModel(compiled);
  const settled = model.settle(state, situation);
  const outputs = rigOutputs(compiled);
  const values = new Float64Array(outputs.length);
  readOutputs(model, outputs, values);
  const at = Object.fromEntries(outputs.map((o, i) => [o.key, values[i]!])) as Record<string, number>;
  return { settled, at, model };
}
const fault = (...effects: Effect[]): Situation => ({ effects });

describe('a healthy coach', () => {
  it('reads what common practice expects (no source)', () => {
    const rested = read('rested').at;
    expect(rested['coach-bank.plus']! - rested['coach-bank.minus']!).toBeGreaterThan(12.2);
    expect(rested['coach-bank.plus']! - rested['coach-bank.minus']!).toBeLessThan(12.75);
    expect(rested['link.coil-plus']!).toBeCloseTo(0, 3);

    const idle = read('idle').at;
    const amps = idle['link-cable.clamp']!;
    const drop = idle['link.chassis-stud']! - idle['link.coach-stud']!;
    expect(idle['alternator.output']!).toBeGreaterThan(13); // the step by which everything detects "engine on"
    expect(amps).toBeGreaterThan(20); // toward the coach
    expect(drop).toBeGreaterThan(0);
    expect(drop).toBeLessThan(0.2); // a good contact drops under 0.1–0.2 V
    expect((drop / amps) * 1000).toBeLessThan(2); // good: 2 mΩ or less
    expect(idle['coach-bank.plus']!).toBeGreaterThan(rested['coach-bank.plus']! + 0.3);
  });

  it('keeps the banks apart until the delay has run, then joins them', () => {
    const before = read('idle-before-delay');
    expect(before.settled.modes['delay']!.mode).toBe('timing');
    expect(before.settled.modes['link']!.mode).toBe('open');
    expect(Math.abs(before.at['link-cable.clamp']!)).toBeLessThan(0.01);
    expect(read('idle').settled.modes['link']!.mode).toBe('closed');
  });

  it('answers boost with the engine off, and leaves the coil cold on shore', () => {
    expect(read('boost-engine-off').settled.modes['link']!.mode).toBe('closed');
    const shore = read('shore');
    expect(shore.settled.modes['link']!.mode).toBe('open');
    expect(shore.at['coach-bank.plus']!).toBeGreaterThan(12.8);
    expect(shore.at['chassis-bank.plus']!).toBeLessThan(12.8);
  });

  it('adds up at every node in every state (Kirchhoff)', () => {
    for (const { id: state } of statesOf(compiled.rig)) {
      const { model, settled } = read(state);
      expect(settled.solved).toBe(true);
      expect(kirchhoffResidual(model.solver, model.values)).toBeLessThan(1e-6);
    }
  });
});

describe('faults show where a technician would look', () => {
  it('a burnt contact: coil fed, studs apart', () => {
    const { at, settled } = read('idle', fault({ do: 'open', element: 'link.contact' }));
    expect(settled.modes['link']!.mode).toBe('closed');
    expect(at['link.coil-plus']!).toBeGreaterThan(12.5);
    expect(at['link.chassis-stud']! - at['link.coach-stud']!).toBeGreaterThan(0.8);
  });

  it('a lost coil ground: coil – follows coil +', () => {
    const { at, settled } = read('idle', fault({ do: 'open', element: 'coil-ground' }));
    expect(settled.modes['link']!.mode).toBe('open');
    expect(at['link.coil-minus']!).toBeGreaterThan(12);
  });

  it('a dead module puts nothing out, and says so', () => {
    const { at, settled } = read('idle', fault({ do: 'dead-controller', part: 'delay' }));
    expect(at['delay.output']!).toBeLessThan(0.1);
    expect(settled.modes['delay']!.why).toBe('does nothing');
  });

  it('an open feed floats at what the 10 MΩ meter lets through: nearly nothing', () => {
    const { at } = read('boost-engine-off', fault({ do: 'open', element: 'boost.fuse' }));
    expect(Math.abs(at['boost.fused']!)).toBeLessThan(0.05);
  });

  it('more contact resistance never brings more amps', () => {
    let last = Infinity;
    for (const severity of [0, 0.25, 0.5, 0.75, 1]) {
      const { at } = read('idle', {
        ...fault({ do: 'replace-ohms', element: 'link.contact', from: 0.006, to: 0.15 }),
        severity,
      });
      expect(at['link-cable.clamp']!).toBeLessThan(last);
      last = at['link-cable.clamp']!;
    }
  });

  it('an open coil keeps its volts and moves nothing', () => {
    const { at, settled } = read(
      'idle',
      fault({ do: 'open', element: 'link.coil' }, { do: 'dead-controller', part: 'link' }),
    );
    expect(at['link.coil-plus']! - at['link.coil-minus']!).toBeGreaterThan(12);
    expect(Math.abs(at['coil-ground.clamp']!)).toBeLessThan(0.01);
    expect(settled.modes['link']!.mode).toBe('open');
    expect(Math.abs(at['link-cable.clamp']!)).toBeLessThan(0.01);
  });

  it('a coil that drops as soon as its own contact loads the bank is told as hunting', () => {
    const rig = structuredClone(motorhome('hunt', 'Hunting coach'));
    const bank = rig.parts.find((p) => p.id === 'coach-bank')!;
    bank.params['ageing']!.value = 20;
    bank.params['capacity']!.value = 10;
    rig.parts.find((p) => p.id === 'chassis-loads')!.params['off']!.value = 125;
    const model = new RigModel(compileRig(rig));
    const settled = model.settle('boost-engine-off', fault({ do: 'open-battery', part: 'chassis-bank' }));
    expect(settled.hunting).toBeDefined();
    const [a, b] = settled.hunting!;
    expect([a['link'], b['link']].sort()).toEqual(['closed', 'open']);
  });
});

describe('a charger that starves', () => {
  const starved = coupledRig('t', 'T', { ...USUAL_COUPLED['trailer-48'], dcdcAmps: 20 });
  const fed = coupledRig('t', 'T', { ...USUAL_COUPLED['trailer-48'], dcdcAmps: 8 });

  it('is said to hunt, whatever it does at the moment one looks, and so the simulation finds it', () => {
    const settled = new RigModel(compileRig(starved)).settle('idle');
    expect(settled.hunting).toBeDefined();
    const [a, b] = settled.hunting!;
    expect(a['dcdc']).not.toBe(b['dcdc']);
    const [use] = usualScenarios({}, 'coach-bank');
    const idling = { ...use!, legs: use!.legs.slice(0, 1).map((l) => ({ ...l, kind: 'idle' as const, hours: 0.5 })) };
    expect(simulate(compileRig(starved), idling).summary.hunting).toContain('dcdc');
  });

  it('is not said of one that its line can feed, in any state', () => {
    const model = new RigModel(compileRig(fed));
    for (const s of statesOf(fed)) expect(model.settle(s.id).hunting, s.id).toBeUndefined();
  });
});

describe('leaping over whole cycles', () => {
  it.each([
    ['chained chargers', coupledRig('t', 'T', USUAL_COUPLED['second-battery'])],
    ['a charger too big for its line', coupledRig('t', 'T', { ...USUAL_COUPLED['trailer-48'], dcdcAmps: 20 })],
    ['a small one on a thin pin', coupledRig('t', 'T', { ...USUAL_COUPLED['towed-car'], link: 'dcdc-pin' })],
  ])('gives for %s what going through them gives, in fewer rounds', (_, rig) => {
    class Counted extends RigModel {
      rounds = 0;
      override solve() {
        this.rounds += 1;
        return super.solve();
      }
    }
    const compiled = compileRig(rig);
    const model = new Counted(compiled);
    const rng = seededRng(5);
    let [leapt, gone] = [0, 0];
    for (let n = 0; n < 25; n++) {
      const z = Float64Array.from(compiled.params, () => rng.normal());
      for (const s of statesOf(rig)) {
        model.rounds = 0;
        const through = model.settle(s.id, { z }, false);
        const volts = model.solver.volts.slice();
        gone += model.rounds;
        model.rounds = 0;
        expect(model.settle(s.id, { z })).toEqual(through);
        leapt += model.rounds;
        volts.forEach((v, i) => expect(model.solver.volts[i]).toBeCloseTo(v, 6));
      }
    }
    expect(leapt).toBeLessThan(0.8 * gone);
  });
});

describe('operating states', () => {
  it('have kebab-case ids, none of them driving', () => {
    for (const s of OPERATING_STATES) {
      expect(s.id).toMatch(/^[a-z]+(-[a-z]+)*$/);
      expect(s.id).not.toContain('road');
      expect(s.cautions.length).toBeGreaterThan(0);
    }
  });

  it('cost something to change to, and nothing to stay in but where one does not last', () => {
    for (const a of STATE_IDS)
      for (const b of STATE_IDS) {
        if (a === b)
          expect(changeMinutes(a, b)).toBe(operatingState(a).inputs.dwell <= 10 ? operatingState(a).againMinutes : 0);
        else expect(changeMinutes(a, b)).toBeGreaterThan(0);
      }
  });
});
