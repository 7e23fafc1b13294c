/**
 * Ways of linking the batteries of a rig, to be compared on its owner's use: leave it, repair like for like,
 * and every other link its archetype can be drawn with. A link is a row of choices, so a new one is a row.
 */
import type { Effect } from '../operate/effects';
import type { PriceRange } from '../parts/price';
import { LINK_CHOICES, MAINTAINER_CHOICES } from '../rig/archetypes/choices';
import type { MotorhomeChoices } from '../rig/archetypes/choicesSchema';
import { linksFor } from '../rig/archetypes/coupledChoices';
import type { LinkRow, LinkSchool } from '../rig/archetypes/links';
import { drawRig, linkWords } from '../rig/archetypes/families';
import type { Conductor, Made, Rig } from '../rig/schema';
import { has } from '../rig/value';
import { wireArea } from '../units/wire';
import { carryOver, differences, type Difference } from './difference';
import { changeCost } from '../price/prices';

export type School = 'leave' | 'repair' | LinkSchool;

export interface Candidate {
  id: string;
  name: string;
  says: string;
  school: School;
  rig: Rig;
  /** What is wrong with it while it runs: the fault left in place. */
  effects?: readonly Effect[];
  differences: Difference[];
  minutes: PriceRange;
  parts: PriceRange;
}

/** A fault found, for "leave it" and "repair like for like". */
export interface FoundFault {
  name: string;
  repair: string;
  effects: readonly Effect[];
  minutes: PriceRange;
  parts: PriceRange;
}

/** Choices of a motorhome beside link and amps in which two candidates may differ. */
const beside = (made: Made): string =>
  made.family === 'motorhome' ? `${made.choices.bypass ?? false} ${made.choices.maintainer ?? 'none'}` : '';

/** Names of the maintainers among the candidates. */
const MAINTAINED = {
  differential: 'Add a differential maintainer',
  triggered: 'Add a maintainer by volts',
  'diode-lamp': 'Add a diode and lamp',
} as const;

/** The link kept, and a small helper for the start battery beside it; none where it has one, or the link does it already. */
function maintained(made: Made, rig: Rig): Variant[] {
  if (made.family !== 'motorhome' || has(rig, 'maintainer') || has(rig, 'servesBothBanks') || !has(rig, 'mainsCharger'))
    return [];
  const { link } = made.choices;
  return MAINTAINER_CHOICES.flatMap((m) =>
    m.id === 'none'
      ? []
      : [
          {
            id: `maintainer-${m.id}`,
            link,
            school: 'small' as const,
            name: MAINTAINED[m.id],
            says: m.says,
            made: { ...made, choices: { ...made.choices, maintainer: m.id } },
          },
        ],
  );
}

/** What a rig was made from, where it has a link that others may take the place of. */
type Linked = Exclude<Made, { family: 'bench' }>;

interface Variant {
  id: string;
  link: string;
  made: Linked;
  name: string;
  /** Where they are not its link's own. */
  school?: School;
  says?: string;
}

/** Links a rig can be given, other than its own, with the sizes worth looking at. */
function variants(made: Linked): Variant[] {
  const named = (link: string, amps?: number) =>
    amps === undefined
      ? linkWords(link).label
      : linkWords(link).label.replace(/^(Small )?DC-DC( charger)?/, (m) => `${amps} A ${m}`);
  if (made.family === 'motorhome') {
    const volts = made.choices.nominalVolts / 12;
    return LINK_CHOICES.flatMap((row: LinkRow & { id: MotorhomeChoices['link'] }) =>
      (row.amps?.usual ?? [undefined]).flatMap((amps) => {
        const link = row.id;
        const variant = (id: string, name: string, more: Partial<MotorhomeChoices>) => ({
          id: amps === undefined ? id : `${id}-${amps}`,
          link,
          name,
          made: {
            family: 'motorhome',
            choices: { ...made.choices, link, ...(amps === undefined ? {} : { dcdcAmps: amps / volts }), ...more },
          } as Linked,
        });
        const name = named(link, amps && amps / volts);
        // Its second input is for panels.
        if (link === 'dcdc-dual' && !made.choices.solar) return [];
        // A one-way charger takes the way back; a hand switch round it keeps that.
        if (link === 'dcdc')
          return [
            variant(link, name, { bypass: false }),
            variant('dcdc-bypass', `${name}, hand bypass`, { bypass: true }),
          ];
        return [variant(link, name, link === 'dcdc-boost' ? { boost: true } : {})];
      }),
    );
  }
  const { family } = made.choices;
  return linksFor(family).flatMap(({ id: link, amps: sizes }: LinkRow) => {
    return (sizes?.[family] ?? sizes?.usual ?? [undefined]).map((amps) => ({
      id: amps === undefined ? link : `${link}-${amps}`,
      link,
      name: named(link, amps),
      made: {
        family: 'coupled',
        choices: { ...made.choices, link, ...(amps === undefined ? {} : { dcdcAmps: amps }) },
      } as Linked,
    }));
  });
}

