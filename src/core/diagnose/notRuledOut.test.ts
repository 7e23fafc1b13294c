/** What a sound verdict still owes: the suspects nothing has spoken against, and their own tests. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { motorhome } from '../rig/archetypes/motorhome';
import { Belief, type Evidence } from './belief';
import { diagnose } from './diagnose';
import { notRuledOut } from './notRuledOut';

const compiled = compileRig(motorhome('test', 'Test coach'));
const BOLT = 'frame.bay-2';
const read = (state: string, list: readonly (readonly [probe: string, ref: string, value: number])[]): Evidence[] =>
  list.map(([probe, ref, value]) => ({ id: `${state}/${probe}~${ref}`, state, probe, ref, value, confirmed: true }));

/** Both banks nearly alike: whether boost joined them is not to be seen by their posts. */
const ALIKE = read('boost-engine-off', [
  ['coach-bank.plus', BOLT, 12.46],
  ['chassis-bank.plus', BOLT, 12.54],
]);

describe('a fault nobody looked for', () => {
  it('is not ruled out by a proof that reads the same with it', () => {
    const belief = new Belief(compiled, ['boost-dead']);
    belief.setEvidence(ALIKE, []);
    expect(notRuledOut(belief).map((f) => f.id)).toContain('boost.fuse-blown');
    const answer = diagnose(belief, { state: 'boost-engine-off' });
    expect(answer.stop.reached).toBe(false);
    belief.setEvidence([...ALIKE, ...read('boost-engine-off', [['link.coil-plus', BOLT, 12.4]])], []);
    expect(notRuledOut(belief).map((f) => f.id)).not.toContain('boost.fuse-blown');
  });

  it('counts only where it would explain what the owner tells', () => {
    for (const complaint of ['boost-dead', 'chassis-flat', 'slow-charging', 'link-always-on'] as const) {
      const belief = new Belief(compiled, [complaint]);
      belief.setEvidence([], []);
      for (const f of notRuledOut(belief)) expect(f.explains, f.id).toContain(complaint);
      // With nothing read, everything that explains it stands.
      expect(notRuledOut(belief).length).toBeGreaterThan(2);
    }
  });

  it('is asked about before a rig is called sound: banks alike at rest may be joined', () => {
    const belief = new Belief(compiled, ['link-always-on']);
    const rested = read('rested', [
      ['chassis-bank.plus', BOLT, 12.6],
      ['coach-bank.plus', BOLT, 12.59],
    ]);
    belief.setEvidence(rested, []);
    expect(notRuledOut(belief).map((f) => f.id)).toContain('link.welded');
    expect(diagnose(belief, { state: 'rested' }).stop.reached).toBe(false);
  });
});
