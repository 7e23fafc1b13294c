/**
 * How big a DC-DC charger should be: what the bank asks for on the customer's own driving, and what bank,
 * alternator, maker's upfit limit and cable each allow. The smallest size sold that does the first without
 * passing any of the second.
 */
import { chemistryOf } from '../parts/chemistry';
import { is, nominalOf } from '../parts/kinds';
import type { Part, Rig } from '../rig/schema';
import { partOption, partValue, partWith } from '../rig/value';
import type { Scenario } from '../simulate/scenarioSchema';

/** A DC-DC chargers are sold in: common sizes, from memory. */
export const CHARGER_SIZES = [6, 8, 10, 12, 15, 18, 20, 25, 30, 40, 50, 60, 80, 100] as const;
/** Charge one wants at arrival. */
const WANTED = 0.9;
/** Charge of a bank after some days of use: a charger is sized for a low one (assumed). */
const LOW = 0.5;
/** Share of the capacity a bank takes an hour without harm: lead C/4, LFP C/2 (from memory; the label comes first). */
const TAKES: Readonly<Record<string, number>> = { flooded: 0.25, agm: 0.3, gel: 0.2, lfp: 0.5 };
/** Share of what an alternator gives hot at idle that may be asked of it for hours: common practice. */
const IDLE_SHARE = 0.9;
/** V the input keeps above its lockout. */
const ABOVE_LOCKOUT = 0.3;
/** V at the start battery's post while it charges, engine running, per 12 V. */
const SOURCE = 13.8;

export interface ChargerBound {
  id: 'bank' | 'alternator' | 'upfit' | 'cable';
  label: string;
  /** A it allows the charger to give. */
  amps: number;
  says: string;
}

export interface ChargerSize {
  part: string;
  name: string;
  /** A it gives as drawn. */
  now: number;
  /** A that bring the bank to 90 % on the longest drive. */
  asks: number;
  asksSays: string;
  bounds: ChargerBound[];
  pick: number;
  says: string;
  verdict: 'right' | 'too small' | 'too big';
}

/** @param feed V at its input before it starts and Ω behind it, 0 where not known. @param upfit A the vehicle's maker allows, where known. */
export function chargerSize(
  rig: Rig,
  charger: Part,
  scenarios: readonly Scenario[],
  feed: { volts: number; ohms: number },
  upfit?: number,
): ChargerSize | undefined {
  const vehicle = (p: Part) => rig.vehicles.find((v) => v.id === p.vehicle)!;
  const volts = partValue(charger, 'absorb');
  const blocks = Math.max(1, Math.round(volts / 14));
  const bank = rig.parts
    .filter(
      (p) =>
        is(p, 'battery') &&
        p.vehicle === charger.vehicle &&
        p.side === 'coach' &&
        nominalOf(p, vehicle(p)) / 12 === blocks,
    )
    .sort((a, b) => partValue(b, 'capacity') - partValue(a, 'capacity'))[0];
  const alternator = partWith(rig, 'alternator');
  if (!bank || !alternator) return undefined;
  const chemistry = chemistryOf(partOption(bank, 'chemistry'));
  const capacity = partValue(bank, 'capacity');
  const drives = scenarios.flatMap((s) =>
    s.legs
      .filter((l) => l.kind === 'drive')
      .map((l) => ({ hours: l.hours, from: Math.min(LOW, s.startSoc?.[bank.id] ?? partValue(bank, 'soc')) })),
  );
  const drive = drives.sort((a, b) => b.hours - a.hours)[0];
  const house = rig.parts.find((p) => is(p, 'houseLoads') && p.vehicle === charger.vehicle);
  const draws = house ? partValue(house, 'draw') : 0;
  const missing = drive ? Math.max(0, WANTED - drive.from) * capacity : 0;
  const asks = drive ? missing / drive.hours / chemistry.efficiency + draws : draws;

  const loads = partWith(rig, 'chassisLoads');
  const running = loads ? partValue(loads, 'running') : 16;
  // What goes in, by what comes out: volts and losses.
  const gives = (amps: number, inVolts: number) => (amps * inVolts * partValue(charger, 'efficiency')) / volts;
  const idle = partValue(alternator, 'idleLimit');
  const spare = Math.max(0, IDLE_SHARE * idle - running);
  const takes = (TAKES[chemistry.id] ?? 0.25) * capacity;
  const bounds: ChargerBound[] = [
    {
      id: 'bank',
      label: bank.name,
      amps: takes,
      says: `${capacity.toFixed(0)} Ah ${chemistry.label} take ${takes.toFixed(0)} A for hours.`,
    },
    {
      id: 'alternator',
      label: 'Alternator, hot idle',
      amps: gives(spare, SOURCE),
      says: `${IDLE_SHARE * 100} % of ${idle.toFixed(0)} A less ${running.toFixed(0)} A of its own loads leave ${spare.toFixed(0)} A in.`,
    },
  ];
  if (upfit !== undefined && upfit > 0)
    bounds.push({
      id: 'upfit',
      label: 'Maker’s upfit limit',
      amps: gives(upfit, SOURCE),
      says: `${upfit.toFixed(0)} A may be taken in all.`,
    });
  const lowest = partValue(charger, 'lockout') + ABOVE_LOCKOUT;
  if (feed.ohms > 0) {
    const most = Math.max(0, (feed.volts - lowest) / feed.ohms);
    bounds.push({
      id: 'cable',
      label: 'Feed as drawn',
      amps: gives(most, lowest),
      says: `${(feed.ohms * 1000).toFixed(0)} mΩ of source and line, out and back: at ${most.toFixed(0)} A the input falls from ${feed.volts.toFixed(1)} to ${lowest.toFixed(1)} V, near its lockout.`,
    });
  }
  const tightest = bounds.reduce((a, b) => (b.amps < a.amps ? b : a));
  const may = [...CHARGER_SIZES].reverse().find((s) => s <= tightest.amps) ?? CHARGER_SIZES[0];
  const wants = CHARGER_SIZES.find((s) => s >= asks) ?? CHARGER_SIZES[CHARGER_SIZES.length - 1]!;
  const pick = Math.min(may, wants);
  const now = partValue(charger, 'limit');
  const hours = missing / Math.max(0.1, (pick - draws) * chemistry.efficiency);
  return {
    part: charger.id,
    name: charger.name,
    now,
    asks,
    asksSays: drive
      ? `${missing.toFixed(0)} Ah from ${Math.round(drive.from * 100)} to ${WANTED * 100} % in ${drive.hours.toFixed(1)} h, and ${draws.toFixed(1)} A of loads.`
      : 'No drive in the use: loads alone.',
    bounds,
    pick,
    says:
      pick < wants
        ? `${tightest.label} allows no more than ${pick} A: ${pick <= draws ? 'the loads take all of it' : `about ${hours.toFixed(1)} h of driving to ${WANTED * 100} %`}.`
        : now > wants
          ? `${wants} A would do; more gets it there sooner.`
          : `${pick} A do it, and nothing stands in the way.`,
    verdict: now > tightest.amps * 1.05 ? 'too big' : now < pick ? 'too small' : 'right',
  };
}
