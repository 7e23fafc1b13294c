import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { compileRig } from '../compile/compile';
import { Belief } from './belief';
import { diagnose } from './diagnose';
import type { IntakeClue } from './intake';

const rigOf = (name: string) => compileRig(EVERY_RIG.find(([n]) => n === name)![1]);

/** What is said after readings against one point, `state probe volts`, each taken twice; `ask=answer` is a question. */
function after(name: string, clue: IntakeClue, ref: string, told: readonly string[]) {
  const belief = new Belief(rigOf(name), [clue]);
  const readings = told.filter((t) => !t.includes('='));
  belief.setEvidence(
    readings.map((t) => {
      const [state, probe, value] = t.split(' ') as [string, string, string];
      const amps = probe.endsWith('.clamp');
      return { id: t, state, probe, ...(amps ? {} : { ref }), value: Number(value), confirmed: true };
    }),
    told
      .filter((t) => t.includes('='))
      .map((t) => {
        const [what, answer] = t.split('=') as [string, string];
        return { id: t, what, answer };
      }),
  );
  return { belief, ...diagnose(belief, { state: 'idle' }) };
}

describe('a coil that is open, with all that lies behind its contact unseen', () => {
  const told = [
    'idle fridge.plus 12.51',
    'idle link.coil-plus 13.66',
    'idle link-fuse.load 13.72',
    'idle chassis-bank.plus 13.7',
    'idle coach-bank.plus 12.5',
    'idle coach-negative.clamp -1',
    'continuity.coil-ground=good',
  ];
  // A tenth less than the bank itself: a second joint may be bad, and nothing flows that would show it.
  const doubtful = 'idle link.coach-stud 12.4';
  const say = (...more: string[]) =>
    after('camper, heavy-line', 'coach-not-charging', 'frame.front', [...told, ...more]);

  it('is repaired first, whatever may lie behind it, and that is said', () => {
    const { stop, classes, belief } = say(doubtful, 'coil-ohms.link=open');
    expect(classes.some((c) => c.class.includes(' + ') && c.probability > 0.05)).toBe(true);
    expect(classes[0]!.probability).toBeLessThan(belief.assumptions.confirmAt);
    expect(stop).toMatchObject({
      reached: true,
      class: belief.faults.find((f) => f.id === 'link.coil-open')!.class,
      why: expect.stringContaining('measure again then before anything else is bought'),
    });
  });

  it('says nothing of more behind it where nothing points there', () => {
    const { stop } = say('idle link.coach-stud 12.53', 'coil-ohms.link=open');
    expect(stop.reached).toBe(true);
    expect(stop.why).not.toContain('behind');
  });

  it('is no verdict over amps read twice that it does not explain', () => {
    const amps = (value: number) =>
      after('camper, heavy-line', 'coach-not-charging', 'frame.front', [
        ...told.map((t) => t.replace('clamp -1', `clamp ${value}`)),
        'idle link.coach-stud 12.53',
        'coil-ohms.link=open',
      ]).stop;
    expect(amps(-1).reached).toBe(true);
    expect(amps(-2).reached).toBe(true);
    expect(amps(40)).toMatchObject({ reached: false, why: expect.stringMatching(/taken twice|fits nothing/) });
  });

  it('is not called before its own test, alone or with another', () => {
    for (const stud of [doubtful, 'idle link.coach-stud 12.53']) {
      const { stop, next } = say(stud);
      expect(stop.reached).toBe(false);
      expect(next[0]!.test).toBe('coil-ohms.link');
    }
  });
});

describe('a breaker that is open, with a diode behind it', () => {
  it('is found by points that nothing holds: nothing and a ghost are all one there', () => {
    for (const ghost of [0, 0.01, 0.4]) {
      const { classes, belief } = after('towed-car, diode-lamp', 'coach-not-charging', 'frame.front', [
        `idle connector.rear ${ghost}`,
        `idle connector.front ${ghost}`,
        'idle chassis-bank.plus 13.6',
      ]);
      expect(classes[0]!.class).toBe(belief.faults.find((f) => f.id === 'link-fuse.tripped')!.class);
      expect(belief.blunder.every((b) => b < 0.2)).toBe(true);
    }
  });
});
