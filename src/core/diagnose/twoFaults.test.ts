/** Which two faults are worked out together: what one leaves unexplained says which may be the second. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { motorhome } from '../rig/archetypes/motorhome';
import { Belief, type Evidence } from './belief';
import { bothOf } from './faults';

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
});
