/**
 * Which fuse protects a wire and lets its load run: rated from continuous amps ÷ 0.8 (fuse makers rate for 75–80 %
 * held for hours; from memory) up to what the weakest wire behind it may be fused at. Boats allow 150 % of ampacity
 * under 50 V (33 CFR 183.455(c), from memory): 100 % here is stricter. A window of nothing is said; a fuse under
 * ÷ 0.8 that still carries the load is "tight": it runs warm and may age.
 */
import type { RuleSet } from '../codes/ruleSet';
import { FUSE_KINDS, type FuseKind } from '../parts/fuses';
import { leastFuseLimit, type FuseLimit, type WireSpec } from './fuseLimit';

/** Share of its rating a fuse may carry for ever. */
export const CONTINUOUS_SHARE = 0.8;
/** A tight fuse still has this much over the load. */
const TIGHT_SHARE = 0.92;

export interface FuseWindow {
  /** Least rating for the load, and most for the wire, A. */
  from: number;
  to: number;
  /** What sets the most. */
  limit: FuseLimit;
  /** Standard ratings inside, and those that are only tight, smallest first. */
  fits: number[];
  tight: number[];
  verdict: 'fits' | 'tight' | 'nothing fits';
  /** The one to take: the smallest that fits, else the largest that is tight. */
  pick?: number;
  says: string;
}

/** Ratings anybody makes, any kind. */
export const RATINGS: readonly number[] = [...new Set(FUSE_KINDS.flatMap((k) => k.ratings))].sort((a, b) => a - b);

/**
 * @param continuous A the load takes for hours. @param wires everything thinner or hotter the fuse must protect.
 * @param rules of the place. @param kind only its ratings count, where given.
 */
export function fuseWindow(
  continuous: number,
  wires: readonly WireSpec[],
  rules?: RuleSet,
  kind?: FuseKind,
): FuseWindow {
  const from = continuous / CONTINUOUS_SHARE;
  const limit = leastFuseLimit(wires, rules);
  const to = limit.amps;
  const ratings = kind?.ratings ?? RATINGS;
  const fits = ratings.filter((r) => r >= from && r <= to);
  const tight = ratings.filter((r) => r < from && r >= continuous / TIGHT_SHARE && r <= to);
  const most = limit.by === 'code' ? limit.says : `the ${to.toFixed(0)} A of the weakest wire`;
  const between = `between ${from.toFixed(0)} A (${continuous.toFixed(1)} A ÷ 0.8) and ${most}`;
  const limits = { from, to, limit, fits, tight };
  if (fits.length > 0) return { ...limits, verdict: 'fits', pick: fits[0]!, says: `${fits[0]} A lies ${between}.` };
  if (tight.length > 0) {
    const pick = tight[tight.length - 1]!;
    return {
      ...limits,
      verdict: 'tight',
      pick,
      says: `No rating lies ${between}; ${pick} A carries the load, but warm: a thicker wire is better.`,
    };
  }
  return {
    ...limits,
    verdict: 'nothing fits',
    says: `Nothing is made ${between}: take a thicker wire, or less current.`,
  };
}
