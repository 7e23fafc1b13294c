/**
 * The card for the owner: how the batteries are joined and by what, what lamps say, boost and how not to use
 * it, how long to drive for how much, what to look for. Words are rows; hours are simulated on this rig.
 */
import { ENABLE_SCHOOLS } from '../parts/enableSchools';
import type { OwnerSentences } from '../parts/ownerSentence';
import { is, isOneOf, partKind } from '../parts/kinds';
import { isFuseOrBreaker } from '../parts/fuses';
import { compileRig } from '../compile/compile';

import { howLong, howLongLasts, howLongStands, type HoursQuestion } from '../plan/questions';
import type { Part, Rig } from '../rig/schema';
import { partOption, partValue, houseBankOf } from '../rig/value';
import type { Leg } from '../simulate/scenarioSchema';
import { BMS_TIMES_CAPACITY, crankShare, CRANK_SECONDS } from '../size/crankShare';
import { namesGiven } from '../rig/inWords';
import { allInWords, asWritten } from '../units/vocabulary';
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

const NEVER: readonly string[] = [
  'Never open a battery, link or disconnect while the engine charges.',
  'Never charge, boost or jump a frozen or bulging battery.',
  'Never feed power backwards into a socket with a two-male cord: it can kill.',
];

/** Whether anything decides when a link closes: a module, or the driver's switch. */
const decides = (part: Part): boolean => isOneOf(part, ['module', 'linkSwitch']);

/** Sentences of a rig's parts, each once, those of what decides first. */
export function ownerSentences(which: keyof OwnerSentences, rig: Rig, settings: Settings): string[] {
  const decided = rig.parts.some(decides);
  const ordered = [...rig.parts].sort((a, b) => Number(decides(b)) - Number(decides(a)));
  return [
    ...new Set(
      ordered.flatMap((part) => {
        const about = { name: part.name, value: (name: string) => partValue(part, name) };
        return partKind(part.kind)
          .owner[which].filter(
            ({ option, alone }) =>
              (!alone || !decided) && (option === undefined || option.is.includes(partOption(part, option.name))),
          )
          .map(({ says }) => (typeof says === 'string' ? says : says(about, settings)));
      }),
    ),
  ];
}

const LAMP_MEANS = {
  closed: 'joined, or charging',
  waiting: 'standby: conditions not met yet',
  dark: 'off, or no supply',
} as const;

