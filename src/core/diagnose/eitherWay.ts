/**
 * What a charger on its lockout makes of a reading: with the engine off and its enable live, whether it runs depends on
 * tenths of a volt nobody knows. No straight line goes through that, so what the two ways differ by counts as noise.
 */
import type { CompiledRig } from '../compile/compile';
import type { RigModel } from '../operate/settle';
import type { OperatingState } from '../operate/states';
import { readOutputs, type Output } from '../probe/outputs';

/** The lockout put out of the way, and put where nothing passes it. */
const WAYS = [0.3, 3] as const;

/** V or A by which each output differs between running and locked out, state by state; nothing with the engine running. */
export function eitherWay(
  compiled: CompiledRig,
  model: RigModel,
  states: readonly OperatingState[],
  outputs: readonly Output[],
): Float64Array {
  const differs = new Float64Array(states.length * outputs.length);
  const lockouts = compiled.converters
    .map((c) => `${c.part}.lockout`)
    .filter((key, i, all) => compiled.param.has(key) && all.indexOf(key) === i);
  if (lockouts.length === 0) return differs;
  const ways = WAYS.map(() => new Float64Array(outputs.length));
  states.forEach(({ id, inputs }, s) => {
    if (inputs.engine !== 'off') return;
    const solved = WAYS.every((size, k) => {
      const effects = lockouts.map((param) => ({ do: 'scale-param' as const, param, from: size, to: size }));
      const { solved: found } = model.settle(id, { effects });
      readOutputs(model, outputs, ways[k]!);
      return found;
    });
    if (solved) outputs.forEach((_, o) => (differs[s * outputs.length + o] = ways[1]![o]! - ways[0]![o]!));
  });
  // The reference cannot be told from rounding.
  return differs.map((x) => (Math.abs(x) < 1e-6 ? 0 : x));
}
