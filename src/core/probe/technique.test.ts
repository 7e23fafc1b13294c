import { describe, expect, it } from 'vitest';
import { VARIETY } from '../../../tests/motorhomes';
import { statesOf } from '../operate/states';
import { motorhome } from '../rig/archetypes/motorhome';
import { rigMeasurements } from './measurement';
import { TECHNIQUE, techniqueFor } from './technique';

describe('meter technique', () => {
  it('is said for every drop, clamp, bank and control point of any rig, two lines at most, and every row is used', () => {
    const used = new Set<string>();
    for (const choices of VARIETY) {
      const rig = motorhome('t', 'T', choices);
      for (const m of rigMeasurements(rig)) {
        for (const s of statesOf(rig)) {
          const tips = techniqueFor(m, s.id);
          expect(tips.length).toBeLessThanOrEqual(2);
          if (m.kind !== 'volts' || /^(boost|delay|coach-bank|chassis-bank)\./.test(m.red))
            expect(tips.length, `${m.id} at ${s.id}`).toBeGreaterThan(0);
          for (const row of TECHNIQUE) if (row.when(m, s.id)) used.add(row.says);
        }
      }
    }
    for (const row of TECHNIQUE) expect(used.has(row.says), row.says).toBe(true);
  });

  it('never puts a lamp on a sense wire, and warns of surface charge only at rest', () => {
    expect(techniqueFor({ kind: 'volts', red: 'delay.coach-sense', black: 'frame.bay-2' }, 'idle').join()).toMatch(
      /No test lamp/,
    );
    expect(techniqueFor({ kind: 'volts', red: 'delay.coach-sense', black: 'frame.bay-2' }, 'idle').join()).not.toMatch(
      /lamp on it/,
    );
    expect(techniqueFor({ kind: 'volts', red: 'coach-bank.plus', black: 'frame.bay-2' }, 'rested').join()).toMatch(
      /surface charge/,
    );
    expect(techniqueFor({ kind: 'drop', red: 'link.chassis-stud', black: 'link.coach-stud' }, 'idle').join()).toMatch(
      /while it carries current/,
    );
  });
});