/** What the switch is for here, by how much of the starter's current would come through the link. */
function boostWords(rig: Rig): string[] {
  const which = rig.parts.find((p) => is(p, 'boost') || is(p, 'bypass'));
  if (!which) {
    const oneWay = rig.parts.some((p) => is(p, 'oneWay'));
    return oneWay
      ? [
          'There is no boost: what charges the bank works one way. A flat start ' +
            'battery is jumped at its posts, from another vehicle or a pack.',
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
  const through =
    share && weakest && share.amps > weakest.rating
      ? `${weakest.name.toLowerCase()}, ${Math.round(weakest.rating)} A`
      : `a bank whose protection opens at about ${Math.round(share?.bmsLimit ?? BMS_TIMES_CAPACITY)} A`;
  return [
    `${which.name}: hold it, it lends one bank to the other only while it ` +
      `is held. Never wedge it: it burns the link and flattens both banks.`,
    over
      ? `Do not crank through it: the starter would draw about ${Math.round(share.amps)} A through ` +
        `${through}. Hold it some minutes to charge, let go, wait a little, then crank.`
      : `For a weak start battery: hold it, crank for at most ${CRANK_SECONDS} s, let ` +
        `go. Better: hold it ten minutes with the other bank full, let go, then crank.`,
  ];
}

/** Charge the hours are asked from and to. */
const ASKED: readonly [from: number, to: number][] = [
  [0.5, 0.8],
  [0.2, 0.8],
];
/** An owner asks in days of driving. */
const LONGEST_DRIVE_HOURS = 24;
const FLOOR: Readonly<Record<string, number>> = { lfp: 0.15 };

/** Thresholds of links, modules and maintainers as the card has them. */
const THRESHOLD_WORDS: readonly [param: string, words: string][] = [
  ['closeAt', 'closes at'],
  ['openAt', 'opens under'],
  ['startAt', 'starts at'],
  ['stopAt', 'stops under'],
  ['low', 'links a bank under'],
  ['chassisHigh', 'from a chassis bank at'],
  ['coachHigh', 'from a coach bank at'],
];
/** Whether a part has a threshold an owner may want to read off. */
const hasThreshold = (p: Part): boolean => THRESHOLD_WORDS.some(([name]) => p.params[name] !== undefined);

/** How a charger, link or maintainer is set: its volts, what enables it and its thresholds, where it has them. */
function settingsOf(p: Part): string[] {
  const absorb = p.params['absorb'] ?? p.params['setPoint'];
  const enable = partOption(p, 'enable');
  const volts = (name: string) => `${partValue(p, name).toFixed(1)} V`;
  const has = (name: string) => p.params[name] !== undefined;
  const school = ENABLE_SCHOOLS.find((s) => s.id === enable);
  return [
    ...(absorb ? [`${absorb.value.toFixed(1)} V, float ${volts('float')}`] : []),
    ...(school
      ? [
          school.by === 'volts'
            ? `starts above ${volts('on')} after ${Math.round(partValue(p, 'delay'))} s, stops under ${volts('off')}`
            : `enabled by ${school.label.toLowerCase()}`,
        ]
      : []),
    ...(has('lockout') ? [`locks out under ${volts('lockout')}, again above ${volts('restart')}`] : []),
    ...THRESHOLD_WORDS.flatMap(([name, words]) => (has(name) ? [`${words} ${partValue(p, name).toFixed(2)} V`] : [])),
  ];
}

/** The card of the rig as it stands. */
export function ownerCard(job: Job, settings: Settings): OwnerCard {
  const { doc: rig } = currentRevision(job);
  const bank = houseBankOf(rig);
  const scenarios = jobScenarios(job);
  const legs: readonly Leg[] = scenarios[0]?.legs ?? [];
  const drive = legs.find((l) => l.kind === 'drive');
  const stand = legs.find((l) => l.kind === 'stand');
  const compiled = compileRig(rig);
  const of = (leg: Leg | undefined): HoursQuestion => ({
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
        answer: howLong(of(drive), 'drive', from, to, LONGEST_DRIVE_HOURS).says,
      });
    const floor = FLOOR[partOption(bank, 'chemistry')] ?? 0.5;
    hours.push({
      ask: `Parked with the usual on, full down to ${percent(floor)}`,
      answer: howLongLasts(of(stand), 1, floor).says,
    });
  }
  hours.push({ ask: 'Parked until the engine may not start', answer: howLongStands({ ...of(stand), loads: [] }).says });
  const card: OwnerCard = {
    rig: asWritten(rig.name),
    kind: rig.kind,
    works: ownerSentences('works', rig, settings),
    lamps: rig.parts.flatMap((p) =>
      (p.lamps ?? []).map((l) => ({ unit: p.name, shows: asWritten(l.shows), means: LAMP_MEANS[l.means] })),
    ),
    boost: boostWords(rig),
    hours,
    taken: bank
      ? `Computed for ${bank.name.toLowerCase()} and the use told at intake; most figures of ` +
        `the rig are assumed. Lead-acid fills its last fifth slowly, whatever charges it.`
      : 'Most figures of the rig are assumed.',
    settings: rig.parts.flatMap((p) =>
      isOneOf(p, ['charger', 'mainsCharger']) || hasThreshold(p) ? [`${p.name}: ${settingsOf(p).join(', ')}`] : [],
    ),
    look: ownerSentences('care', rig, settings),
    never: [...NEVER],
  };
  return allInWords(settings.vocabulary, card, namesGiven(rig));
}
