/** What by itself keeps a rig from being called sound, however likely all readings together make it. Common practice. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { motorhome } from '../rig/archetypes/motorhome';
import { Belief, type Evidence } from './belief';
import { diagnose } from './diagnose';
import { HiddenRig } from './hiddenRig';
import { unproved } from './proof';
import { seemsSound } from './soundness';

const compiled = compileRig(motorhome('test', 'Test coach'));
const BOLT = 'frame.bay-2';
const STUDS = 'link.chassis-stud~link.coach-stud';

const read = (state: string, probe: string, value: number, ref?: string): Evidence => ({
  id: `${state}/${probe}${ref ? `~${ref}` : ''}`,
  state,
  probe,
  ...(ref === undefined ? {} : { ref }),
  value,
});
const classesOf = (belief: Belief) =>
  [...belief.classes()]
    .map(([id, probability]) => ({ class: id, probability }))
    .sort((a, b) => b.probability - a.probability);

/** A sound coach read at idle and at rest, and what is said once some of it is otherwise. */
function spoiled(seed: number, change: (e: Evidence) => Partial<Evidence> | undefined) {
  const belief = new Belief(compiled, ['slow-charging']);
  const hidden = new HiddenRig(compiled, 'nothing-wrong', seed);
  const points = ['coach-bank.plus', 'chassis-bank.plus', 'coach-bank.minus', 'link.chassis-stud', 'link.coach-stud'];
  const volts = ['idle', 'rested'].flatMap((state) =>
    points.map((probe) => read(state, probe, hidden.read(state, probe, BOLT, 1).value, BOLT)),
  );
  const amps = read('idle', 'coach-negative.clamp', hidden.read('idle', 'coach-negative.clamp', undefined, 1).value);
  const evidence = [...volts, amps];
  const changed = evidence.map((e) => ({ ...e, ...change(e) }));
  belief.setEvidence(changed);
  return { belief, evidence: changed, sound: seemsSound(belief, classesOf(belief)) };
}

describe('a rig read as a sound one', () => {
  it('may be sound', () => expect(spoiled(5, () => undefined).sound).toBe(true));

  it('is not while its bank is drawn on where it is to be charged', () => {
    const drawn = (value: number, confirmed = true) =>
      spoiled(5, (e) => (e.probe.endsWith('.clamp') ? { value, ...(confirmed ? { confirmed } : {}) } : undefined));
    expect(drawn(-4.4).sound).toBe(false);
    expect(drawn(-4.4, false).sound).toBe(false);
  });

  it('is, with a hundredth of a volt more on a ground than it should: what a good joint loses speaks against no rig', () => {
    // Sixty times what is expected, and read twice.
    const { sound } = spoiled(5, (e) =>
      e.probe === 'coach-bank.minus' && e.state === 'rested' ? { value: 0.011, confirmed: true } : undefined,
    );
    expect(sound).toBe(true);
  });
});

describe('volts lost between the banks', () => {
  const owed = (lost: number) => {
    const belief = new Belief(compiled, ['slow-charging']);
    belief.setEvidence([
      read('idle', 'chassis-bank.plus', 13.5, BOLT),
      read('idle', 'coach-bank.plus', 13.5 - lost, BOLT),
      read('idle', 'coach-negative.clamp', 12),
    ]);
    return unproved(belief).flatMap((u) => (u.test ? [`${u.state}/${u.test}`] : []));
  };

  it('have each piece on the way read over its studs before it is called sound; a tenth is what a joint may lose', () => {
    expect(owed(0.2)).toContain(`idle/${STUDS}`);
    expect(owed(0.2).some((t) => t.includes('link-fuse'))).toBe(true);
    expect(owed(0.05)).toEqual([]);
  });
});

