import { describe, expect, it } from 'vitest';
import { motorhomeInWords, VARIETY } from '../../../tests/motorhomes';
import { compileRig } from '../compile/compile';
import { Belief } from '../diagnose/belief';
import { diagnose } from '../diagnose/diagnose';
import { RigModel } from '../operate/settle';
import { statesOf } from '../operate/states';
import { motorhome } from './archetypes/motorhome';
import { checkRig } from './check';
import type { Rig } from './schema';
import { unworkable } from './workable';

const rig = motorhome('t', 'T');
/** A piece taken out, with the wires that end on it and their probes: as the screen does it. */
const without = (from: Rig, id: string): Rig => {
  const wires = from.conductors.filter((c) => c.id === id || c.from.part === id || c.to.part === id).map((c) => c.id);
  const gone = new Set([id, ...wires]);
  return {
    ...from,
    conductors: from.conductors.filter((c) => !gone.has(c.id)),
    parts: from.parts.filter((p) => !gone.has(p.id)),
    probes: from.probes.map((p) => (gone.has(p.key.split('.')[0]!) ? { ...p, retired: true } : p)),
  };
};

describe('a rig that cannot work', () => {
  it.each(VARIETY.map((c) => [motorhomeInWords(c), c] as const))('is none of the archetypes: %s', (_, choices) => {
    expect(unworkable(motorhome('t', 'T', choices))).toEqual([]);
  });

  it('is told: a bank without a return, a module with no feed, frames that are not joined', () => {
    expect(unworkable(without(rig, 'coach-negative'))).toEqual([expect.objectContaining({ part: 'coach-bank' })]);
    expect(unworkable(without(rig, 'ignition-wire')).map((u) => u.part)).toEqual(expect.arrayContaining(['delay']));
    const split = unworkable({ ...rig, bonds: rig.bonds.filter((b) => b.id !== 'frame-splice') });
    expect(split.some((u) => /House frame is joined to no other metal/.test(u.says))).toBe(true);
    expect(split.some((u) => u.part === 'coach-bank' && /no return/.test(u.says))).toBe(true);
  });

  // Every wire and every part that is not bolted down, taken out in turn: saved, solved, diagnosed all the same.
  const pieces = [...rig.conductors, ...rig.parts.filter((p) => !rig.bonds.some((b) => b.from.part === p.id))];
  it.each(pieces.map((p) => p.id))('without %s is still a sound document with an answer', (id) => {
    const edited = without(rig, id);
    expect(checkRig(edited)).toEqual([]);
    const compiled = compileRig(edited);
    const model = new RigModel(compiled);
    for (const s of statesOf(edited)) expect(model.settle(s.id).solved, s.id).toBe(true);
  });

  it('is diagnosed for what it still has', () => {
    for (const id of ['coach-negative', 'link', 'delay', 'charger', 'chassis-negative']) {
      const answer = diagnose(new Belief(compileRig(without(rig, id)), ['coach-not-charging']), { state: 'rested' });
      expect(answer.suspects.reduce((s, x) => s + x.probability, 0)).toBeCloseTo(1, 6);
      expect(answer.next.length).toBeGreaterThan(0);
    }
  });
});
