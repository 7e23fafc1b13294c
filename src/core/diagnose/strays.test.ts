/** What no straight line says of a reading: ghost volts on an open end, a charger that may or may not run. */
import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { compileRig } from '../compile/compile';
import { motorhome } from '../rig/archetypes/motorhome';
import { Belief } from './belief';
import { looseEnds } from './ghostVolts';

const rig = motorhome('test', 'Test coach');
const compiled = compileRig(rig);

describe('ghost volts', () => {
  it('may stand on the ends of a broken wire that nothing else holds, and nowhere else', () => {
    const wire = rig.conductors.find((c) => c.id === 'ignition-wire')!;
    const loose = [...looseEnds(rig, [{ do: 'open', element: wire.id }])];
    expect(loose).toContain('delay.ignition');
    for (const at of loose)
      expect(rig.conductors.filter((c) => [c.from, c.to].some((e) => `${e.part}.${e.terminal}` === at))).toEqual([
        wire,
      ]);
    // The coil holds one end of its feed, where the boost wire ends as well; a bolt of the frame stays what it is.
    expect([...looseEnds(rig, [{ do: 'open', element: 'coil-feed' }])]).not.toContain('link.coil-plus');
    const onFrame = rig.conductors.find((c) => rig.grounds.some((g) => g.id === c.to.part))!;
    for (const at of looseEnds(rig, [{ do: 'open', element: onFrame.id }]))
      expect(rig.parts.some((p) => p.id === at.split('.')[0])).toBe(true);
    expect(looseEnds(rig, [{ do: 'open', element: 'boost.fuse' }]).size).toBe(0);
    expect(looseEnds(rig, [{ do: 'add-ohms', element: wire.id, from: 1, to: 2 }]).size).toBe(0);
  });

  it('on the dead end of a missing feed are no slip, and take nothing from the verdict', () => {
    const told = (ghost: number) => {
      const belief = new Belief(compiled, ['coach-not-charging']);
      const at = (state: string, probe: string, value: number) => ({
        id: `${state}/${probe}`,
        state,
        probe,
        ref: 'frame.bay-2',
        value,
        confirmed: true,
      });
      belief.setEvidence([
        at('idle', 'delay.ignition', ghost),
        at('idle', 'ignition.run', 13.3),
        at('idle', 'coach-bank.plus', 12.4),
        at('idle', 'chassis-bank.plus', 13.5),
      ]);
      const share = belief.classes().get(belief.faults.find((f) => f.id === 'ignition-wire.missing')!.class)!;
      return { share, slip: belief.blunder[0]! };
    };
    expect(told(0.6).slip).toBeLessThan(0.3);
    expect(told(0.6).share).toBeGreaterThan(0.5 * told(0).share);
    // Half the feed is no ghost.
    expect(told(7).share).toBeLessThan(0.3 * told(0).share);
  });
});

describe('a charger whose enable is live with the engine off', () => {
  it('may run or not: what the two differ by is in the spread there, and only there', () => {
    const spread = (name: string, state: string, probe: string) => {
      const belief = new Belief(compileRig(EVERY_RIG.find(([n]) => n === name)![1]), []);
      belief.setEvidence([]);
      return belief.predictive(belief.heaviest('nothing-wrong'), belief.rowOf(state, probe)!, -1).sd;
    };
    expect(spread('trailer, dcdc', 'key-on', 'dcdc.output')).toBeGreaterThan(0.5);
    expect(spread('trailer, dcdc', 'rested', 'dcdc.output')).toBeLessThan(0.5);
    expect(spread('trailer, thin-line', 'key-on', 'coach-bank.plus')).toBeLessThan(0.5);
  });
});
