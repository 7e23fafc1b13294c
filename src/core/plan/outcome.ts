/** One candidate on the owner's use, judged by the trade's criteria. Figures come from the simulation, words from tables. */
import { has, houseBankOf, partsWith } from '../rig/value';
import { compileRig, type CompiledRig } from '../compile/compile';
import { CHARGE_VOLTS, chemistryOf } from '../parts/chemistry';
import { is, nominalOf, partKind, partOptions } from '../parts/kinds';
import type { Part, Rig } from '../rig/schema';
import { linkDangers } from '../rules/check';
import { voltsLinksOnLithium } from '../rules/lithium';
import type { Scenario } from '../simulate/scenarioSchema';
import type { SimResult, StartCheck } from '../simulate/result';
import { simulate, type SimOptions } from '../simulate/simulate';
import { lockoutsOf } from '../size/lockouts';
import { starterOf } from '../simulate/starter';
import type { Candidate } from './candidates';

export interface ProfileCheck {
  part: string;
  name: string;
  ok: boolean;
  says: string;
}

export interface CandidateOutcome {
  candidate: string;
  /** Charge of the bank behind when the last drive ends, 0 to 1; at the end where nobody drives. */
  arrives: number;
  /** Lowest charge of it on the way. */
  lowest: number;
  ends: number;
  /** The hardest start of the whole use. */
  start?: StartCheck;
  /** Shares of what the alternator could give, and its hottest °C. */
  alternator?: { idleShare: number; roadShare: number; peakAmps: number; hottest: number };
  linkPeakAmps: number;
  boost: 'keeps' | 'none';
  handsOff: boolean;
  /** Whether the start battery gains on shore power; undefined where there is none. */
  startOnShore?: boolean;
  profiles: ProfileCheck[];
  hunting: string[];
  collapsed: string[];
  /** Chargers whose feed may not carry them at idle: of 100 rigs as this one is assumed. */
  starves: { name: string; of100: number; says: string }[];
  dangers: string[];
  /** What the design rules call a danger in this kind of link: it may be built, the owner is told. */
  cautions: string[];
  /** h in at which a simulation of it ran out of its budget; absent where all came to their end. */
  ranOut?: number;
}

/** A bank that is not driven long cannot be blamed for not reaching its absorption volts. */
const HOURS_TO_JUDGE = 3;
/** V per 12 V under what it wants that are no lack: what is shown would read the same. */
const NEARLY_VOLTS = 0.05;

/** A candidate through a scenario, the fault left in it at work. @param z a point of the assumptions. */
export const simulateCandidate = (
  candidate: Candidate,
  compiled: CompiledRig,
  scenario: Scenario,
  z?: Float64Array,
  options: Pick<SimOptions, 'series' | 'tolerance'> = {},
): SimResult =>
  simulate(compiled, scenario, {
    situation: { ...(z ? { z } : {}), ...(candidate.effects ? { effects: candidate.effects } : {}) },
    ...options,
  });

/** Whether the vehicle of a battery takes shore power: a truck left its trailer's behind. */
const onItsSide = (rig: Rig, battery: string): boolean => {
  const { vehicle } = rig.parts.find((p) => p.id === battery)!;
  return partsWith(rig, 'mainsCharger').some((p) => p.vehicle === vehicle);
};

/** Twelve hours on shore from a start battery at 60 %: does it gain? */
function gainsOnShore(candidate: Candidate, compiled: CompiledRig, start: string, house: string | undefined): boolean {
  const shore: Scenario = {
    id: 'shore',
    name: 'Shore',
    startHour: 20,
    startSoc: { [start]: 0.6, ...(house ? { [house]: 0.8 } : {}) },
    legs: [{ id: 'shore', name: 'Shore', kind: 'shore', hours: 12, celsius: 15, sunHours: 0, loads: ['standby'] }],
  };
  const bank = simulateCandidate(candidate, compiled, shore, undefined, { series: false }).summary.batteries.find(
    (b) => b.part === start,
  )!;
  return bank.endSoc > bank.startSoc + 0.03;
}

/** Links that watch volts, and a lithium bank that rests above what they let go at. */
const dangersOf = (rig: Rig): string[] =>
  voltsLinksOnLithium(rig).map(
    ({ link, bank, openAt, rests }) =>
      `${link.name} opens under ${openAt.toFixed(1)} V, ${bank.name} rests at ` +
      `${rests.toFixed(1)} V: it does not let go until the bank is nearly flat.`,
  );

const chemistry = (p: Part): string => partOptions(partKind(p.kind), p)['chemistry']!;

function profilesOf(rig: Rig, runs: readonly SimResult[]): ProfileCheck[] {
  const charged = runs
    .flatMap((r) => r.legs)
    .filter((l) => l.kind !== 'stand')
    .reduce((sum, l) => sum + (l.to - l.from) / 3600, 0);
  return runs[0]!.summary.batteries.map((b, i) => {
    const part = rig.parts.find((p) => p.id === b.part)!;
    const n =
      nominalOf(
        part,
        rig.vehicles.find((v) => v.id === part.vehicle)!,
      ) / 12;
    const bears = CHARGE_VOLTS[chemistry(part)]!;
    const highest = Math.max(...runs.map((r) => r.summary.batteries[i]!.highestVolts));
    const high = highest / n > bears.most;
    const low = !high && highest / n < bears.needs - NEARLY_VOLTS && charged >= HOURS_TO_JUDGE;
    const limit = high
      ? `at most ${(bears.most * n).toFixed(1)} V for ${chemistryOf(chemistry(part)).label}`
      : low
        ? `${(bears.needs * n).toFixed(1)} V or more would fill it`
        : 'within what it wants';
    return { part: b.part, name: b.name, ok: !high && !low, says: `reaches ${highest.toFixed(1)} V; ${limit}` };
  });
}

