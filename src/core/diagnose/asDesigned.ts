/**
 * When nothing is wrong: what the owner took for a fault, and how it works, in words for the customer. A row
 * is an explanation, for rigs with one of these kinds of part and one of these complaints. All common
 * practice, no source.
 */
import { partKind, partOptions } from '../parts/kinds';
import type { Rig } from '../rig/schema';
import type { Complaint } from './complaints';

export interface AsDesigned {
  id: string;
  /** The rig has a part of one of these kinds. */
  kinds: readonly string[];
  /** With this option of that part, if it matters. */
  option?: { name: string; is: readonly string[] };
  complaints: readonly Complaint[];
  /** For the customer. */
  says: string;
}

export const AS_DESIGNED: readonly AsDesigned[] = [
  {
    id: 'timer-cycle',
    kinds: ['timed-window-module'],
    complaints: ['slow-charging', 'link-cycles', 'coach-not-charging', 'coach-short-life'],
    says: 'The link works for one hour, opens, and waits until the coach bank is low again. On a long drive with steady loads it comes and goes, and may arrive just under its mark: that is how it was made.',
  },
  {
    id: 'waits-for-volts',
    kinds: ['voltage-link-module', 'bidirectional-module'],
    complaints: ['coach-not-charging', 'slow-charging', 'chassis-not-on-shore'],
    says: 'The link waits until one bank is really being charged. After a cold start or a long crank that can take some minutes.',
  },
  {
    id: 'one-way',
    kinds: ['ignition-delay-module', 'voltage-link-module', 'link-switch', 'diode-isolator'],
    complaints: ['chassis-flat', 'chassis-not-on-shore'],
    says: 'This link charges the coach bank from the engine, not the start battery from shore power. For storage the start battery needs a small maintainer of its own.',
  },
  {
    id: 'delay',
    kinds: ['ignition-delay-module'],
    complaints: ['coach-not-charging', 'link-cycles'],
    says: 'The link closes half a minute after the key, not at once: the start battery comes first.',
  },
  {
    id: 'taper',
    kinds: ['battery-bank'],
    option: { name: 'chemistry', is: ['flooded', 'agm', 'gel'] },
    complaints: ['slow-charging', 'coach-not-charging', 'shore-not-charging'],
    says: 'A lead-acid bank takes many amps at first and ever fewer as it fills. The last fifth takes hours, whatever charges it: a drive of an hour does not fill it.',
  },
  {
    id: 'lfp-rest',
    kinds: ['battery-bank'],
    option: { name: 'chemistry', is: ['lfp'] },
    complaints: ['link-always-on', 'coach-short-life'],
    says: 'A lithium bank rests where a lead-acid one would be charging, so its volts say little about how full it is, and a link by volts may stay closed on it.',
  },
  {
    id: 'boost-hold',
    kinds: ['boost-switch'],
    complaints: ['boost-dead'],
    says: 'Boost works only while it is held, and lends one bank to the other: hold it to charge for some minutes, wait, let go, then crank. Never wedge it.',
  },
  {
    id: 'surface-charge',
    kinds: ['battery-bank'],
    option: { name: 'chemistry', is: ['flooded', 'agm', 'gel'] },
    complaints: ['coach-short-life', 'chassis-flat'],
    says: 'Volts read right after charging flatter: most of that is surface charge, gone within hours. Only rested volts tell.',
  },
];

/** What to tell the customer of this rig with these complaints when nothing is wrong. */
export function asDesigned(rig: Rig, complaints: readonly Complaint[]): AsDesigned[] {
  return AS_DESIGNED.filter(
    (row) =>
      row.complaints.some((c) => complaints.includes(c)) &&
      rig.parts.some((p) => row.kinds.includes(p.kind) && (row.option === undefined || row.option.is.includes(partOptions(partKind(p.kind), p)[row.option.name] ?? ''))),
  );
}
