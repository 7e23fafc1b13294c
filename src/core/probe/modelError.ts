/**
 * How far a sound rig is from the model of it: its stated spreads are stated too narrow, and some of what it reads comes
 * from what no drawing has. One figure each for bands and for the diagnosis. Sizes found on independent truths
 * (docs/benchmarks.md), the spread factor common experience with stated uncertainties.
 */
import { operatingState } from '../operate/states';
import { is, partKind } from '../parts/kinds';
import type { Rig } from '../rig/schema';

export interface ModelError {
  /** Stated spreads are taken this many times wider. */
  spreadFactor: number;
  /** One standard deviation of a volt reading: share of it, and at most so many volts. */
  share: number;
  capVolts: number;
  /** The same where frame and wire lie between the leads, however little is predicted: joints no drawing has. V. */
  floorVolts: number;
  /** Of a clamp: share, and amps that loads coming and going put on any. */
  shareAmps: number;
  floorAmps: number;
}

export const MODEL_ERROR: ModelError = {
  spreadFactor: 1.5,
  share: 0.08,
  capVolts: 0.05,
  floorVolts: 0.015,
  shareAmps: 0.08,
  floorAmps: 0.15,
};

/**
 * Whether one lead is on a bank's midpoint (and the bank charged or not), both are on one piece, or frame and wire lie
 * between; of a clamp, whether it is on the engine's side with everything off and asleep.
 */
export type Reach = 'half' | 'half-charged' | 'piece' | 'far' | 'asleep';

/** A by which loads come and go on the engine's side at rest: what is asleep stays so. A house's do not. From memory. */
const ASLEEP_AMPS = 0.03;

/**
 * V by which a midpoint is off beside its bank's own posts: what the model has wrong of a bank, it has wrong of both
 * halves alike. On a charger a worn half stands high and an empty one low: it tells at rest and under load. From memory.
 */
const HALF_VOLTS = { half: 0.02, 'half-charged': 0.15 } as const;

/** One standard deviation of a reading about the model's prediction, beyond spreads and meter. V or A. */
export function modelSpread(
  unit: 'V' | 'A',
  predicted: number,
  reach: Reach,
  e: Omit<ModelError, 'spreadFactor'> = MODEL_ERROR,
): number {
  if (unit === 'A')
    return Math.hypot(e.shareAmps * predicted, reach === 'asleep' ? Math.min(e.floorAmps, ASLEEP_AMPS) : e.floorAmps);
  if (reach === 'half' || reach === 'half-charged') return HALF_VOLTS[reach];
  const share = Math.min(e.capVolts, e.share * Math.abs(predicted));
  // From one end of a piece to its other there is no metal in between that the drawing leaves out.
  return reach === 'far' ? Math.hypot(share, e.floorVolts) : share;
}

/** How far apart the leads of a reading are, by its state and points: on one part, one wire, or a part and a wire on it. */
export function reachOf(rig: Rig): (state: string, red: string, black: string | undefined) => Reach {
  const wires = rig.conductors.map((c): [string, string] => [
    `${c.from.part}.${c.from.terminal}`,
    `${c.to.part}.${c.to.terminal}`,
  ]);
  const parts = rig.parts.flatMap((p) => {
    const points = partKind(p.kind).terminals.map((t) => `${p.id}.${t.id}`);
    return points.flatMap((a) => points.map((b): [string, string] => [a, b]));
  });
  const round = wires.flatMap(([a, b]): [string, string][] => [
    [a, b],
    [b, a],
  ]);
  const both = round.flatMap(([far, here]) =>
    parts.flatMap(([a, b]): [string, string][] => (a === here && b !== here ? [[far, b]] : [])),
  );
  const pieces = new Set([...wires, ...parts, ...both].flatMap(([a, b]) => [`${a} ${b}`, `${b} ${a}`]));
  const middles = new Set(rig.parts.filter((p) => is(p, 'battery')).map((p) => `${p.id}.middle`));
  const engine = new Set(
    rig.parts.filter((p) => is(p, 'alternator') || (is(p, 'battery') && p.side === 'engine')).map((p) => p.id),
  );
  const sleeping = new Set(
    rig.conductors.filter((c) => engine.has(c.from.part) || engine.has(c.to.part)).map((c) => `${c.id}.clamp`),
  );
  const half = (state: string): Reach => {
    const { engine, shore, generator } = operatingState(state).inputs;
    return engine !== 'off' || shore || generator ? 'half-charged' : 'half';
  };
  return (state, red, black) => {
    if (middles.has(red) || middles.has(black ?? '')) return half(state);
    if (state === 'rested' && sleeping.has(red)) return 'asleep';
    return black === undefined || pieces.has(`${red} ${black}`) ? 'piece' : 'far';
  };
}
