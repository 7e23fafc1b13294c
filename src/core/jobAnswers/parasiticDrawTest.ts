/**
 * The hunt for what flattens a standing start battery: millivolts across its fuses made amps by what the fuses
 * measure, known draws and the rest told apart, days to no start before and after. No fuse is pulled: pulling
 * wakes what sleeps.
 */
import { is } from '../parts/kinds';
import { bankStateOf } from '../rig/bankState';
import type { Rig } from '../rig/schema';
import { partValue, partWith } from '../rig/value';
import { secondsToNoStart } from '../size/calculators/batteries';
import type { Hunt } from '../job/job';

/**
 * Cold ohms of a fuse by kind and rating, mΩ: usual data-sheet figures, from memory; makers differ by some 15 %.
 * A new kind of fuse is a row.
 */
export const FUSE_OHMS: readonly { id: string; label: string; milliohms: number }[] = (
  [
    [
      'blade',
      'Blade',
      { 2: 53, 3: 31, 4: 23, 5: 17.8, 7.5: 10.9, 10: 7.7, 15: 4.8, 20: 3.4, 25: 2.5, 30: 2.0, 35: 1.6, 40: 1.4 },
    ],
    ['mini', 'Mini blade', { 2: 57, 3: 32, 4: 24, 5: 17.5, 7.5: 10.5, 10: 7.4, 15: 4.5, 20: 3.2, 25: 2.4, 30: 1.85 }],
    ['micro', 'Micro blade, two legs', { 5: 16.5, 7.5: 10.6, 10: 7.3, 15: 4.6, 20: 3.3, 25: 2.5, 30: 1.9 }],
    ['large', 'Large blade', { 20: 3.1, 30: 1.9, 40: 1.3, 50: 1.0, 60: 0.75, 80: 0.5 }],
  ] as const
).flatMap(([kind, label, ohms]) =>
  Object.entries(ohms)
    .map(([amps, milliohms]) => ({ amps: Number(amps), milliohms }))
    .sort((a, b) => a.amps - b.amps)
    .map(({ amps, milliohms }) => ({ id: `${kind}-${amps}`, label: `${label}, ${amps} A`, milliohms })),
);
/** One standard deviation of a fuse's ohms, and of the meter, mV. Assumed. */
const FUSE_SPREAD = 0.15;
const METER_MILLIVOLTS = 0.05;
/** A that is worth a look at one circuit; that a whole vehicle usually draws asleep; that is a fault: common practice. */
const SUSPECT_AMPS = 0.02;
const USUAL_AMPS = 0.05;
const FAULT_AMPS = 0.25;
/** Minutes until everything sleeps: common practice, 20 to 60. */
export const SLEEP_MINUTES = 20;
/** The season the days are asked for, °C, and how full the battery is left. Assumed. */
const SEASON_CELSIUS = 10;
const LEFT_AT_CHARGE = 0.95;

export interface DrawTestLine {
  id: string;
  name: string;
  amps: number;
  lo: number;
  hi: number;
  known: boolean;
  suspect: boolean;
}

export interface DrawTestResult {
  lines: DrawTestLine[];
  /** A through the fuses that were measured; of it what is meant to be drawn. */
  found: number;
  known: number;
  /** A of the whole that no measured fuse explains; undefined where the whole was not measured. */
  rest?: number;
  daysNow?: number;
  daysAfter?: number;
  says: string[];
}

/** Days a rig's start battery stands with a drain; undefined where there is none. */
function daysWith(rig: Rig, amps: number): number | undefined {
  const battery = rig.parts.find((p) => is(p, 'battery') && p.side === 'engine');
  const loads = partWith(rig, 'chassisLoads');
  if (!battery || !loads) return undefined;
  const state = bankStateOf(rig, battery, { celsius: SEASON_CELSIUS });
  return secondsToNoStart(state, LEFT_AT_CHARGE, partValue(loads, 'starter'), Math.max(0, amps)).seconds / 86_400;
}

const ampsText = (a: number): string => `${a.toFixed(a < 1 ? 2 : 1)} A`;

/** What a sleeping vehicle's whole current says. */
function asleepWords(amps: number): string {
  if (amps >= FAULT_AMPS) return `${ampsText(amps)} asleep is a fault: up to 0.05 A is usual.`;
  if (amps <= USUAL_AMPS) return `${ampsText(amps)} asleep is usual.`;
  return `${ampsText(amps)} asleep is more than the usual 0.05 A: name what draws it, alarm and tracker alone are about 0.07 A.`;
}

/** What the worksheet says so far. */
export function drawTestResult(hunt: Hunt, rig: Rig): DrawTestResult {
  const lines = hunt.circuits.map((c): DrawTestLine => {
    const ohms = FUSE_OHMS.find((f) => f.id === c.fuse)?.milliohms ?? NaN;
    const amps = Math.abs(c.millivolts) / ohms;
    const half = 2 * Math.hypot(amps * FUSE_SPREAD, METER_MILLIVOLTS / ohms);
    return {
      id: c.id,
      name: c.name,
      amps,
      lo: Math.max(0, amps - half),
      hi: amps + half,
      known: c.known,
      suspect: !c.known && amps - half / 2 > SUSPECT_AMPS,
    };
  });
  const found = lines.reduce((s, l) => s + l.amps, 0);
  const known = lines.filter((l) => l.known).reduce((s, l) => s + l.amps, 0);
  const suspects = lines.filter((l) => l.suspect).sort((a, b) => b.amps - a.amps);
  const rest = hunt.amps === undefined ? undefined : hunt.amps - found;
  const slack = 2 * FUSE_SPREAD * found + 0.02;
  const daysNow = hunt.amps === undefined ? undefined : daysWith(rig, hunt.amps);
  const daysAfter = hunt.after === undefined ? undefined : daysWith(rig, hunt.after);
  const says: string[] = [];
  if (hunt.sleptMinutes < SLEEP_MINUTES)
    says.push(
      `Wait until it sleeps: ${SLEEP_MINUTES} to 60 minutes, doors latched, key away. What is measured before counts what is still awake.`,
    );
  if (hunt.amps !== undefined) says.push(asleepWords(hunt.amps));
  if (suspects.length > 0)
    says.push(
      `Look at ${suspects
        .slice(0, 3)
        .map((s) => `${s.name} (${ampsText(s.amps)})`)
        .join(', then ')}. Pull that fuse only to confirm.`,
    );
  if (rest !== undefined && rest > slack)
    says.push(
      `${ampsText(rest)} is not explained by the fuses measured: go on round ` +
        `the panels, then what has no fuse, the alternator’s diodes first.`,
    );
  if (rest !== undefined && rest < -slack)
    says.push(
      'The fuses add up to more than the whole: a fuse is taken for another kind, or something woke up. Measure the whole again.',
    );
  if (rest !== undefined && Math.abs(rest) <= slack && lines.length > 0)
    says.push('The fuses measured explain the whole.');
  if (daysNow !== undefined)
    says.push(
      `Left standing nearly full at ${SEASON_CELSIUS} °C it starts for ${Math.floor(daysNow)} ` +
        `days${daysAfter === undefined ? '' : `; now for ${Math.floor(daysAfter)}`}.`,
    );
  return {
    lines,
    found,
    known,
    ...(rest === undefined ? {} : { rest }),
    ...(daysNow === undefined ? {} : { daysNow }),
    ...(daysAfter === undefined ? {} : { daysAfter }),
    says,
  };
}
