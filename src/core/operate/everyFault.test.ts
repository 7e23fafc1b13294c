/**
 * Every fault of the catalogue on every rig the archetypes draw, in every operating state and at both ends of its
 * severity: an operating point is found, every reading is a number a meter could show, and so is every slope; and what was
 * not worked out again while the controllers ran through the dwell would have come out the same.
 */
import { EVERY_RIG } from '../../../tests/everyRig';
import { describe, expect, it } from 'vitest';
import { ENTRY_LIMIT } from '../units/meterEntry';
import { compileRig } from '../compile/compile';
import { rigFaults } from '../diagnose/faults';
import { Lineariser, readOutputs, rigOutputs } from '../probe/outputs';
import { hasSeverity } from './effects';
import { RigModel } from './settle';
import { statesOf } from './states';

/** What solving itself does not write to. */
const VALUES = ['resistorOhms', 'emfVolts', 'emfOhms'] as const;

it.each(EVERY_RIG)('%s', (_, rig) => {
  const compiled = compileRig(rig);
  const model = new RigModel(compiled);
  const outputs = rigOutputs(compiled);
  const lineariser = new Lineariser(model, outputs);
  const y = new Float64Array(outputs.length);
  const slopes = new Float64Array(outputs.length * lineariser.width);
  const wrong: string[] = [];
  for (const fault of rigFaults(rig))
    for (const state of statesOf(rig))
      for (const severity of hasSeverity(fault.effects) ? [0, 1] : [0.5]) {
        const at = `${fault.id} (${severity}) ${state.id}`;
        const settled = model.settle(state.id, { effects: fault.effects, severity });
        if (!settled.solved) wrong.push(`${at}: no operating point`);
        readOutputs(model, outputs, y);
        outputs.forEach((o, i) => {
          // Between two batteries in parallel under a dead short anything flows; no meter shows more than its range.
          const most = o.kind === 'volts' ? ENTRY_LIMIT.V : Infinity;
          if (!(Math.abs(y[i]!) < most)) wrong.push(`${at}: ${o.key} reads ${y[i]}`);
        });
        lineariser.write(y, slopes, 0);
        if (slopes.some((x) => !Number.isFinite(x))) wrong.push(`${at}: a slope is no number`);
        if (settled.hunting) continue;
        const stood = VALUES.map((array) => model.values[array].slice());
        model.writeValues();
        VALUES.forEach((array, a) => {
          if (stood[a]!.some((x, i) => x !== model.values[array][i])) wrong.push(`${at}: ${array} stood otherwise`);
        });
      }
  expect(wrong).toEqual([]);
});

describe('the catalogue', () => {
  it('is walked whole: every fault of a part comes up on some rig', () => {
    const seen = new Set(EVERY_RIG.flatMap(([, rig]) => rigFaults(rig).map((f) => f.id.split('.').at(-1)!)));
    expect(seen.size).toBeGreaterThan(40);
  });
});
