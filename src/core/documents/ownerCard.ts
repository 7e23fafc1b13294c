/**
 * The card for the owner: how the batteries are joined and by what, what lamps say, boost and how not to use
 * it, how long to drive for how much, what to look for. Words are rows; hours are simulated on this rig.
 */
import { isFuseOrBreaker } from '../parts/fuses';
import { compileRig } from '../compile/compile';
import { houseBankOf } from '../plan/outcome';
import { howLong, howLongLasts, howLongStands, type AskedOf } from '../plan/questions';
import type { Part, Rig } from '../rig/schema';
import { partOption, partValue } from '../rig/value';
import type { Leg } from '../simulate/scenarioSchema';
import { BMS_TIMES_CAPACITY, crankShare, CRANK_SECONDS } from '../size/crankShare';
import { celsiusShown } from '../units/preferences';
import { allInWords } from '../units/vocabulary';
import { currentRevision, type Job } from '../job/job';
import { jobScenarios } from '../jobAnswers/options';
import type { Settings } from '../shop/shop';

export interface OwnerCard {
  rig: string;
  kind: string;
  /** How the banks are joined, and by what. */
  works: string[];
  /** Lamps: unit, what one sees, what it means. */
  lamps: { unit: string; shows: string; means: string }[];
  boost: string[];
  /** Question and answer, simulated. */
  hours: { ask: string; answer: string }[];
  /** What the hours take for granted. */
  taken: string;
  settings: string[];
  look: string[];
  never: string[];
}

/** A sentence for rigs with a part of one of these kinds, and where it matters with one of its options set so. */
interface Row {
  kinds: readonly string[];
  option?: { name: string; is: readonly string[] };
  /** None of these is on the rig. */
  without?: readonly string[];
  says: string | ((part: Part, settings: Settings) => string);
}

const volts = (part: Part, name: string): string => `${partValue(part, name).toFixed(1)} V`;

const WORKS: readonly Row[] = [
  {
    kinds: ['ignition-delay-module'],
    says: (p) =>
      `With the key on, the link closes after about ${Math.round(partValue(p, 'delay'))} s and charges the coach bank; key off, it opens.`,
  },
  {
    kinds: ['voltage-link-module'],
    says: (p) =>
      `The link closes by itself when the start battery is being charged, above ${volts(p, 'closeAt')}, and opens when it falls under ${volts(p, 'openAt')}.`,
  },
  {
    kinds: ['bidirectional-module'],
    says: (p) =>
      `The link closes by itself when either bank is being charged, above ${volts(p, 'closeAt')}: the engine fills the coach bank, shore power looks after the start battery.`,
  },
  {
    kinds: ['timed-window-module'],
    says: 'The link closes when one bank is low and the other is being charged, works for an hour, and waits again. On a long drive it comes and goes: that is how it is made.',
  },
  {
    kinds: ['link-solenoid'],
    without: [
      'ignition-delay-module',
      'voltage-link-module',
      'bidirectional-module',
      'timed-window-module',
      'link-switch',
    ],
    says: 'With the key on the relay closes and the line charges; key off, it opens.',
  },
  {
    kinds: ['link-switch'],
    says: 'The link works only while its switch on the dash is on. Off when the engine is off.',
  },
  {
    kinds: ['dcdc-charger', 'dual-charger'],
    option: { name: 'enable', is: ['ignition'] },
    says: (p) =>
      `The charger (${p.name}) fills its bank at up to ${Math.round(partValue(p, 'limit'))} A while the key is on. It works one way only.`,
  },
  {
    kinds: ['dcdc-charger', 'dual-charger'],
    option: { name: 'enable', is: ['voltage'] },
    says: (p) =>
      `The charger (${p.name}) starts by itself some minutes after the engine, at up to ${Math.round(partValue(p, 'limit'))} A. It works one way only.`,
  },
  {
    kinds: ['differential-maintainer', 'triggered-maintainer', 'diode-lamp'],
    says: (p) => `The maintainer (${p.name}) gives the other battery a little, never enough to start on at once.`,
  },
  {
    kinds: ['diode-isolator'],
    says: 'A diode isolator shares the alternator’s current; neither battery can flow into the other.',
  },
  {
    kinds: ['line-breaker'],
    option: { name: 'type', is: ['auto'] },
    says: 'The breaker in the line opens when too much is asked of it and closes again when it has cooled.',
  },
  {
    kinds: ['line-breaker'],
    option: { name: 'type', is: ['manual'] },
    says: 'The breaker in the line stays open once it has tripped: find out why, then press it in again.',
  },
];

