/** Which two faults are worked out together: what one leaves unexplained says which may be the second. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { measurementId, rigMeasurements } from '../probe/measurement';
import { motorhome } from '../rig/archetypes/motorhome';
import { Belief, type Evidence } from './belief';
import { diagnose } from './diagnose';
import { directTests } from './directTest';
import { bothOf } from './faults';
import type { Circumstances } from './nextTest';

const compiled = compileRig(motorhome('test', 'Test coach'));
const BOLT = 'frame.bay-2';

const read = (state: string, list: readonly (readonly [probe: string, ref: string, value: number])[]): Evidence[] =>
  list.map(([probe, ref, value]) => ({ id: `${state}/${probe}~${ref}`, state, probe, ref, value, confirmed: true }));
const pairsOf = (belief: Belief) => belief.faults.filter((f) => f.members).map((f) => [...f.members!].sort().join('+'));

describe('two faults at once', () => {
  it('are one suspect, whichever of them was found first', () => {
    const belief = new Belief(compiled, ['coach-not-charging', 'boost-dead']);
    belief.setEvidence(
      read('idle', [
        ['boost.fused', BOLT, 0.001],
        ['boost.feed', BOLT, 12.4],
        ['link.coil-minus', BOLT, 13.3],
        ['link.coil-plus', BOLT, 13.3],
        ['coach-bank.plus', BOLT, 12.4],
        ['chassis-bank.plus', BOLT, 13.7],
      ]),
    );
    const pairs = pairsOf(belief);
    expect(new Set(pairs).size).toBe(pairs.length);
    const [first] = [...belief.classes()].sort((a, b) => b[1] - a[1])[0]!;
    expect(first.split(' + ').map((c) => c.split(':')[0])).toEqual(['boost', 'coil-ground']);
  });

  it('are one repair, in whatever order they are named', () => {
    const { faults } = new Belief(compiled, ['slow-charging']);
    const [a, b] = ['link-cable.bad-lug', 'frame-splice.bad-splice'].map((id) => faults.find((f) => f.id === id)!);
    expect(bothOf(a!, b!, 0.1).class).toBe(bothOf(b!, a!, 0.1).class);
    expect(bothOf(a!, b!, 0.1).class.split(' + ').sort()).toEqual([a!.class, b!.class].sort());
  });

  it('are looked for in the metal between two leads on it', () => {
    const belief = new Belief(compiled, ['slow-charging']);
    // A bad lug on the cable, and volts between the bank's minus and the chassis that are not at its own joint.
    belief.setEvidence(
      read('idle', [
        ['link.coach-stud', BOLT, 13.7],
        ['coach-bank.plus', BOLT, 13.05],
        ['coach-bank.minus', BOLT, 0.55],
        ['coach-bank.minus', 'house-frame.bay-1', 0.004],
        ['chassis-bank.plus', BOLT, 13.75],
      ]),
    );
    belief.setEvidence(belief.evidence, [{ id: 'q', what: 'bad-end.link-cable', answer: 'yes' }]);
    expect(pairsOf(belief)).toContain('frame-splice.bad-splice+link-cable.bad-lug');
  });

  it('are looked for where more is lost over a chain of readings than the first explains', () => {
    const along = (coachPlus: number) => {
      const belief = new Belief(compiled, ['slow-charging']);
      belief.setEvidence(
        read('idle', [
          ['coach-bank.minus', BOLT, 0.75],
          ['coach-bank.minus', 'house-frame.bay-1', 0.005],
          ['coach-bank.plus', 'coach-bank.minus', coachPlus - 0.75],
          ['link.coach-stud', BOLT, 13.6],
          ['chassis-bank.plus', BOLT, 13.65],
        ]),
      );
      return pairsOf(belief).includes('frame-splice.bad-splice+link-cable.bad-lug');
    };
    // The same readings with the cable as it should be, and with half a volt lost in it.
    expect(along(13.57)).toBe(false);
    expect(along(13.1)).toBe(true);
  });

  it('are looked for in the very piece over which more is lost, before whatever else lies along the path', () => {
    // A fifth of an ohm in the cable to the bank and a third in the frame, at two amps: each within what one could be off by.
    const belief = new Belief(compiled, ['coach-not-charging']);
    belief.setEvidence([
      ...read('idle', [
        ['coach-bank.minus', BOLT, 0.544],
        ['coach-bank.minus', 'house-frame.bay-1', 0.001],
        ['coach-bank.plus', 'coach-bank.minus', 12.76],
        ['chassis-bank.plus', BOLT, 13.67],
        ['chassis-bank.plus', 'link-fuse.source', 0.002],
        ['link.coach-stud', BOLT, 13.64],
        ['link.chassis-stud', BOLT, 13.64],
        ['link.chassis-stud', 'link.coach-stud', 0.004],
      ]),
      { id: 'amps', state: 'idle', probe: 'coach-negative.clamp', value: 1.7 },
    ]);
    expect(pairsOf(belief)).toContain('frame-splice.bad-splice+link-cable.bad-lug');
    const [first] = [...belief.classes()].sort((a, b) => b[1] - a[1])[0]!;
    expect(first).toMatch(/^frame-splice: .* \+ link-cable: /);
  });

  it('are looked for where an answer speaks of a piece the first has nothing to do with', () => {
    const belief = new Belief(compiled, ['shore-not-charging', 'chassis-flat']);
    const evidence = read('shore', [
      ['charger.plus', BOLT, 12.3],
      ['coach-bank.plus', BOLT, 12.3],
      ['boost.feed', BOLT, 12.3],
    ]);
    belief.setEvidence(evidence, []);
    const before = pairsOf(belief);
    belief.setEvidence(evidence, [{ id: 'q', what: 'load-test.coach-bank', answer: 'fails' }]);
    const wanted = 'charger.no-output+coach-bank.sulphated';
    expect(before).not.toContain(wanted);
    expect(pairsOf(belief)).toContain(wanted);
  });

  it('once one is as good as sure, are walked to along the path where the amps flow, piece by piece', () => {
    const belief = new Belief(compiled, ['coach-not-charging', 'slow-charging']);
    const evidence = read('idle', [
      ['coach-bank.minus', BOLT, 0.4751],
      ['coach-bank.minus', 'house-frame.bay-1', 0.0019],
      ['coach-bank.plus', 'coach-bank.minus', 12.76],
      ['chassis-bank.plus', BOLT, 13.4],
      ['chassis-bank.plus', 'link-fuse.source', 0.0025],
    ]);
    const asked: string[] = [];
    for (let n = 0; n < 4; n++) {
      belief.setEvidence(evidence);
      const { next, stop } = diagnose(belief, { state: 'idle' });
      const [test] = next;
      if (stop.reached || !test?.probe || !/second beside/.test(stop.why)) break;
      asked.push(`${test.state} ${test.probe}`);
      evidence.push({ ...read('idle', [[test.probe, test.ref!, test.ref === BOLT ? 13.3 : 0.004]])[0]! });
    }
    expect(asked.length).toBeGreaterThanOrEqual(1);
    expect(asked.every((t) => t.startsWith('idle '))).toBe(true);
    expect(asked[0]).toMatch(/link|chassis-bank/);
  });

  it('keep where they were linearised: told the same again, the same pairs weigh the same', () => {
    const belief = new Belief(compiled, ['coach-not-charging', 'boost-dead']);
    const evidence = read('idle', [
      ['boost.fused', BOLT, 0.001],
      ['boost.feed', BOLT, 12.4],
      ['link.coil-minus', BOLT, 13.3],
      ['link.coil-plus', BOLT, 13.3],
      ['coach-bank.plus', BOLT, 12.4],
      ['chassis-bank.plus', BOLT, 13.7],
    ]);
    belief.setEvidence(evidence);
    const before = belief.classes();
    expect(pairsOf(belief).length).toBeGreaterThan(0);
    belief.setEvidence(evidence);
    for (const [name, p] of belief.classes()) expect(Math.abs(p - (before.get(name) ?? 0))).toBeLessThan(0.02);
    // And after a reading was taken back, nothing of it stays.
    belief.setEvidence([]);
    const fresh = new Belief(compiled, ['coach-not-charging', 'boost-dead']);
    expect(pairsOf(belief)).toEqual(pairsOf(fresh));
    fresh.probability.forEach((p, i) => expect(belief.probability[i]).toBeCloseTo(p, 9));
  });

  it('of which one feeds the other: a coil nothing feeds proves nothing of the coil', () => {
    const belief = new Belief(compiled, ['coach-not-charging', 'boost-dead']);
    const fed = read('idle', [
      ['boost.fused', BOLT, 0.001],
      ['boost.feed', BOLT, 12.4],
      ['delay.output', BOLT, 13.0],
      ['coach-bank.plus', BOLT, 12.4],
      ['chassis-bank.plus', BOLT, 13.7],
    ]);
    const dead = read('boost-engine-off', [
      ['link.coil-plus', 'link.coil-minus', 0],
      ['link.chassis-stud', 'link.coach-stud', 0.4],
    ]);
    belief.setEvidence([...fed, ...dead]);
    const pair = belief.faults.find(
      (f) => f.members?.includes('boost.fuse-blown') && f.members.includes('link.contact-high'),
    );
    expect(pair).toBeDefined();
    const measurements = rigMeasurements(compiled.rig);
    const done = new Set(belief.evidence.map((e) => `${e.state}/${measurementId(e.probe, e.ref)}`));
    const now: Circumstances = { state: 'idle', openPlaces: new Set(), done };
    const { left } = directTests(belief, pair!, measurements, now);
    expect(left.some((t) => t.measurement && /coil/.test(`${t.measurement.red} ${t.measurement.black}`))).toBe(true);
    expect(left.every((t) => t.state !== 'boost-engine-off')).toBe(true);
  });
});
