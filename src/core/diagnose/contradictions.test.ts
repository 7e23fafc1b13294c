import { beforeAll, describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { motorhome } from '../rig/archetypes/motorhome';
import { Belief, type Evidence } from './belief';
import { contradictions } from './contradictions';
import { HiddenRig } from './hiddenRig';

const compiled = compileRig(motorhome('t', 'T'));
const REF = 'frame.bay-2';
const hidden = new HiddenRig(compiled, 'link.contact-open', 4);
const ROUND: [state: string, probe: string][] = [
  ['idle', 'link.coil-plus'],
  ['idle', 'link.chassis-stud'],
  ['idle', 'link.coach-stud'],
  ['idle', 'coach-bank.plus'],
  ['idle', 'chassis-bank.plus'],
  ['rested', 'coach-bank.plus'],
  ['rested', 'chassis-bank.plus'],
  ['rested', 'link.coach-stud'],
  ['boost-engine-off', 'link.coil-plus'],
];
let belief: Belief;
beforeAll(() => {
  belief = new Belief(compiled, ['coach-not-charging']);
});

/** A good round with one reading replaced; the reason given for that one. */
function reason(
  state: string,
  probe: string,
  change: (value: number) => number,
  secondsInState?: number,
): string | undefined {
  const evidence = ROUND.map(([s, p], i): Evidence => {
    const slip = s === state && p === probe;
    const value = hidden.read(s, p, REF).value;
    return {
      id: slip ? 'slip' : `r${i}`,
      state: s,
      probe: p,
      ref: REF,
      value: slip ? change(value) : value,
      ...(slip && secondsInState !== undefined ? { secondsInState } : {}),
    };
  });
  belief.setEvidence(evidence);
  return contradictions(belief).find((c) => c.reading === 'slip')?.why;
}

describe('a reading that does not fit the rest', () => {
  it('is told what the slip would be', () => {
    expect(reason('idle', 'coach-bank.plus', () => 0)).toMatch(/touching metal/);
    expect(reason('idle', 'coach-bank.plus', (v) => -v)).toMatch(/leads swapped/);
    expect(reason('idle', 'chassis-bank.plus', (v) => v / 10)).toMatch(/decimal point/);
    expect(reason('idle', 'coach-bank.plus', () => 7.3)).toMatch(/nothing this rig can do/);
    const idleChassis = hidden.read('idle', 'chassis-bank.plus', REF).value;
    // A bank that should be low at what its neighbour reads: the neighbour, or another state, whichever fits better.
    expect(reason('idle', 'coach-bank.plus', () => idleChassis)).toMatch(
      /what .* would read|it would fit shore charging/,
    );
  });

  it('on a rested bank is told of surface charge, with the minutes it stood', () => {
    const why = reason('rested', 'coach-bank.plus', (v) => v + 0.75, 240);
    expect(why).toMatch(/surface charge: it had stood 4 min, this state wants 30 min/);
    expect(reason('rested', 'coach-bank.plus', (v) => v + 0.75, 7200)).toMatch(/charged within the last hours/);
  });

  it('is nothing on a good round', () => {
    belief.setEvidence(
      ROUND.map(([s, p], i): Evidence => ({
        id: `r${i}`,
        state: s,
        probe: p,
        ref: REF,
        value: hidden.read(s, p, REF).value,
      })),
    );
    expect(contradictions(belief)).toEqual([]);
  });
});
