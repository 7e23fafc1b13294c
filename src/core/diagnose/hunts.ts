/**
 * A charger that locks itself out on its feed and tries again, over and over: a reading finds it resting or running, and
 * what it finds says much. A dead one never runs.
 */
import type { CompiledRig } from '../compile/compile';
import type { RigModel, Settled, Situation } from '../operate/settle';
import { readOutputs, type Output } from '../probe/outputs';

/**
 * Share of readings that find it running. Of the cycle it would be three seconds in thirteen; but some chargers fold
 * back and run on where others lock out, and who holds a meter for seconds sees it begin. Assumed.
 */
const FOUND_RUNNING = 0.5;
/** Of its lockout, so that it runs whatever it draws the feed down to, or never. */
const RUNS = 0.3;
const RESTS = 3;
const RESTING = new Set(['locked-out', 'recovering', 'off']);

/** What the outputs read while it does the other thing, and the share of readings that find it so. */
export interface OtherPhase {
  values: Float64Array;
  share: number;
}

/** The other phase of what hunts in a settled state; undefined where nothing does. Leaves the model in it. */
export function otherPhase(
  compiled: CompiledRig,
  model: RigModel,
  outputs: readonly Output[],
  state: string,
  situation: Situation,
  settled: Settled,
): OtherPhase | undefined {
  const { hunting } = settled;
  if (!hunting) return undefined;
  const chargers = [...new Set(compiled.converters.map((c) => c.part))].filter(
    (part) => hunting[0][part] !== hunting[1][part] && compiled.param.has(`${part}.lockout`),
  );
  if (chargers.length === 0) return undefined;
  const rests = RESTING.has(settled.modes[chargers[0]!]!.mode);
  const size = rests ? RUNS : RESTS;
  const effects = chargers.map((part) => ({
    do: 'scale-param' as const,
    param: `${part}.lockout`,
    from: size,
    to: size,
  }));
  const { solved } = model.settle(state, { ...situation, effects: [...(situation.effects ?? []), ...effects] });
  if (!solved) return undefined;
  const values = new Float64Array(outputs.length);
  readOutputs(model, outputs, values);
  return { values, share: rests ? FOUND_RUNNING : 1 - FOUND_RUNNING };
}
