/**
 * What the diagnosis takes for granted: how often a reading is a blunder, minutes of work, the price of a
 * wrong call, how much a complaint says. All assumed, none measured: they are shown in the working, and a
 * shop edits them.
 */
import { MODEL_ERROR } from '../probe/modelError';

export interface Assumptions {
  /** Share of readings that are not what they say: wrong probe, lead not touching, slip of the pen. */
  blunderShare: number;
  /** Of the blunders: lead not touching (reads 0), leads or clamp turned round, neighbouring probe, anything at all. */
  blunderKinds: { zero: number; reversed: number; neighbour: number; anything: number };
  /** How far the model itself is from a real rig, one standard deviation: share of the reading, and cap in V. */
  modelShare: number;
  modelCapVolts: number;
  /** The same where frame and wire lie between the leads, however little is predicted: joints no drawing has. V. */
  modelFloorVolts: number;
  modelShareAmps: number;
  /** Amps that loads coming and going put on any clamp, one standard deviation. */
  loadsStrayAmps: number;
  /** Share of its readings that something not on the list moves. */
  unknownShare: number;
  /** Of the slips, those that a second reading alike leaves. */
  slipsTwice: number;
  /** The diagnosis takes every stated spread to be this many times wider: people state them too narrow. */
  spreadFactor: number;
  /** Prior factor of a fault for each stated complaint it does not explain. */
  unexplained: number;
  /** The same for "nothing is wrong", for any complaint: an owner may be mistaken about anything. */
  asDesigned: number;
  /** Factors on the priors that a shop's own closed jobs made, by `faultKey`; none where it took none over. */
  priorFactors: Readonly<Record<string, number>>;
  /** Minutes a wrong call costs: a part fitted for nothing and the way back. */
  wrongCallMinutes: number;
  /** Minutes a bit of information about the repair is worth, beyond the wrong calls it saves at once: it makes later tests tell more. */
  bitMinutes: number;
  /** Minutes to open up a place for the first time, by its name; `other` for the rest. */
  openMinutes: Readonly<Record<string, number>>;
  /** Minutes to go back to a place already open. */
  returnMinutes: number;
  /** A rig that does what the owner misses, and is likelier than this to be sound, is called sound. */
  soundAt: number;
  /** From here on a suspect gets its own direct test instead of the next most telling one. */
  directAt: number;
  /** A verdict that falls below this when any one reading is left out is not confirmed. */
  confirmAt: number;
  /** No screen claims more than this. */
  mostClaimed: number;
}

export const ASSUMPTIONS: Assumptions = {
  blunderShare: 0.03,
  blunderKinds: { zero: 0.3, reversed: 0.15, neighbour: 0.3, anything: 0.25 },
  modelShare: MODEL_ERROR.share,
  modelCapVolts: MODEL_ERROR.capVolts,
  modelFloorVolts: MODEL_ERROR.floorVolts,
  modelShareAmps: MODEL_ERROR.shareAmps,
  loadsStrayAmps: MODEL_ERROR.floorAmps,
  unknownShare: 0.25,
  slipsTwice: 0.03,
  spreadFactor: MODEL_ERROR.spreadFactor,
  unexplained: 0.08,
  asDesigned: 0.5,
  priorFactors: {},
  wrongCallMinutes: 60,
  bitMinutes: 8,
  openMinutes: { Dash: 2, 'Coach bay': 3, 'Link box': 4, 'Engine bay': 3, other: 3 },
  returnMinutes: 0.3,
  soundAt: 0.65,
  directAt: 0.93,
  confirmAt: 0.85,
  mostClaimed: 0.99,
};
