/**
 * When nothing is wrong: what the owner took for a fault, and how it works, in words for the customer. A row
 * is an explanation, for rigs with a part of such a trait and one of these complaints. All common
 * practice, no source.
 */
import { is, isOneOf } from '../parts/kinds';
import type { TraitName } from '../parts/traits';
import { follow } from '../rig/follow';
import type { Endpoint, Part, Rig } from '../rig/schema';
import { partOption } from '../rig/value';
import type { Complaint } from '../parts/complaints';

export interface AsDesigned {
  id: string;
  /** The rig has a part with one of these traits. */
  of: readonly TraitName[];
  /** And with this one. */
  also?: TraitName;
  /** With this option of that part, if it matters. */
  option?: { name: string; is: readonly string[] };
  /** Its input hangs on a battery that another part with this trait fills. */
  fedBy?: TraitName;
  complaints: readonly Complaint[];
  /** For the customer. */
  says: string;
}

export const AS_DESIGNED: readonly AsDesigned[] = [
  {
    id: 'timer-cycle',
    of: ['timed'],
    complaints: ['slow-charging', 'link-cycles', 'coach-not-charging', 'coach-short-life'],
    says:
      'The link works for one hour, opens, and waits until the coach bank is low again. On a long drive ' +
      'with steady loads it comes and goes, and may arrive just under its mark: that is normal for this controller.',
  },
  {
    id: 'waits-for-volts',
    of: ['module'],
    also: 'byVolts',
    complaints: ['coach-not-charging', 'slow-charging', 'chassis-not-on-shore'],
    says: 'The link waits until one bank is really being charged. After a cold start or a long crank that can take some minutes.',
  },
  {
    id: 'one-way',
    of: ['engineOnly'],
    complaints: ['chassis-flat', 'chassis-not-on-shore'],
    says:
      'This link charges the coach bank from the engine, not the start battery from ' +
      'shore power. For storage the start battery needs a small maintainer of its own.',
  },
  {
    id: 'delay',
    of: ['delays'],
    complaints: ['coach-not-charging', 'link-cycles'],
    says: 'The link closes half a minute after the key, not at once: the start battery comes first.',
  },
  {
    id: 'taper',
    of: ['battery'],
    option: { name: 'chemistry', is: ['flooded', 'agm', 'gel'] },
    complaints: ['slow-charging', 'coach-not-charging', 'shore-not-charging'],
    says:
      'A lead-acid bank takes many amps at first and ever fewer as it fills. The last ' +
      'fifth takes hours, whatever charges it: a drive of an hour does not fill it.',
  },
  {
    id: 'lfp-rest',
    of: ['battery'],
    option: { name: 'chemistry', is: ['lfp'] },
    complaints: ['link-always-on', 'coach-short-life'],
    says:
      'A lithium bank rests where a lead-acid one would be charging, so its volts ' +
      'say little about how full it is, and a link by volts may stay closed on it.',
  },
  {
    id: 'boost-hold',
    of: ['boost'],
    complaints: ['boost-dead'],
    says:
      'Boost works only while it is held, and lends one bank to the other: hold ' +
      'it to charge for some minutes, wait, let go, then crank. Never wedge it.',
  },
  {
    id: 'second-charger',
    of: ['mainsCharger'],
    option: { name: 'duty', is: ['standby'] },
    complaints: ['shore-not-charging', 'slow-charging'],
    says:
      'The second of two chargers in parallel stands by while the first holds ' +
      'the bank up, and shows no amps then. It joins when the bank stays low.',
  },
  {
    id: 'chained-chargers',
    of: ['charger'],
    fedBy: 'charger',
    complaints: ['coach-not-charging', 'slow-charging', 'both-flat', 'link-cycles'],
    says:
      'Nothing is broken: one charger feeds on a battery that another charger fills. The first cannot keep ' +
      'up, the battery between them sinks, and both drop out. Feed the second from the start battery.',
  },
  {
    id: 'trigger-waits',
    of: ['waitsForCharge'],
    complaints: ['chassis-flat', 'chassis-not-on-shore'],
    says:
      'The maintainer waits until the coach bank is charged hard. On a bank ' +
      'that floats at 13.4 V its lamp shows waiting, and that is right.',
  },
  {
    id: 'fridge-waits',
    of: ['choosesItself'],
    complaints: ['fridge-warm', 'fridge-stays-on'],
    says:
      'The fridge chooses by itself: 12 V while the engine runs, and after stopping about a quarter of an hour of ' +
      'nothing before it lights gas. That wait is made so, for fuel stops.',
  },
  {
    id: 'monitor-counts',
    of: ['shunt'],
    complaints: ['coach-short-life', 'slow-charging', 'shore-not-charging'],
    says:
      'The monitor counts ampere-hours through its shunt and is set right only by a full charge. What it shows in between ' +
      'drifts, and what goes round its shunt it never sees: a rested voltage tells more.',
  },
  {
    id: 'breaker-cycles',
    of: ['breaker'],
    option: { name: 'type', is: ['auto'] },
    complaints: ['slow-charging', 'link-cycles', 'coach-not-charging'],
    says:
      'The breaker in the charge line opens when the line is asked for more than its rating and ' +
      'closes again once it has cooled. A flat bank or a fridge on 12 V makes it come and go.',
  },
  {
    id: 'surface-charge',
    of: ['battery'],
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
      rig.parts.some(
        (p) =>
          isOneOf(p, row.of) &&
          (row.also === undefined || is(p, row.also)) &&
          (row.option === undefined || row.option.is.includes(partOption(p, row.option.name))) &&
          (row.fedBy === undefined || hangsOn(rig, p, row.fedBy)),
      ),
  );
}

/** Whether the battery at the end of a part's input line is filled by another part with a trait. */
function hangsOn(rig: Rig, part: Part, trait: TraitName): boolean {
  const batteries = follow(rig, { part: part.id, terminal: 'input' }).flatMap((s) =>
    is(s.part, 'battery') ? [s.part!.id] : [],
  );
  const touches = (c: Rig['conductors'][number], is: (e: Endpoint) => boolean) => is(c.from) || is(c.to);
  return rig.parts.some(
    (p) =>
      is(p, trait) &&
      p.id !== part.id &&
      rig.conductors.some(
        (c) =>
          c.use === 'feed' &&
          touches(c, (e) => e.part === p.id && e.terminal === 'output') &&
          touches(c, (e) => batteries.includes(e.part)),
      ),
  );
}
