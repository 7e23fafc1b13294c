/** A charger on a feed it draws under its lockout goes on and off (common practice); a dead one never runs. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { RigModel } from '../operate/settle';
import { rigOutputs } from '../probe/outputs';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { Belief, type Evidence } from './belief';
import { rigFaults } from './faults';
import { otherPhase } from './hunts';

const compiled = compileRig(coupledRig('t', 'T', { ...USUAL_COUPLED['trailer'], link: 'dcdc' }));
const outputs = rigOutputs(compiled);
const at = (key: string) => outputs.findIndex((o) => o.key === key);
const phaseOf = (fault: string, severity: number) => {
  const model = new RigModel(compiled);
  const situation = { effects: rigFaults(compiled.rig).find((f) => f.id === fault)!.effects, severity };
  return otherPhase(compiled, model, outputs, 'idle', situation, model.settle('idle', situation));
};

describe('a charger that hunts', () => {
  it.each([0.25, 0.5, 0.75, 1])('draws its input down while it runs, severity %f', (severity) => {
    const phase = phaseOf('connector.pin-corroded', severity)!;
    const [front, rear] = [phase.values[at('connector.front')]!, phase.values[at('connector.rear')]!];
    expect(front - rear).toBeGreaterThan(1);
    expect(phase.share).toBeGreaterThan(0);
    expect(phase.share).toBeLessThan(1);
  });

  it('is neither one that is dead nor one on a sound line', () => {
    expect(phaseOf('dcdc.dead', 0.5)).toBeUndefined();
    expect(phaseOf('nothing-wrong', 0.5)).toBeUndefined();
  });
});

const reading = (probe: string, ref: string, value: number, n = 0): Evidence => ({
  id: `${probe}|${ref}|${n}`,
  state: 'idle',
  probe,
  ref,
  value,
});
const odds = (evidence: Evidence[]) => {
  const belief = new Belief(compiled, ['coach-not-charging']);
  belief.setEvidence(evidence);
  const of = (id: string) => belief.probability[belief.faults.findIndex((f) => f.id === id)]!;
  return { pin: of('connector.pin-corroded'), dead: of('dcdc.dead') };
};

describe('what is believed of it', () => {
  const rests = [
    reading('dcdc.enable', 'frame.front', 13.8),
    reading('dcdc.input', 'frame.front', 13.9),
    reading('connector.front', 'connector.rear', 0.001),
    reading('connector.rear', 'frame.front', 13.9),
    reading('dcdc.output', 'frame.front', 12.1),
  ];

  it('every reading that finds it resting makes a dead one likelier than a corroded pin', () => {
    const ratios = [2, 3, 4, 5].map((n) => {
      const { pin, dead } = odds(rests.slice(0, n));
      return dead / pin;
    });
    for (let k = 1; k < ratios.length; k++) expect(ratios[k]!).toBeGreaterThan(ratios[k - 1]!);
    expect(ratios.at(-1)!).toBeGreaterThan(2);
  });

  it('one that finds it running under a drop over the pin rules a dead one out', () => {
    const { pin, dead } = odds([...rests.slice(0, 2), reading('connector.front', 'connector.rear', 2.4)]);
    // One that hunts was read both ways in one state, and nobody said so: it counts for less than it did.
    expect(pin).toBeGreaterThan(6 * dead);
  });
});

describe('how far a reading is off', () => {
  it('is told from the nearer of what a charger that hunts may have been doing', () => {
    const belief = new Belief(compiled, ['coach-not-charging']);
    const phase = phaseOf('connector.pin-corroded', 0.5)!;
    const running = phase.values[at('connector.front')]! - phase.values[at('connector.rear')]!;
    const off = (value: number) => {
      belief.setEvidence([reading('connector.front', 'connector.rear', value)]);
      return belief.deviation(belief.heaviest('connector.pin-corroded'), 0);
    };
    // Neither at rest nor while it runs is a drop like these: both are near one of the two.
    for (const value of [0.002, running]) expect(off(value), `${value} V`).toBeLessThan(2.5);
  });
});