describe('a number far off what is stated of the rig', () => {
  it('is no sound one: an output of a module of tens of ohms is not its usual quarter', () => {
    const belief = new Belief(compiled, ['coach-not-charging']);
    belief.setEvidence(
      [
        read('idle', 'boost.output', 4.84, BOLT),
        read('idle', 'ignition.run', 12.72, BOLT),
        read('idle', 'delay.ignition', 7.84, 'delay.output'),
        read('idle', 'link.coach-stud', 11.97, BOLT),
        read('idle', 'link.chassis-stud', 13, BOLT),
        read('idle', 'coach-bank.plus', 11.96, BOLT),
        read('idle', 'coach-negative.clamp', -4.4),
      ].map((e) => ({ ...e, confirmed: true })),
    );
    expect(belief.outOfTolerance(belief.heaviest('nothing-wrong'))).toBeGreaterThan(3.5);
    expect(diagnose(belief, { state: 'idle' }).stop.class).not.toBe('nothing-wrong');
    belief.setEvidence([]);
    expect(belief.outOfTolerance(belief.heaviest('nothing-wrong'))).toBe(0);
  });
});

describe('a charger that is found running and found resting in one state', () => {
  const trailer = compileRig(coupledRig('t', 'T', { ...USUAL_COUPLED.trailer, link: 'dcdc' }));
  const FRONT = 'frame.front';
  // Its feed drawn down at one reading and up at the next; amps that came and went.
  const both = [
    read('idle', 'dcdc.input', 11.36, FRONT),
    read('idle', 'coach-negative.clamp', 31),
    read('idle', 'chassis-bank.plus', 13.68, FRONT),
    read('idle', 'coach-bank.plus', 12.88, FRONT),
    read('idle', 'line.clamp', 0.4),
    read('idle', 'dcdc.enable', 13.46, FRONT),
  ].map((e) => ({ ...e, confirmed: true }));

  it('comes and goes: that is not called sound', () => {
    const belief = new Belief(trailer, ['slow-charging', 'coach-not-charging']);
    belief.setEvidence(both);
    const found = both.map((_, r) => belief.foundAs(belief.heaviest('connector.ground-pin-corroded'), r));
    expect(found).toContain('usual');
    expect(found).toContain('other');
    expect(seemsSound(belief, classesOf(belief))).toBe(false);
  });

  it('found the same every time it is one thing', () => {
    const belief = new Belief(trailer, ['slow-charging', 'coach-not-charging']);
    belief.setEvidence([read('idle', 'dcdc.input', 11.36, FRONT), read('idle', 'coach-negative.clamp', 31)]);
    const found = [0, 1].map((r) => belief.foundAs(belief.heaviest('connector.ground-pin-corroded'), r));
    expect(new Set(found.filter(Boolean)).size).toBeLessThanOrEqual(1);
  });
});

describe('a bank that is low where nothing charges it', () => {
  const owed = (rested: number, amps: number) => {
    const belief = new Belief(compiled, ['slow-charging']);
    belief.setEvidence([
      read('rested', 'coach-bank.plus', rested, BOLT),
      read('idle', 'coach-bank.plus', 13.7, BOLT),
      read('idle', 'chassis-bank.plus', 13.75, BOLT),
      read('idle', 'coach-negative.clamp', amps),
    ]);
    return unproved(belief).flatMap((u) => u.questions);
  };

  it('and takes few amps is load-tested: full it would stand higher, good it would take more', () => {
    expect(owed(11.5, 1.9)).toEqual(['load-test.coach-bank']);
    // It takes what a low one takes; or it stands as a full one does, which takes little.
    expect(owed(11.5, 40)).toEqual([]);
    expect(owed(12.7, 1.9)).toEqual([]);
  });
});

