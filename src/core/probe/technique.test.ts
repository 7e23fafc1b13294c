import { describe, expect, it } from 'vitest';
import { VARIETY } from '../../../tests/motorhomes';
import { statesOf } from '../operate/states';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { rigMeasurements } from './measurement';
import { allTechniqueFor, TECHNIQUE, techniqueFor } from './technique';

const COACH = motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'bidirectional' });

describe('meter technique', () => {
  it('is said for every drop, clamp, bank and control point of any rig, two lines at most, and every row is used', () => {
    const used = new Set<string>();
    for (const choices of VARIETY) {
      const rig = motorhome('t', 'T', choices);
      for (const m of rigMeasurements(rig)) {
        for (const s of statesOf(rig)) {
          const tips = techniqueFor(rig, m, s.id);
          expect(tips.length).toBeLessThanOrEqual(2);
          if (m.kind !== 'volts' || /^(boost|delay|coach-bank|chassis-bank)\./.test(m.red))
            expect(tips.length, `${m.id} at ${s.id}`).toBeGreaterThan(0);
          for (const says of allTechniqueFor(rig, m, s.id)) used.add(says);
        }
      }
    }
    for (const row of TECHNIQUE) expect(used.has(row.says), row.says).toBe(true);
  });

  it('never puts a lamp on a sense wire, and warns of surface charge only at rest', () => {
    expect(techniqueFor(COACH, { kind: 'volts', red: 'delay.coach-sense' }, 'idle').join()).toMatch(/No test lamp/);
    expect(techniqueFor(COACH, { kind: 'volts', red: 'delay.coach-sense' }, 'idle').join()).not.toMatch(/lamp on it/);
    expect(techniqueFor(COACH, { kind: 'volts', red: 'coach-bank.plus' }, 'rested').join()).toMatch(/surface charge/);
    expect(techniqueFor(COACH, { kind: 'drop', red: 'link.chassis-stud' }, 'idle').join()).toMatch(
      /while it carries current/,
    );
  });
});
