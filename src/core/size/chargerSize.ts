/**
 * How big a DC-DC charger should be: what the bank asks for on the customer's own driving, and what bank,
 * alternator, maker's upfit limit and cable each allow. The smallest size sold that does the first without
 * passing any of the second.
 */
import { CHARGE_SHARE, chemistryOf } from '../parts/chemistry';
import { is, nominalOf } from '../parts/kinds';
import { follow } from '../rig/follow';
import type { Part, Rig } from '../rig/schema';
import { partOption, partValue, partWith } from '../rig/value';
import { loadAmps } from '../simulate/loadTable';
import type { Scenario } from '../simulate/scenarioSchema';

/** A DC-DC chargers are sold in: common sizes, from memory. */
export const CHARGER_SIZES = [6, 8, 10, 12, 15, 18, 20, 25, 30, 40, 50, 60, 80, 100] as const;
/** Charge one wants at arrival. */
const WANTED_CHARGE = 0.9;
/** Charge of a bank after some days of use: a charger is sized for a low one (assumed). */
const LOW_CHARGE = 0.5;
/** Share of what an alternator gives hot at idle that may be asked of it for hours: common practice. */
const IDLE_SHARE = 0.9;
/** V the input keeps above its lockout. */
const ABOVE_LOCKOUT_VOLTS = 0.3;
/** V at the start battery's post while it charges, engine running, per 12 V. */
const SOURCE_VOLTS = 13.8;

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

/** V at a charger's input before it starts and Ω behind it, 0 where not known. */
interface Feed {
  volts: number;
  ohms: number;
}

/** The largest coach bank of the charger's own volts, in its vehicle. */
function bankOf(rig: Rig, charger: Part): Part | undefined {
  const blocks = Math.max(1, Math.round(partValue(charger, 'absorb') / 14));
  const nominal = (p: Part) =>
    nominalOf(
      p,
      rig.vehicles.find((v) => v.id === p.vehicle)!,
    );
  // In its own vehicle; one that stands before a plug fills what its output leads to.
  const fits = (p: Part) => is(p, 'battery') && p.side === 'coach' && nominal(p) / 12 === blocks;
  const here = rig.parts.filter((p) => fits(p) && p.vehicle === charger.vehicle);
  const led = () =>
    follow(rig, { part: charger.id, terminal: 'output' }).flatMap((s) => (s.part && fits(s.part) ? [s.part] : []));
  return (here.length > 0 ? here : led()).sort((a, b) => partValue(b, 'capacity') - partValue(a, 'capacity'))[0];
}

/** What bank, alternator, maker and cable each allow. */
function boundsOf(rig: Rig, charger: Part, bank: Part, alternator: Part, feed: Feed, upfit = 0): ChargerBound[] {
  const chemistry = chemistryOf(partOption(bank, 'chemistry'));
  const capacity = partValue(bank, 'capacity');
  const loads = partWith(rig, 'chassisLoads');
  const running = loads ? partValue(loads, 'running') : 16;
  // What comes out, by what goes in: volts and losses.
  const gives = (amps: number, inVolts: number) =>
    (amps * inVolts * partValue(charger, 'efficiency')) / partValue(charger, 'absorb');
  const idle = partValue(alternator, 'idleLimit');
  const spare = Math.max(0, IDLE_SHARE * idle - running);
  const takes = CHARGE_SHARE[chemistry.id]! * capacity;
  const lowest = partValue(charger, 'lockout') + ABOVE_LOCKOUT_VOLTS;
  const most = Math.max(0, (feed.volts - lowest) / feed.ohms);
  return [
    {
      id: 'bank',
      label: bank.name,
      amps: takes,
      says: `${capacity.toFixed(0)} Ah ${chemistry.label} draws ${takes.toFixed(0)} A continuous.`,
    },
    {
      id: 'alternator',
      label: 'Alternator, hot idle',
      amps: gives(spare, SOURCE_VOLTS),
      says: `${IDLE_SHARE * 100} % of ${idle.toFixed(0)} A less ${running.toFixed(0)} A of its own loads leave ${spare.toFixed(0)} A in.`,
    },
    ...(upfit > 0
      ? [
          {
            id: 'upfit',
            label: 'Maker’s upfit limit',
            amps: gives(upfit, SOURCE_VOLTS),
            says: `${upfit.toFixed(0)} A may be taken in all.`,
          } as const,
        ]
      : []),
    ...(feed.ohms > 0
      ? [
          {
            id: 'cable',
            label: 'Feed as drawn',
            amps: gives(most, lowest),
            says:
              `${(feed.ohms * 1000).toFixed(0)} mΩ of source and line, out and back: at ${most.toFixed(0)} ` +
              `A the input falls from ${feed.volts.toFixed(1)} to ${lowest.toFixed(1)} V, near its lockout.`,
          } as const,
        ]
      : []),
  ];
}

