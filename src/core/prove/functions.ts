/**
 * What a charging link has to do when it is right, as rows: in which operating state, at which points, why.
 * They are read off the rig, whatever was wrong with it before. A new function is a row.
 */
import { has } from '../rig/value';
import { is, partKind } from '../parts/kinds';
import type { Measurement } from '../probe/measurement';
import type { Part, Rig } from '../rig/schema';

export interface FunctionTest {
  state: string;
  why: string;
  /** The points it is read at; none where the rig has no such function or no probe there. */
  points(rig: Rig, measurements: readonly Measurement[]): Measurement[];
}

const isCharger = (p: Part): boolean => is(p, 'charger');
const isCoachBank = (p: Part): boolean => is(p, 'battery') && p.side === 'coach';
const isStartBattery = (p: Part): boolean => is(p, 'battery') && p.side === 'engine';
const partOf = (rig: Rig, m: Measurement): Part | undefined => rig.parts.find((p) => p.id === m.red.split('.')[0]);
const acrossLink = (rig: Rig, list: readonly Measurement[]) =>
  // What stands across its coil is no drop of the link.
  list.filter((m) => m.kind === 'drop' && is(partOf(rig, m), 'solenoid') && !m.red.endsWith('.coil-plus'));
const voltsOf = (rig: Rig, list: readonly Measurement[], which: (p: Part) => boolean, terminal: string) =>
  list.filter(
    (m) => m.kind === 'volts' && m.red.endsWith(`.${terminal}`) && ((p) => p !== undefined && which(p))(partOf(rig, m)),
  );
/** Clamps round the heavy conductors that end at such a part. */
const clampsAt = (rig: Rig, list: readonly Measurement[], which: (p: Part) => boolean) =>
  list.filter((m) => {
    const c = m.kind === 'clamp' ? rig.conductors.find((x) => x.id === m.red.split('.')[0]) : undefined;
    return c?.use === 'feed' && [c.from.part, c.to.part].some((id) => rig.parts.some((p) => p.id === id && which(p)));
  });
const hasLink = (rig: Rig): boolean => has(rig, 'solenoid');
/** The line to a trailer or towed car: what flows there is what the bank gets. */
const lineClamp = (rig: Rig, list: readonly Measurement[]) =>
  has(rig, 'towConnector') ? clampsAt(rig, list, (p) => is(p, 'towConnector')) : [];

export const FUNCTION_TESTS: readonly FunctionTest[] = [
  {
    state: 'rested',
    why: 'with the engine off nothing flows through the link',
    points: (rig, list) => clampsAt(rig, list, (p) => is(p, 'solenoid')),
  },
  {
    state: 'rested',
    why: 'engine off: the charger’s input is at rest',
    points: (rig, list) => voltsOf(rig, list, isCharger, 'input'),
  },
  {
    state: 'rested',
    why: 'engine off: no output from the charger',
    points: (rig, list) =>
      rig.parts.some(isCharger) ? [...clampsAt(rig, list, isCharger), ...lineClamp(rig, list)] : [],
  },
  { state: 'idle', why: 'the link closes and carries with the engine running', points: acrossLink },
  {
    state: 'idle',
    why: 'engine on: the charger’s input rises',
    points: (rig, list) => voltsOf(rig, list, isCharger, 'input'),
  },
  {
    state: 'idle',
    why: 'engine on: the charger’s output goes to its stage',
    points: (rig, list) => voltsOf(rig, list, isCharger, 'output'),
  },
  {
    state: 'idle',
    why: 'the coach bank rises with the engine running',
    points: (rig, list) => voltsOf(rig, list, isCoachBank, 'plus'),
  },
  { state: 'idle', why: 'what goes along the line is what the bank should get', points: lineClamp },
  { state: 'boost-engine-off', why: 'the link answers the boost switch', points: acrossLink },
  {
    state: 'shore',
    why: 'the link closes for the charger too',
    points: (rig, list) => (hasLink(rig) && has(rig, 'servesBothBanks') ? acrossLink(rig, list) : []),
  },
  {
    state: 'shore',
    why: 'the start battery is helped on shore power',
    points: (rig, list) =>
      has(rig, 'servesBothBanks') || has(rig, 'maintainer') ? voltsOf(rig, list, isStartBattery, 'plus') : [],
  },
];

/** Kinds of part that decide when the link closes. */
export const isDecider = (p: Part): boolean =>
  partKind(p.kind).role === 'control' || isCharger(p) || is(p, 'maintainer');
