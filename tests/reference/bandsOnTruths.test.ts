/**
 * Bands against sound rigs that are not drawn from the model they come from (bench/truth): a band that claims 95 % and
 * holds 80 % sends people after faults that are not there; one that holds all tells nothing.
 */
import { describe, expect, it } from 'vitest';
import { FORMS } from '../../bench/truth/forms';
import { TRUTH_RIGS } from '../../bench/truth/rigs';
import { compileRig } from '../../src/core/compile/compile';
import { statesOf } from '../../src/core/operate/states';
import { BandTable } from '../../src/core/probe/bands';
import { judge } from '../../src/core/probe/judge';
import { rigMeasurements } from '../../src/core/probe/measurement';

/** Share of readings of sound rigs, every state entered in turn, that are in their band; by state. */
function held(form: string, drawings: readonly string[], seeds: readonly number[]) {
  const states = new Map<string, { inside: number; all: number }>();
  for (const name of drawings) {
    const rig = TRUTH_RIGS[name]!();
    const bands = new BandTable(compileRig(rig));
    for (const seed of seeds) {
      const hand = FORMS[form]!(rig, seed, 'sound', 'misunderstood delay');
      if (!hand) continue;
      for (const { id } of statesOf(rig)) {
        hand.enter(id);
        const count = states.get(id) ?? { inside: 0, all: 0 };
        for (const m of rigMeasurements(rig)) {
          count.all++;
          if (judge(hand.bench.reading(m.red, m.black), bands.band(id, m.red, m.black)!) === 'ok') count.inside++;
        }
        states.set(id, count);
      }
    }
  }
  const sum = [...states.values()].reduce((s, c) => ({ inside: s.inside + c.inside, all: s.all + c.all }));
  return { all: sum.inside / sum.all, of: (id: string) => states.get(id)!.inside / states.get(id)!.all };
}

describe('bands', () => {
  const coaches = held('stepped', ['rear coach, delay module', 'front coach, two-way module'], [31, 62, 93]);

  it('hold about what they claim of sound rigs of another truth', () => {
    expect(coaches.all).toBeGreaterThan(0.9);
    expect(coaches.all).toBeLessThan(0.985);
  });

  it('hold where a verdict is made: at rest, idling, on shore', () => {
    for (const state of ['rested', 'idle', 'shore']) expect(coaches.of(state), state).toBeGreaterThan(0.88);
  });
});
