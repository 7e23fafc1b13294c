/** What every archetype draws with: cables with their joints, parts with their kind's usual figures. */
import { partKind } from '../../parts/kinds';
import { assumed, type Parameter } from '../../units/parameter';
import { ampacity, UNREAD_INSULATION_CELSIUS } from '../../units/ampacity';
import { chemistryOf, shortCircuitAmps } from '../../parts/chemistry';
import { CHARGED_HARD_VOLTS, fuseKind, interruptsAt } from '../../parts/fuses';
import { POST_LEAD_METRES } from '../insertFuse';
import { AWG_GAUGES, wireArea, wireResistance, type Gauge } from '../../units/wire';
import type { Conductor, Endpoint, Part } from '../schema';
import type { BankChoice } from './choicesSchema';

export const at = (key: string): Endpoint => {
  const [part, terminal] = key.split('.');
  return { part: part!, terminal: terminal! };
};

/** Two crimped lugs on clean studs: about 0.3 mΩ heavy, a few mΩ on small terminals (from memory). */
export function cable(
  id: string,
  name: string,
  use: Conductor['use'],
  from: string,
  to: string,
  gauge: Gauge,
  metres: number,
  jointOhms: number,
): Conductor {
  return {
    id,
    name,
    use,
    from: at(from),
    to: at(to),
    gauge,
    length: Math.max(POST_LEAD_METRES, Number(metres.toFixed(3))),
    joints: assumed(jointOhms, 0.45),
  };
}

/** A part with every figure its kind has, those given put over the usual ones. */
export function drawPart(part: Omit<Part, 'params'> & { params?: Record<string, Parameter> }): Part {
  const defaults = Object.fromEntries(
    Object.entries(partKind(part.kind).params).map(([key, spec]) => [key, { ...spec.default }]),
  );
  return { ...part, params: { ...defaults, ...part.params } };
}

const CHEMISTRY_WORDS = { flooded: '', agm: ' AGM', gel: ' gel', lfp: ' LFP' } as const;
/** Printed under the bank's name: there is room for a dozen letters. */
/** What a bank of the choices is set to. */
export const bankOptions = (b: BankChoice): Record<string, string> => ({
  chemistry: b.chemistry,
  layout: b.layout,
  ...(b.heater && b.chemistry === 'lfp' ? { heater: 'built-in' } : {}),
});
export const bankNote = (b: BankChoice): string => `${b.capacity} Ah${CHEMISTRY_WORDS[b.chemistry]}`;

/** A cold cranking a starting battery is sold with, per Ah: 700 of 70 to 950 of 100. Common practice. */
const CCA_PER_AH = 9;
/** Of a start battery as drawn; 0 for lithium, which is not rated so. */
export const startingAmps = (b: BankChoice): Parameter =>
  b.chemistry === 'lfp' ? assumed(0, 0) : assumed(Math.round(CCA_PER_AH * b.capacity), 0.12);

/** Profiles of a charger's switch by chemistry, per 12 V: common practice. */
export const PROFILES = {
  flooded: { absorb: 14.4, float: 13.5 },
  agm: { absorb: 14.5, float: 13.6 },
  gel: { absorb: 14.1, float: 13.6 },
  lfp: { absorb: 14.3, float: 13.4 },
} as const;

/** Gauge for a DC-DC charger's amps over the length of a coach or of a car: common practice. */
export const chargerGauge = (amps: number): Gauge => (amps <= 22 ? '8' : amps <= 32 ? '6' : amps <= 55 ? '4' : '2');

/** V a charger's own line may lose in its copper, out and back: 4 % of 12 V, from memory. */
const LINE_DROP_VOLTS = 0.48;

/**
 * Gauge for a charger's own line of so many metres out and back: never thinner than practice lays for the amps, thicker
 * where the length wants it.
 */
export const lineGauge = (amps: number, metres: number): Gauge => {
  const usual = AWG_GAUGES.indexOf(chargerGauge(amps) as (typeof AWG_GAUGES)[number]);
  return AWG_GAUGES.find((g, i) => i >= usual && amps * wireResistance(g, metres) <= LINE_DROP_VOLTS) ?? '4/0';
};

/** A under which nothing is made for a post. */
const SMALLEST_AT_POST_AMPS = 30;
/** Kinds one finds at a bank’s post, the usual one first. */
const AT_THE_POST = ['terminal', 'strip', 'class-t'] as const;

/**
 * How a fuse of a rating is drawn: of the first kind that opens into all the banks it may meet at once.
 * @param volts nominal, of those banks.
 */
export function fuseType(amps: number, banks: readonly BankChoice[], volts: number): string {
  const blocks = volts / 12;
  const short = banks.reduce((sum, b) => sum + shortCircuitAmps(chemistryOf(b.chemistry), b.capacity, blocks, 0), 0);
  const opens = (id: string) => interruptsAt(fuseKind(id)!, CHARGED_HARD_VOLTS * blocks) >= short;
  const made = (id: string) => fuseKind(id)!.ratings.includes(amps);
  // Small ones sit in an in-line holder on a thin lead: common practice.
  if (amps < SMALLEST_AT_POST_AMPS) return 'blade';
  return AT_THE_POST.find((id) => made(id) && opens(id)) ?? 'class-t';
}

/** The thinnest gauge from `least` on that carries so many amps in insulation nobody has read. */
export const gaugeCarrying = (amps: number, least: Gauge): Gauge =>
  AWG_GAUGES.find((g) => wireArea(g) >= wireArea(least) && ampacity(g, UNREAD_INSULATION_CELSIUS, 'open') >= amps) ??
  '4/0';

/** A fuse of a rating: the figure counts, the note repeats it for the eye. */
export const fuseRating = (amps: number): Parameter => ({ value: amps, spread: 0, provenance: 'nameplate' });

/** A of the fuse of a signal wire tapped off a heavy line: usual. */
export const ENABLE_FUSE_AMPS = 3;

/** Ratings that every kind one finds at a post is made in. */
const COMMON_RATINGS = [30, 40, 50, 60, 80, 100, 125, 150, 175, 200, 225, 250, 300] as const;
/** The next heavy-line fuse made at or above so many amps. */
export const fuseAbove = (amps: number): number => COMMON_RATINGS.find((f) => f >= amps) ?? 300;