/** m by which two lengths are one cable's. */
const SAME_CABLE_METRES = 0.5;

/** Copper that lies there and is thick enough stays: nobody pulls a cable to lay a thinner one. */
function withItsCopper(rig: Rig, changed: Rig): Rig {
  const lies = new Map(rig.conductors.map((c) => [c.id, c]));
  const at = (c: Conductor) => [c.from, c.to].map((e) => `${e.part}.${e.terminal}`).join(' ');
  return {
    ...changed,
    conductors: changed.conductors.map((c) => {
      const was = lies.get(c.id);
      const stays =
        was !== undefined &&
        at(was) === at(c) &&
        wireArea(was.gauge) >= wireArea(c.gauge) &&
        Math.abs(was.length - c.length) < SAME_CABLE_METRES;
      return stays ? was : c;
    }),
  };
}

/**
 * All candidates for a rig, the two that keep its link first. A rig that no archetype drew can only be left or
 * repaired: its link cannot be redrawn.
 */
export function candidatesOf(rig: Rig, fault?: FoundFault): Candidate[] {
  const kept = { rig, differences: [] as Difference[] };
  const list: Candidate[] = fault
    ? [
        {
          ...kept,
          id: 'leave',
          name: 'Leave it',
          says: `As found: ${fault.name.toLowerCase()}`,
          school: 'leave',
          effects: fault.effects,
          minutes: [0, 0],
          parts: [0, 0],
        },
        {
          ...kept,
          id: 'repair',
          name: 'Repair like for like',
          says: fault.repair,
          school: 'repair',
          minutes: fault.minutes,
          parts: fault.parts,
        },
      ]
    : [
        {
          ...kept,
          id: 'leave',
          name: 'Leave it',
          says: 'As it is, in order',
          school: 'leave',
          minutes: [0, 0],
          parts: [0, 0],
        },
      ];
  // On a bench one tries a unit; nobody compares it with another for a customer.
  if (!rig.made || rig.made.family === 'bench') return list;
  const drawn = drawRig(rig.id, rig.name, rig.made);
  const now = rig.made.choices;
  for (const v of [...maintained(rig.made, rig), ...variants(rig.made)]) {
    const other = v.made.choices;
    if (
      v.link === now.link &&
      (other.dcdcAmps === undefined || other.dcdcAmps === now.dcdcAmps) &&
      beside(v.made) === beside(rig.made)
    )
      continue;
    const changed = withItsCopper(rig, carryOver(rig, drawn, drawRig(rig.id, rig.name, v.made)));
    const diff = differences(rig, changed);
    const cost = changeCost(rig, changed);
    list.push({
      id: v.id,
      name: v.name,
      says: v.says ?? linkWords(v.link).says,
      school: v.school ?? linkWords(v.link).school,
      rig: changed,
      differences: diff,
      ...cost,
    });
  }
  return list;
}

/** Most that are compared at once: more lines than that nobody can tell apart on a chart. */
export const MAX_COMPARED = 6;

/** The ones compared unless somebody picks others: what keeps the link, then one of each school, then the rest. */
export function usualPick(list: readonly Candidate[]): string[] {
  const pick = list.filter((c) => c.school === 'leave' || c.school === 'repair').map((c) => c.id);
  const schools: School[] = ['regulated', 'sensed', 'direct', 'small', 'thin'];
  for (let round = 0; pick.length < MAX_COMPARED && round < 4; round++) {
    for (const school of schools) {
      const next = list.filter((c) => c.school === school && !pick.includes(c.id))[0];
      if (next && pick.length < MAX_COMPARED) pick.push(next.id);
    }
  }
  return list.filter((c) => pick.includes(c.id)).map((c) => c.id);
}