const LOOK: readonly Row[] = [
  {
    kinds: ['link-solenoid'],
    says: 'A hot stud, a hot smell or a discoloured cable at the link: have its contact measured. Once a year in any case.',
  },
  {
    kinds: ['battery-bank'],
    option: { name: 'chemistry', is: ['flooded'] },
    says: 'Water level and a clean, dry tray twice a year; white or green growth on a terminal is a lost volt.',
  },
  {
    kinds: ['battery-bank'],
    option: { name: 'chemistry', is: ['lfp'] },
    says: (_, s) =>
      `The lithium bank must not be charged below freezing (${Math.round(celsiusShown(0, s.temperature))} °${s.temperature}): warm it first. Its volts say little of how full it is.`,
  },
  {
    kinds: ['tow-connector'],
    says: 'At every coupling: lights, brakes and the breakaway, before the road. Left coupled overnight the line drains a battery.',
  },
  { kinds: ['dcdc-charger', 'dual-charger'], says: 'The charger’s fins get hot on a low bank: keep things off them.' },
  {
    kinds: ['fridge-element'],
    says: 'The fridge’s 12 V element empties a bank within hours once the engine stands: switch it over on arrival.',
  },
  { kinds: ['disconnect'], says: 'Turn the disconnect only with the engine off and the shore cord out.' },
];

const NEVER: readonly string[] = [
  'Never open a battery, link or disconnect while the engine charges.',
  'Never charge, boost or jump a frozen or bulging battery.',
  'Never feed power backwards into a socket with a two-male cord: it can kill.',
];

const told = (rows: readonly Row[], rig: Rig, settings: Settings): string[] => [
  ...new Set(
    rows.flatMap((row) =>
      (row.without && rig.parts.some((p) => row.without!.includes(p.kind)) ? [] : rig.parts)
        .filter(
          (p) =>
            row.kinds.includes(p.kind) &&
            (row.option === undefined || row.option.is.includes(partOption(p, row.option.name))),
        )
        .map((p) => (typeof row.says === 'string' ? row.says : row.says(p, settings))),
    ),
  ),
];

const LAMP_MEANS = {
  closed: 'joined, or charging',
  waiting: 'waiting: it is not its turn',
  dark: 'off, or no supply',
} as const;

/** What the switch is for here, by how much of the starter's current would come through the link. */
function boostWords(rig: Rig): string[] {
  const which = rig.parts.find((p) => p.kind === 'boost-switch' || p.kind === 'bypass-switch');
  if (!which) {
    const oneWay = rig.parts.some(
      (p) => p.kind === 'dcdc-charger' || p.kind === 'dual-charger' || p.kind === 'diode-isolator',
    );
    return oneWay
      ? [
          'There is no boost: what charges the bank works one way. A flat start battery is jumped at its posts, from another vehicle or a pack.',
        ]
      : [];
  }
  const share = crankShare(rig);
  const weakest = share?.through
    .flatMap((id) => {
      const p = rig.parts.find((x) => x.id === id)!;
      const rating = isFuseOrBreaker(p) ? partValue(p, 'rating') || Number.parseFloat(p.note ?? '') : NaN;
      return Number.isFinite(rating) && rating > 0 ? [{ name: p.name, rating }] : [];
    })
    .sort((a, b) => a.rating - b.rating)[0];
  const over =
    share &&
    ((weakest && share.amps > weakest.rating) || (share.bmsLimit !== undefined && share.amps > share.bmsLimit));
  return [
    `${which.name}: hold it, it lends one bank to the other only while it is held. Never wedge it: it burns the link and flattens both banks.`,
    over
      ? `Do not crank through it: the starter would draw about ${Math.round(share.amps)} A through ${weakest && share.amps > weakest.rating ? `${weakest.name.toLowerCase()}, ${Math.round(weakest.rating)} A` : `a bank whose protection opens at about ${Math.round(share.bmsLimit ?? BMS_TIMES_CAPACITY)} A`}. Hold it some minutes to charge, let go, wait a little, then crank.`
      : `For a weak start battery: hold it, crank for at most ${CRANK_SECONDS} s, let go. Better: hold it ten minutes with the other bank full, let go, then crank.`,
  ];
}

