/** What no straight line says of a reading: ghost volts on an open end, a charger that may or may not run. */
import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { compileRig } from '../compile/compile';
import { motorhome } from '../rig/archetypes/motorhome';
import { Belief } from './belief';

const rig = motorhome('test', 'Test coach');
const compiled = compileRig(rig);

describe('ghost volts', () => {
  /** Standard deviation of a point against the frame, under a fault or none. */
  const spread = (of: typeof rig, fault: string, state: string, probe: string, ref: string) => {
    const belief = new Belief(compileRig(of), []);
    belief.setEvidence([]);
    return belief.predictive(belief.heaviest(fault), belief.rowOf(state, probe)!, belief.rowOf(state, ref)!).sd;
  };

  it('may stand on the end of a broken wire that nothing else holds, and not where a coil or a bolt does', () => {
    const at = (fault: string, probe: string) => spread(rig, fault, 'idle', probe, 'frame.bay-2');
    expect(at('ignition-wire.missing', 'delay.ignition')).toBeGreaterThan(0.6);
    expect(at('nothing-wrong', 'delay.ignition')).toBeLessThan(0.6);
    expect(at('boost.fuse-blown', 'link.coil-plus')).toBeLessThan(0.6);
  });

  it('may stand on all that is left between an open breaker and a diode, however many points that are', () => {
    const towed = EVERY_RIG.find(([name]) => name === 'towed-car, diode-lamp')![1];
    for (const probe of ['link-fuse.load', 'connector.front', 'connector.rear']) {
      expect(spread(towed, 'link-fuse.tripped', 'idle', probe, 'frame.front'), probe).toBeGreaterThan(0.6);
      expect(spread(towed, 'nothing-wrong', 'idle', probe, 'frame.front'), probe).toBeLessThan(0.4);
    }
    // What floats together is no further apart than its wires make it.
    expect(spread(towed, 'link-fuse.tripped', 'idle', 'connector.front', 'connector.rear')).toBeLessThan(0.1);
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