/** Of 100 rigs, from so many on a charger that starves is told. */
const STARVES_FROM_PERCENT = 10;

function starvesOf(compiled: CompiledRig): CandidateOutcome['starves'] {
  return lockoutsOf(compiled).flatMap((l) => {
    const of100 = Math.max(l.starved, l.drawnOn);
    // More than half of them with their battery drawn on: it is not the line.
    const why = l.drawnOn > l.starved / 2 ? 'its source has no more' : 'its line loses too much';
    return of100 < STARVES_FROM_PERCENT
      ? []
      : [{ name: l.name, of100, says: `${l.name} starves at idle on ${of100} of 100 rigs like it: ${why}.` }];
  });
}

/** The most an alternator is asked for in any of the runs. */
function hardestOf(runs: readonly SimResult[]): NonNullable<CandidateOutcome['alternator']> {
  const most = (of: 'peakShareIdle' | 'peakShareRoad' | 'peakAmps' | 'hottest') =>
    Math.max(0, ...runs.map((x) => x.summary.alternators[0]?.[of] ?? 0));
  return {
    idleShare: most('peakShareIdle'),
    roadShare: most('peakShareRoad'),
    peakAmps: most('peakAmps'),
    hottest: most('hottest'),
  };
}

/** Most A through any link of a run; what only passes a tow connector is counted where it is switched. */
function linkPeak(rig: Rig, run: SimResult): number {
  const connectors = new Set(partsWith(rig, 'towConnector').map((p) => p.id));
  return Math.max(0, ...run.summary.links.filter((l) => !connectors.has(l.part)).map((l) => Math.abs(l.peakAmps)));
}

/** Where somebody drives is where one arrives. */
const drivenRun = (runs: readonly SimResult[]): SimResult =>
  runs.find((x) => x.legs.some((l) => l.kind === 'drive')) ?? runs[0]!;

/** Charge of the bank behind: when the last drive ends, at its lowest in any run, at the end; 0 where there is none. */
function chargeOf(
  bank: string | undefined,
  runs: readonly SimResult[],
): Pick<CandidateOutcome, 'arrives' | 'lowest' | 'ends'> {
  const { summary, legs } = drivenRun(runs);
  const index = summary.batteries.findIndex((b) => b.part === bank);
  const ends = summary.batteries[index]?.endSoc;
  if (ends === undefined) return { arrives: 0, lowest: 0, ends: 0 };
  const lastDrive = legs.findLastIndex((l) => l.kind === 'drive');
  return {
    arrives: lastDrive >= 0 ? summary.legEnds[lastDrive]!.soc[index]! : ends,
    lowest: Math.min(...runs.map((x) => x.summary.batteries[index]!.lowestSoc)),
    ends,
  };
}

/** What its runs, one a scenario, come to in figures: all that is asked of a sample. */
export function figuresOf(
  rig: Rig,
  runs: readonly SimResult[],
): Pick<CandidateOutcome, 'arrives' | 'lowest' | 'ends' | 'start' | 'alternator'> {
  const hardest = runs.flatMap((x) => x.summary.starts).sort((a, b) => a.volts - a.limit - (b.volts - b.limit))[0];
  return {
    ...chargeOf(houseBankOf(rig)?.id, runs),
    ...(hardest ? { start: hardest } : {}),
    ...(drivenRun(runs).summary.alternators.length > 0 ? { alternator: hardestOf(runs) } : {}),
  };
}

/** What can be said from its runs, one a scenario. */
export function outcomeOf(
  candidate: Candidate,
  runs: readonly SimResult[],
  compiled = compileRig(candidate.rig),
): CandidateOutcome {
  const { rig } = candidate;
  const start = starterOf(rig)?.battery;
  const ranOut = runs.flatMap((x) => x.summary.ranOutAt ?? []);
  return {
    candidate: candidate.id,
    ...figuresOf(rig, runs),
    linkPeakAmps: Math.max(0, ...runs.map((x) => linkPeak(rig, x))),
    boost:
      (has(rig, 'bypass') || (has(rig, 'boost') && has(rig, 'solenoid'))) && !candidate.effects?.length
        ? 'keeps'
        : 'none',
    handsOff: !has(rig, 'linkSwitch') && !rig.parts.some((p) => is(p, 'charger') && p.options?.['enable'] === 'manual'),
    ...(start && onItsSide(rig, start)
      ? { startOnShore: gainsOnShore(candidate, compiled, start, houseBankOf(rig)?.id) }
      : {}),
    profiles: profilesOf(rig, runs),
    hunting: [...new Set(runs.flatMap((x) => x.summary.hunting))].map((id) => rig.parts.find((p) => p.id === id)!.name),
    collapsed: [...new Set(runs.flatMap((x) => x.summary.collapsed))].map(
      (id) => rig.parts.find((p) => p.id === id)!.name,
    ),
    starves: starvesOf(compiled),
    ...(ranOut.length > 0 ? { ranOut: Math.min(...ranOut) } : {}),
    dangers: dangersOf(rig),
    cautions: linkDangers(rig).map((f) => `${f.title}: ${f.why.charAt(0).toLowerCase()}${f.why.slice(1)}`),
  };
}
