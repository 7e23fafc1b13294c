/** What a module lets through while it is off: a meter sees it on an open wire, nothing that draws does. Common practice. */
import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { compileRig } from '../compile/compile';
import { Belief } from '../diagnose/belief';
import { RigModel } from '../operate/settle';
import { statesOf } from '../operate/states';
import { readOutputs, rigOutputs } from '../probe/outputs';
import { is } from './kinds';

const WITH_MODULE = EVERY_RIG.filter(([, rig]) => rig.parts.some((p) => is(p, 'module')));

/** What feeds each module's output. */
const LEAKS_FROM: Readonly<Record<string, readonly string[]>> = {
  'ignition-delay-module': ['ignition'],
  'voltage-link-module': ['chassis-sense'],
  'timed-window-module': ['chassis-sense'],
  'bidirectional-module': ['chassis-sense', 'coach-sense'],
};

/** Volts of its output and of what feeds it, in every state, with the coil's ground as it is or lost. */
function outputOf([, rig]: (typeof EVERY_RIG)[number], lost: boolean) {
  const compiled = compileRig(rig);
  const module = rig.parts.find((p) => is(p, 'module'))!;
  const coil = rig.parts.find((p) => is(p, 'solenoid'))!;
  const ground = rig.conductors.find((c) => c.from.part === coil.id && c.from.terminal === 'coil-minus')!;
  const model = new RigModel(compiled);
  const outputs = rigOutputs(compiled);
  const values = new Float64Array(outputs.length);
  const at = (key: string) => values[outputs.findIndex((o) => o.key === key)] ?? 0;
  return statesOf(rig).map(({ id }) => {
    model.settle(id, lost ? { effects: [{ do: 'open', element: ground.id }] } : {});
    readOutputs(model, outputs, values);
    // A divider of two like leaks stands halfway between what feeds them.
    const feeds = LEAKS_FROM[module.kind]!.map((t) => at(`${module.id}.${t}`));
    return { state: id, output: at(`${module.id}.output`), feed: feeds.reduce((sum, v) => sum + v / feeds.length, 0) };
  });
}

const OFF = WITH_MODULE.map((rig) => ({
  name: rig[0],
  kind: rig[1].parts.find((p) => is(p, 'module'))!.kind,
  off: outputOf(rig, false).filter(({ output, feed }) => output < 1 && feed > 10),
  lost: outputOf(rig, true),
})).filter(({ off }) => off.length > 0);

it('every kind of module is seen fed and off', () => {
  expect(new Set(OFF.map(({ kind }) => kind))).toEqual(new Set(Object.keys(LEAKS_FROM)));
});

describe.each(OFF)('$name', ({ off, lost }) => {
  it('shows nothing on a coil that is there: a hundred ohms against thirty thousand', () => {
    for (const { output, feed } of off) expect(Math.abs(output)).toBeLessThan(0.005 * feed);
  });

  it('shows its feed’s volts to a meter where the coil has lost its ground', () => {
    for (const { state } of off) {
      const without = lost.find((x) => x.state === state)!;
      // But for what a meter of some megohms takes of it.
      expect(without.output / without.feed, state).toBeGreaterThan(0.98);
      expect(without.output / without.feed, state).toBeLessThan(1.001);
    }
  });
});

describe('a blown boost fuse with the coil’s ground lost as well', () => {
  const [, rig] = WITH_MODULE.find(([, r]) => r.parts.some((p) => p.kind === 'voltage-link-module'))!;
  const belief = new Belief(compileRig(rig), ['coach-not-charging', 'boost-dead']);
  const read = (state: string, red: string, black: string, value: number) => ({
    id: `${state}/${red}`,
    state,
    probe: red,
    ref: black,
    value,
    confirmed: true,
  });
  belief.setEvidence([
    read('idle', 'boost.fused', 'frame.bay-2', 0.002),
    read('idle', 'boost.feed', 'frame.bay-2', 12.02),
    read('boost-engine-off', 'boost.fused', 'frame.bay-2', 12.8),
    read('boost-engine-off', 'boost.output', 'frame.bay-2', 12.77),
    read('boost-engine-off', 'link.coil-minus', 'frame.bay-2', 12.71),
    read('idle', 'coach-bank.plus', 'frame.bay-2', 12.02),
  ]);
  const pair = belief.faults.find(
    (f) => f.members?.includes('coil-ground.ground-lost') && f.members.includes('boost.fuse-blown'),
  );

  it('is found though a meter reads battery volts behind the fuse: the module’s leak feeds them', () => {
    expect(belief.probability[belief.faults.indexOf(pair!)]).toBeGreaterThan(0.5);
    expect(Math.max(...belief.blunder)).toBeLessThan(0.3);
  });

  it('leaves a lamp dark there: it draws what no leak gives', () => {
    const lamp = belief.questions.find((q) => q.id === 'lamp-boost')!;
    const dark = belief.answerChance(lamp, 'dark', belief.heaviest(pair!.id));
    expect(dark).toBeGreaterThan(0.5);
    expect(belief.answerChance(lamp, 'bright', belief.heaviest('nothing-wrong'))).toBeGreaterThan(0.5);
  });
});
