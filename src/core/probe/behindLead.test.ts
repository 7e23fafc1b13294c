/** A lead on a battery's post reads past a bad clamp: what is lost in the clamp is lost before it. */
import { describe, expect, it } from 'vitest';
import { motorhomeOf } from '../../../tests/motorhomes';
import { compileRig } from '../compile/compile';
import { rigFaults } from '../diagnose/faults';
import { RigModel } from '../operate/settle';
import { statesOf } from '../operate/states';
import { Lineariser, readOutputs, rigOutputs } from './outputs';

const rig = motorhomeOf();
const compiled = compileRig(rig);
const model = new RigModel(compiled);
const outputs = rigOutputs(compiled);
const clamp = rigFaults(rig).find((f) => f.id === 'coach-bank.bad-clamp')!;
const read = (state: string, effects: typeof clamp.effects, severity: number) => {
  model.settle(state, { effects, severity });
  const into = new Float64Array(outputs.length);
  readOutputs(model, outputs, into);
  return (key: string) => into[outputs.findIndex((o) => o.key === key)]!;
};
/** The same with the lead on the clamp: two ways there are, told apart by where it lies. */
const [onPost, onClamp] = clamp.variants!;

describe('a lead on the post behind a bad clamp', () => {
  it('is below the wires by the ohms times the amps while the bank charges', () => {
    for (const severity of [0, 0.5, 1]) {
      const post = read('shore', onPost!.effects, severity);
      const same = read('shore', onClamp!.effects, severity);
      // The circuit is one and the same: what the wires carry and where they stand does not hang on a lead.
      for (const { key } of outputs) if (key !== 'coach-bank.plus') expect(post(key), key).toBeCloseTo(same(key), 9);
      const { from, to } = clamp.effects[0] as { from: number; to: number };
      const ohms = from * (to / from) ** severity;
      const amps = post('coach-negative.clamp');
      expect(amps).toBeGreaterThan(0.2);
      expect(same('coach-bank.plus') - post('coach-bank.plus')).toBeCloseTo(ohms * amps, 3);
    }
    expect(onPost!.share + onClamp!.share).toBeCloseTo(1, 12);
  });

  it('moves with every uncertain number and with the severity as finite differences say', () => {
    const lineariser = new Lineariser(model, outputs);
    const row = outputs.findIndex((o) => o.key === 'coach-bank.plus');
    for (const { id: state } of statesOf(rig)) {
      const y = new Float64Array(outputs.length);
      const J = new Float64Array(outputs.length * lineariser.width);
      const at = { effects: onPost!.effects, severity: 0.6, z: new Float64Array(compiled.params.length) };
      model.settle(state, at);
      lineariser.write(y, J, 0);
      const value = (change: Partial<typeof at>) => {
        model.settle(state, { ...at, ...change });
        const into = new Float64Array(outputs.length);
        readOutputs(model, outputs, into);
        return into[row]!;
      };
      const h = 1e-4;
      const close = (slope: number, numeric: number, what: string) =>
        expect(Math.abs(slope - numeric), `${state} ${what}`).toBeLessThan(1e-3 * Math.abs(numeric) + 2e-5);
      lineariser.columns.forEach((k, column) => {
        const moved = (by: number) => Float64Array.from(at.z, (x, i) => (i === k ? x + by : x));
        const numeric = (value({ z: moved(h) }) - value({ z: moved(-h) })) / (2 * h);
        close(J[row * lineariser.width + column]!, numeric, compiled.params[k]!.key);
      });
      const numeric = (value({ severity: 0.6 + h }) - value({ severity: 0.6 - h })) / (2 * h);
      close(J[row * lineariser.width + lineariser.severityColumn]!, numeric, 'severity');
    }
  });

  it('reads as ever where the clamp is good', () => {
    const sound = read('idle', [], 0.5);
    expect(model.behindLead('coach-bank.plus')).toBeUndefined();
    expect(sound('coach-bank.plus')).toBeGreaterThan(12);
  });
});
