/** Where a witness is read on this very rig: its points, clamps and drops. */
import { is } from '../parts/kinds';
import type { TraitName } from '../parts/traits';
import { rigMeasurements, type Measurement } from '../probe/measurement';
import type { Belief } from './belief';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import { AT_REST, type Placed, type Side, type Unproved } from './witness';

/** The drop from stud to stud of the first part of a kind; none where nothing measures it. */
function acrossStuds({ rig }: Belief['compiled'], of: TraitName): Measurement | undefined {
  const part = rig.parts.find((p) => is(p, of));
  return rigMeasurements(rig).find(
    (m) =>
      m.kind === 'drop' &&
      [m.red, m.black!].every((k) => /^[^.]+\.[a-z]+-stud$/.test(k) && k.startsWith(`${part?.id}.`)),
  );
}

/** States in which one bank is charged or drawn on, and V by which two that are apart then differ. From memory. */
const ONE_IS_WORKED = ['shore', 'generator', 'idle-before-delay', 'key-on'] as const;

const APART_VOLTS = 0.1;

/**
 * What shows, in the first state in which a sound rig keeps its banks visibly apart, that it does: the drop over the
 * link where leads reach over it, else both posts; and a clamp on the bank that is left alone. A cable nobody drew, thin
 * or poorly joined, leaves the volts apart and lets amps through all the same.
 */
export function apartOf(belief: Belief, of: TraitName): Unproved[] {
  const sound = belief.components[belief.heaviest(NOTHING_WRONG.id)]!;
  const { rig } = belief.compiled;
  const post = (side: Side) => rig.parts.find((p) => is(p, 'battery') && p.side === side)?.id;
  const posts = [post('engine'), post('coach')].map((id) => `${id}.plus`);
  const studs = acrossStuds(belief.compiled, of);
  const ends = studs ? [studs.red, studs.black!] : posts;
  const state = ONE_IS_WORKED.find((id) => {
    const [red, black] = ends.map((key) => belief.rowOf(id, key));
    return red !== undefined && black !== undefined && Math.abs(sound.value(red) - sound.value(black)) > APART_VOLTS;
  });
  if (state === undefined) return [];
  const volts = studs
    ? [{ state, points: [], questions: [], test: studs.id }]
    : posts.map((point) => ({ state, points: [point], questions: [] }));
  const amps = (clamps: readonly string[]) => Math.abs(sound.value(belief.rowOf(state, clamps[0]!)!));
  const [alone] = (['engine', 'coach'] as const)
    .map((side) => clampsOn(belief, post(side)))
    .filter((clamps) => clamps.length > 0)
    .sort((a, b) => amps(a) - amps(b));
  return [...volts, ...(alone ? [{ state, points: alone, questions: [] }] : [])];
}

/** Clamps that show what goes in and out of a battery: its lone negative cable, where it can be clamped, else its positives. */
export function clampsOn(belief: Belief, battery: string | undefined, only?: 'minus'): string[] {
  const at = (terminal?: string) =>
    belief.compiled.rig.conductors
      .filter((c) =>
        [c.from, c.to].some((e) => e.part === battery && (terminal === undefined || e.terminal === terminal)),
      )
      .map((c) => `${c.id}.clamp`)
      .filter((k) => belief.outputs.some((o) => o.key === k));
  // All that goes in and out goes through a lone negative cable; on the plus side of a bank there are several.
  const negative = at('minus');
  return negative.length > 0 || only ? negative : at();
}

export function wayTo(belief: Belief, witness: Placed): Omit<Unproved, 'state'> {
  const { rig } = belief.compiled;
  if ('across' in witness) {
    const studs = acrossStuds(belief.compiled, witness.across);
    return { points: [], questions: [], ...(studs ? { test: studs.id } : {}) };
  }
  const trait = 'clampAt' in witness ? witness.clampAt : witness.of;
  const parts = rig.parts.filter((p) => is(p, trait) && (witness.side === undefined || p.side === witness.side));
  const outputs = new Set(belief.outputs.map((o) => o.key));
  // One of several banks on a side will do: the first is the one it is about.
  const part = parts[0];
  if (!part) return { points: [], questions: [] };
  if ('ask' in witness)
    return {
      points: [],
      questions: belief.questions.map((q) => q.id).filter((id) => witness.ask.some((a) => id === `${a}.${part.id}`)),
    };
  if ('post' in witness) {
    const point = `${part.id}.${witness.post}`;
    const probed = rig.probes.some((p) => p.key === point && !p.retired);
    return { points: probed && outputs.has(point) ? [point] : [], questions: [] };
  }
  return { points: clampsOn(belief, part.id), questions: [] };
}

/** A at rest under which a wire of a sound rig carries nothing. */
const NOTHING_AMPS = 0.02;

/**
 * Clamps round what carries nothing at rest, where one goes on the battery's own negative as well: both have the same zero,
 * and a draw of some tenths is the difference. Common practice: a clamp is zeroed where it is read.
 */
export function zeroClamps(belief: Belief, { zeroOf, side }: { zeroOf: TraitName; side: Side }): Unproved[] {
  const battery = belief.compiled.rig.parts.find((p) => is(p, zeroOf) && p.side === side)?.id;
  const own = clampsOn(belief, battery, 'minus');
  if (own.length === 0) return [];
  const sound = belief.components.find((c) => belief.faults[c.faultIndex]!.id === NOTHING_WRONG.id)!;
  const points = belief.outputs
    .filter((o) => o.kind === 'amps' && !own.includes(o.key))
    .map((o) => o.key)
    .filter((key) => Math.abs(sound.value(belief.rowOf(AT_REST, key)!)) < NOTHING_AMPS);
  return points.length > 0 ? [{ state: AT_REST, points, questions: [] }] : [];
}