describe('a start battery that goes flat', () => {
  const TOW = 'frame.front';
  const trailer = compileRig(coupledRig('t', 'T', USUAL_COUPLED.trailer));

  it('is seen charged by a lead on its post: the drop from the alternator to it says nothing of what stands there', () => {
    const belief = new Belief(trailer, ['chassis-flat']);
    const owed = (...evidence: Evidence[]) => {
      belief.setEvidence(evidence);
      return unproved(belief).flatMap((u) => u.points.map((p) => `${u.state}/${p}`));
    };
    expect(owed(read('idle', 'alternator.output', 0.14, 'chassis-bank.plus'))).toContain('idle/chassis-bank.plus');
    expect(owed(read('idle', 'chassis-bank.plus', 13.6, TOW))).not.toContain('idle/chassis-bank.plus');
  });

  it('whose rest current no clamp of the drawing reaches is called sound with that said', () => {
    const belief = new Belief(trailer, ['chassis-flat']);
    belief.setEvidence(
      [
        read('rested', 'chassis-bank.plus', 12.6, TOW),
        read('idle', 'chassis-bank.plus', 13.6, TOW),
        read('idle', 'chassis-bank.minus', 0.01, TOW),
        read('rested', 'alternator-cable.clamp', 0),
        read('rested', 'coach-bank.minus', 0, TOW),
        read('uncoupled', 'link.coach-stud', 0, TOW),
        read('idle', 'alternator.output', 0.06, 'chassis-bank.plus'),
      ].map((e) => ({ ...e, confirmed: true })),
      [{ id: 'q', what: 'load-test.chassis-bank', answer: 'passes' }],
    );
    const { stop } = diagnose(belief, { state: 'rested' });
    expect(stop).toMatchObject({ reached: true, class: 'nothing-wrong' });
    expect(stop.why).toMatch(/no clamp of this drawing goes on its negative: do that by hand/);
    expect(stop.unseen).toBeDefined();
  });
});

describe('half an ampere at rest', () => {
  const amps = (negative: number, zero?: number) => {
    const belief = new Belief(compiled, ['chassis-flat']);
    belief.setEvidence([
      read('rested', 'chassis-bank.plus', 12.45, BOLT),
      read('idle', 'chassis-bank.plus', 13.7, BOLT),
      read('rested', 'chassis-negative.clamp', negative),
      ...(zero === undefined ? [] : [read('rested', 'alternator-cable.clamp', zero)]),
    ]);
    const of = (id: string) => belief.probability[belief.faults.findIndex((f) => f.id === id)]!;
    return { draw: of('chassis-loads.parasitic'), owed: unproved(belief).flatMap((u) => u.points) };
  };

  it('is told from the clamp’s own zero by a wire that carries nothing: both read the same zero', () => {
    // Common practice: zeroed where it is read. Of a clamp that reads −0.6 A on nothing, −0.6 A is nothing.
    const [unknown, real, zero] = [amps(-0.6), amps(-0.6, 0.1), amps(-0.6, -0.6)];
    expect(real.draw).toBeGreaterThan(1.5 * unknown.draw);
    expect(zero.draw).toBeLessThan(0.5 * unknown.draw);
  });

  it('keeps the battery from being called sound, where the clamp’s zero is not it', () => {
    const end = (negative: number) => {
      const belief = new Belief(compiled, ['chassis-flat']);
      belief.setEvidence(
        [
          read('rested', 'chassis-bank.plus', 12.65, BOLT),
          read('idle', 'chassis-bank.plus', 13.75, BOLT),
          read('idle', 'chassis-bank.minus', 0.01, BOLT),
          read('rested', 'chassis-negative.clamp', negative),
          read('rested', 'alternator-cable.clamp', 0.1),
        ].map((e) => ({ ...e, confirmed: true })),
        [{ id: 'q', what: 'load-test.chassis-bank', answer: 'passes' }],
      );
      return seemsSound(belief, classesOf(belief));
    };
    expect(end(0)).toBe(true);
    expect(end(-0.35)).toBe(false);
  });

  it('has that wire clamped before the battery is called sound', () => {
    expect(amps(-0.6).owed).toContain('alternator-cable.clamp');
    expect(amps(-0.6, 0).owed).not.toContain('alternator-cable.clamp');
  });
});
