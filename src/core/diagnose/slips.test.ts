/** Slips of the hand: a reading that cannot be is told as what it probably was, and moves no verdict. */
import { describe, expect, it } from 'vitest';
import { motorhomeOf } from '../../../tests/motorhomes';
import { compileRig } from '../compile/compile';
import { Belief, type Evidence } from './belief';
import { contradictions } from './contradictions';
import { HiddenRig } from './hiddenRig';

const compiled = compileRig(motorhomeOf());
const REF = 'frame.bay-2';
const ROUND: readonly (readonly [state: string, probe: string])[] = [
  ['rested', 'coach-bank.plus'],
  ['rested', 'chassis-bank.plus'],
  ['idle', 'coach-bank.plus'],
  ['idle', 'chassis-bank.plus'],
  ['idle', 'link.coach-stud'],
  ['idle', 'link.chassis-stud'],
  ['idle', 'alternator.output'],
];
/** A sound round, with one of its readings spoiled. */
function told(slip: (value: number) => number, at = 3) {
  const rig = new HiddenRig(compiled, 'nothing-wrong', 4);
  const evidence = ROUND.map(([state, probe], i): Evidence => {
    const { value } = rig.read(state, probe, REF);
    return { id: `r${i}`, state, probe, ref: REF, value: i === at ? slip(value) : value };
  });
  const belief = new Belief(compiled, []);
  belief.setEvidence(evidence);
  return { belief, list: contradictions(belief) };
}

describe('a slip', () => {
  it('is none where every reading fits', () => {
    expect(told((v) => v).list).toEqual([]);
  });

  it.each([
    ['a lead that touches nothing', () => 0.001, /reads zero/],
    ['swapped leads', (v: number) => -v, /leads swapped/],
    ['a decimal point', (v: number) => v / 10, /decimal point/],
  ] as const)('%s is told as that, at its own reading', (_, slip, why) => {
    const { list } = told(slip);
    expect(list.map((c) => c.reading)).toContain('r3');
    const own = list.find((c) => c.reading === 'r3')!;
    expect(own.why).toMatch(why);
    expect(own.probability).toBeGreaterThan(0.5);
    expect(own.probability).toBeLessThanOrEqual(1 + 1e-9);
  });

  it('moves the shares far less than the same reading moves a belief that has nothing else', () => {
    const nothing = (b: Belief) => b.classes().get('nothing-wrong') ?? 0;
    const sound = nothing(told((v) => v).belief);
    const slipped = nothing(told((v) => -v).belief);
    expect(Math.abs(sound - slipped)).toBeLessThan(0.35);
  });
});
