/** Who goes where the next test is, finds it there: nobody is sent from one operating state to another and back. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { changeMinutes, statesOf } from '../operate/states';
import { drawRig } from '../rig/archetypes/families';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { USUAL_COUPLED } from '../rig/archetypes/coupled';
import type { Rig } from '../rig/schema';
import { rigMeasurements } from '../probe/measurement';
import { seededRng } from '../units/rng';
import { Belief, type Evidence } from './belief';
import { diagnose } from './diagnose';
import { rigFaults } from './faults';
import { HiddenRig } from './hiddenRig';

const RIGS: readonly (readonly [string, Rig])[] = [
  ['a coach with a delay module', motorhome('t', 'T')],
  ['a coach linked by volts', motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'bidirectional' })],
  ['a trailer', drawRig('t', 'T', { family: 'coupled', choices: USUAL_COUPLED.trailer })],
];

describe.each(RIGS)('%s', (_, rig) => {
  const states = statesOf(rig).map((s) => s.id);

  it('has no state that is cheaper to come to than to stay in', () => {
    for (const from of states)
      for (const to of states) expect(changeMinutes(from, to)).toBeGreaterThanOrEqual(changeMinutes(to, to));
  });

  it('is measured where one is sent, from any state, whatever was read and whatever place is open', () => {
    const compiled = compileRig(rig);
    const measurements = rigMeasurements(rig).filter((m) => m.kind === 'volts');
    const faults = rigFaults(rig);
    const rng = seededRng(11);
    for (let k = 0; k < 2; k++) {
      const hidden = new HiddenRig(compiled, faults[Math.floor(rng.uniform() * faults.length)]!.id, k);
      const evidence: Evidence[] = Array.from({ length: 3 }, (__, i) => {
        const m = measurements[Math.floor(rng.uniform() * measurements.length)]!;
        const state = states[Math.floor(rng.uniform() * states.length)]!;
        const { value, unit } = hidden.read(state, m.red, m.black);
        return {
          id: `r${i}`,
          state,
          probe: m.red,
          ...(m.black === undefined ? {} : { ref: m.black }),
          value,
          unit,
        } as Evidence;
      });
      const belief = new Belief(compiled, ['coach-not-charging']);
      belief.setEvidence(evidence);
      for (const place of [[], [...new Set(rig.parts.map((p) => p.place))]])
        for (const state of states) {
          const asked = (now: string) => diagnose(belief, { state: now, openPlaces: place }).next[0];
          const first = asked(state);
          if (!first || first.state === state) continue;
          expect(asked(first.state)?.state, `${state}, ${place.join()}: ${first.test} in ${first.state}`).toBe(
            first.state,
          );
        }
    }
  });
});