/** What the longest drive asks of a charger: Ah missing, A of loads meanwhile, A in all. */
function askedOf(
  rig: Rig,
  charger: Part,
  bank: Part,
  scenarios: readonly Scenario[],
): { asks: number; draws: number; missing: number; says: string } {
  const drive = scenarios
    .flatMap((s) =>
      s.legs
        .filter((l) => l.kind === 'drive')
        .map((leg) => ({
          leg,
          hours: leg.hours,
          from: Math.min(LOW_CHARGE, s.startSoc?.[bank.id] ?? partValue(bank, 'soc')),
        })),
    )
    .sort((a, b) => b.hours - a.hours)[0];
  const house = rig.parts.find((p) => is(p, 'houseLoads') && p.vehicle === charger.vehicle);
  const nominal = rig.vehicles.find((v) => v.id === charger.vehicle)!.nominalVolts;
  // What this use runs on the way, where it says so.
  const draws = !house
    ? 0
    : drive
      ? loadAmps(drive.leg.loads, drive.leg.celsius, nominal).mean + (drive.leg.moreAmps ?? 0)
      : partValue(house, 'draw');
  if (!drive) return { asks: draws, draws, missing: 0, says: 'No drive in the use: loads alone.' };
  const missing = Math.max(0, WANTED_CHARGE - drive.from) * partValue(bank, 'capacity');
  return {
    asks: missing / drive.hours / chemistryOf(partOption(bank, 'chemistry')).efficiency + draws,
    draws,
    missing,
    says:
      `${missing.toFixed(0)} Ah from ${Math.round(drive.from * 100)} to ${WANTED_CHARGE * 100} ` +
      `% in ${drive.hours.toFixed(1)} h, and ${draws.toFixed(1)} A of loads.`,
  };
}

/**
 * The size a charger should be; undefined where the rig has no bank for it, or no alternator.
 * @param upfit A the vehicle's maker allows, where known.
 */
export function chargerSize(
  rig: Rig,
  charger: Part,
  scenarios: readonly Scenario[],
  feed: Feed,
  upfit?: number,
): ChargerSize | undefined {
  const bank = bankOf(rig, charger);
  const alternator = partWith(rig, 'alternator');
  if (!bank || !alternator) return undefined;
  const asked = askedOf(rig, charger, bank, scenarios);
  const bounds = boundsOf(rig, charger, bank, alternator, feed, upfit);
  const tightest = bounds.reduce((a, b) => (b.amps < a.amps ? b : a));
  const may = [...CHARGER_SIZES].reverse().find((s) => s <= tightest.amps) ?? CHARGER_SIZES[0];
  const wants = CHARGER_SIZES.find((s) => s >= asked.asks) ?? CHARGER_SIZES[CHARGER_SIZES.length - 1]!;
  const pick = Math.min(may, wants);
  const now = partValue(charger, 'limit');
  const { efficiency } = chemistryOf(partOption(bank, 'chemistry'));
  const hours = asked.missing / Math.max(0.1, (pick - asked.draws) * efficiency);
  const short =
    pick <= asked.draws
      ? 'the loads take all of it'
      : `about ${hours.toFixed(1)} h of driving to ${WANTED_CHARGE * 100} %`;
  return {
    part: charger.id,
    name: charger.name,
    now,
    asks: asked.asks,
    asksSays: asked.says,
    bounds,
    pick,
    says:
      pick < wants
        ? `${tightest.label} allows no more than ${pick} A: ${short}.`
        : now > wants
          ? `${wants} A would do; more gets it there sooner.`
          : `${pick} A do it, and nothing stands in the way.`,
    verdict: now > tightest.amps * 1.05 ? 'too big' : now < pick ? 'too small' : 'right',
  };
}
