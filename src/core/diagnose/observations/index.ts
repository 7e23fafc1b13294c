/** The questions worth asking of a rig, and how likely an answer is under what a suspect does. */
import { pointPlace } from '../../probe/measurement';
import type { Lamp, Rig } from '../../rig/schema';
import { has, partWith } from '../../rig/value';
import { ownersOf, type Fault, type Owner } from '../faults';
import { SEEN } from './seen';
import { TRIED } from './tried';
import type { Answer, ObservationContext, Chances, ObservationKind, ObservationTemplate } from './observationKind';

export const TEMPLATES: readonly ObservationTemplate[] = [...SEEN, ...TRIED];

/** An answer as evidence. */
export interface Observed {
  /** The stored observation's id. */
  id: string;
  what: string;
  answer: string;
}

/** AWG numbers from here on are control wire: it is rung out with an ohmmeter, heavier cable is not. */
const THIN_FROM_AWG = 10;
const isThin = (gauge: string) => !gauge.includes('/') && Number(gauge) >= THIN_FROM_AWG;

function askedOf(rig: Rig, of: ObservationContext, faults: readonly Fault[]): Owner[] {
  if ('first' in of) {
    const first = partWith(rig, of.first);
    return first && (of.with === undefined || has(rig, of.with)) ? [{ id: '', name: '', part: first.id }] : [];
  }
  if ('wires' in of) {
    const faulty = new Map(faults.map((f) => [f.owner, f]));
    return rig.conductors
      .filter((c) => faulty.has(c.id) && isThin(c.gauge) === (of.wires === 'thin'))
      .map((c) => ({ id: c.id, name: c.name, part: faulty.get(c.id)!.part! }));
  }
  return ownersOf(rig, of);
}

/** Chances by fault id: a fault of the owner named by its kind, else by what it does. */
function chancesByFault(
  template: ObservationTemplate,
  owner: Owner,
  faults: readonly Fault[],
): Record<string, Chances> {
  const table: Record<string, Chances> = {};
  for (const f of faults) {
    if (f.owner !== owner.id) continue;
    const kind = f.id.slice(owner.id.length + 1);
    const chances = template.faults?.[kind] ?? f.effects.map((e) => ofEffect(template, e)).find((c) => c !== undefined);
    if (chances) table[f.id] = chances;
  }
  return table;
}

/** Chances under what a fault does to the circuit: ohms too few for an ohmmeter are not seen by one. */
function ofEffect(template: ObservationTemplate, effect: Fault['effects'][number]): Chances | undefined {
  const chances = template.does?.[effect.do];
  if (!chances || template.seesOhms === undefined || effect.do !== 'add-ohms') return chances;
  const { from, to } = effect;
  // The ohms of a fault are anywhere between its ends, evenly by their logarithm.
  const seen = Math.min(1, Math.max(0, Math.log(to / template.seesOhms) / Math.log(to / from)));
  return Object.fromEntries(
    template.answers.map(({ id }) => [id, seen * chances[id]! + (1 - seen) * template.otherwise[id]!]),
  );
}

/** What a template hands on as it stands. */
const asIs = ({ state, caution, fields, grade }: ObservationTemplate) => ({
  ...(state === undefined ? {} : { state }),
  ...(caution === undefined ? {} : { caution }),
  ...(fields ? { fields } : {}),
  ...(grade ? { grade } : {}),
});

/** What the model says of an answer: whether the contact closes, whether a point is live. */
const evidenceOf = (t: ObservationTemplate, closes: ObservationKind['closes'], probe: string | undefined) => ({
  ...(closes ? { closes } : {}),
  ...(probe !== undefined && t.live ? { live: { probe, so: t.live.so, not: t.live.not } } : {}),
});

/** The questions worth asking of a rig with these possible faults. */
export function observationsOf(rig: Rig, faults: readonly Fault[]): ObservationKind[] {
  const keys = new Set(rig.probes.filter((p) => !p.retired).map((p) => p.key));
  const solenoid = partWith(rig, 'solenoid');
  return TEMPLATES.flatMap((t) =>
    askedOf(rig, t.of, faults).flatMap((owner): ObservationKind[] => {
      const byFault = chancesByFault(t, owner, faults);
      const live = t.live && `${owner.part}.${t.live.terminal}`;
      if (live !== undefined && !keys.has(live)) return [];
      const closes = t.closes && solenoid ? { part: solenoid.id, ...t.closes } : undefined;
      if (!closes && live === undefined && Object.keys(byFault).length === 0) return [];
      const part = rig.parts.find((p) => p.id === owner.part);
      const lamps = t.id === 'status-lamp' ? part?.lamps : undefined;
      return [
        {
          id: 'first' in t.of ? t.id : `${t.id}.${owner.id}`,
          ask: asked(t.ask, owner.name),
          how: t.how,
          group: t.group,
          place: live !== undefined ? pointPlace(rig, live).place : (part?.place ?? rig.parts[0]!.place),
          ...asIs(t),
          minutes: t.minutes,
          // The unit's own table of lamps: its colours stand beside the general words.
          answers: lamps ? t.answers.map((a) => labelled(a, lamps)) : t.answers,
          faults: byFault,
          ...evidenceOf(t, closes, live),
          otherwise: t.otherwise,
        },
      ];
    }),
  );
}

/** The owner's name in the question: as it is at its head, small inside. */
function asked(ask: string, name: string): string {
  const at = ask.indexOf('{owner}');
  const quoted = ask[at - 1] === '“';
  return ask.replace('{owner}', at <= 0 || quoted ? name : name.charAt(0).toLowerCase() + name.slice(1));
}

const labelled = (answer: Answer, lamps: readonly Lamp[]): Answer => {
  const lamp = lamps.find((l) => l.means === answer.id);
  return lamp ? { id: answer.id, label: `${lamp.shows} (${answer.id})` } : answer;
};

/** What a suspect does that an answer may depend on. */
export interface Behaviour {
  faults: readonly string[];
  closes(part: string, state: string): boolean;
  /** Expected volts at a probe against frame. */
  volts(state: string, probe: string): number | undefined;
  nominal: number;
}

/** Probability of an answer under a suspect. Unknown answers say nothing. */
export function answerProbability(kind: ObservationKind, answer: string, b: Behaviour): number {
  const own = b.faults.map((f) => kind.faults[f]).find((c) => c !== undefined);
  let chances = own ?? kind.otherwise;
  if (!own && kind.closes) chances = b.closes(kind.closes.part, kind.closes.state) ? kind.closes.so : kind.closes.not;
  if (!own && kind.live && kind.state) {
    const volts = b.volts(kind.state, kind.live.probe);
    if (volts !== undefined) chances = volts > 0.75 * b.nominal ? kind.live.so : kind.live.not;
  }
  return chances[answer] ?? 1;
}