/** Charge the hours are asked from and to. */
const ASKED: readonly [from: number, to: number][] = [
  [0.5, 0.8],
  [0.2, 0.8],
];
/** An owner asks in days of driving. */
const LONGEST_DRIVE = 24;
const FLOOR: Readonly<Record<string, number>> = { lfp: 0.15 };

/** The card of the rig as it stands. */
export function ownerCard(job: Job, settings: Settings): OwnerCard {
  const { doc: rig } = currentRevision(job);
  const bank = houseBankOf(rig);
  const scenarios = jobScenarios(job);
  const legs: readonly Leg[] = scenarios[0]?.legs ?? [];
  const drive = legs.find((l) => l.kind === 'drive');
  const stand = legs.find((l) => l.kind === 'stand');
  const compiled = compileRig(rig);
  const of = (leg: Leg | undefined): AskedOf => ({
    compiled,
    bank: bank?.id ?? '',
    celsius: leg?.celsius ?? 15,
    loads: leg?.loads ?? [],
  });
  const percent = (x: number) => `${Math.round(x * 100)} %`;
  const hours: OwnerCard['hours'] = [];
  if (bank) {
    for (const [from, to] of ASKED)
      hours.push({
        ask: `Drive, to fill it from ${percent(from)} to ${percent(to)}`,
        answer: howLong(of(drive), 'drive', from, to, LONGEST_DRIVE).says,
      });
    const floor = FLOOR[partOption(bank, 'chemistry')] ?? 0.5;
    hours.push({
      ask: `Parked with the usual on, full down to ${percent(floor)}`,
      answer: howLongLasts(of(stand), 1, floor).says,
    });
  }
  hours.push({ ask: 'Parked until the engine may not start', answer: howLongStands({ ...of(stand), loads: [] }).says });
  const card: OwnerCard = {
    rig: rig.name,
    kind: rig.kind,
    works: told(WORKS, rig, settings),
    lamps: rig.parts.flatMap((p) =>
      (p.lamps ?? []).map((l) => ({ unit: p.name, shows: l.shows, means: LAMP_MEANS[l.means] })),
    ),
    boost: boostWords(rig),
    hours,
    taken: bank
      ? `Computed for ${bank.name.toLowerCase()} and the use told at intake; most figures of the rig are assumed. Lead-acid fills its last fifth slowly, whatever charges it.`
      : 'Most figures of the rig are assumed.',
    settings: rig.parts.flatMap((p) =>
      ['dcdc-charger', 'dual-charger', 'shore-charger'].includes(p.kind)
        ? [
            `${p.name}: ${[(p.params['absorb'] ?? p.params['setPoint']) ? `${(p.params['absorb'] ?? p.params['setPoint'])!.value.toFixed(1)} V, float ${partValue(p, 'float').toFixed(1)} V` : undefined, partOption(p, 'enable') ? `enabled by ${partOption(p, 'enable')}` : undefined].filter(Boolean).join(', ')}`,
          ]
        : [],
    ),
    look: told(LOOK, rig, settings),
    never: [...NEVER],
  };
  return allInWords(settings.vocabulary, card);
}
