/** What the tow audit takes from the rig's own parts: batteries, alternator, chargers, loads. */
import type { BankState } from '../../parts/chemistry';
import { bankStateOf } from '../../rig/bankState';
import { is, nominalOf } from '../../parts/kinds';
import type { Bond, Part, Rig } from '../../rig/schema';
import { partsWith, partValue, partWith } from '../../rig/value';

export interface TowVehicle {
  start: BankState;
  /** Loads of the vehicle itself, A. */
  asleep: number;
  running: number;
  starter: number;
  alternator: { volts: number; amps: number };
  /** A second battery in the vehicle, with the DC-DC charger that fills it from the start battery. */
  accessory?: {
    bank: BankState;
    chargerAmps: number;
    chargerVolts: number;
    /** m of cable more that a feed from the start battery is than one from it. */
    metresToStart: number;
  };
  /** The battery behind, where its blocks make 12 V: a direct line reaches only that. */
  behind?: BankState;
  /** Whether the trailer has a battery of its own, of whatever volts. */
  trailerBank: boolean;
  /** Loads behind at rest, A at 12 V. */
  behindDraws: number;
  /** Ω of the metal between the vehicles. */
  hitchOhms: number;
}

/** Ω of a hitch nobody drew: paint, grease, a pivot. Assumed. */
const HITCH_OHMS = 1;

/** The joint of metal between two vehicles' frames. */
function hitchOf(rig: Rig): Bond | undefined {
  const vehicleOf = (ground: string) => rig.grounds.find((g) => g.id === ground)?.vehicle;
  return rig.bonds.find((b) => {
    const [a, z] = [vehicleOf(b.from.part), vehicleOf(b.to.part)];
    return a !== undefined && z !== undefined && a !== z;
  });
}

/** °C the audit is made for. */
const AUDIT_CELSIUS = 20;

export const bankState = (rig: Rig, part: Part): BankState =>
  bankStateOf(rig, part, {
    soc: Math.min(1, Math.max(0.02, partValue(part, 'soc'))),
    celsius: AUDIT_CELSIUS,
    ageing: 1,
  });

/** The parts of a rig with a tow connector that its audit needs; undefined where it has none, or no start battery. */
export function towVehicle(rig: Rig): TowVehicle | undefined {
  const connector = partWith(rig, 'towConnector');
  const alternator = partWith(rig, 'alternator');
  if (!connector || !alternator) return undefined;
  const banks = partsWith(rig, 'battery');
  const start = banks.find((p) => p.vehicle === alternator.vehicle && p.side === 'engine');
  if (!start) return undefined;
  const loads = partWith(rig, 'chassisLoads');
  const accessory = banks.find(
    (p) =>
      p.vehicle === alternator.vehicle &&
      p.side === 'coach' &&
      rig.parts.some((c) => is(c, 'charger') && c.vehicle === p.vehicle),
  );
  const filler = accessory && rig.parts.find((p) => is(p, 'charger') && p.vehicle === accessory.vehicle);
  const behind = banks.find(
    (p) =>
      p.vehicle !== alternator.vehicle &&
      nominalOf(
        p,
        rig.vehicles.find((v) => v.id === p.vehicle)!,
      ) === 12,
  );
  const house = rig.parts.find((p) => is(p, 'houseLoads') && p.vehicle !== alternator.vehicle);
  return {
    start: bankState(rig, start),
    asleep: loads ? partValue(loads, 'off') : 0.03,
    running: loads ? partValue(loads, 'running') : 16,
    starter: loads ? partValue(loads, 'starter') : 230,
    alternator: { volts: partValue(alternator, 'setPoint'), amps: partValue(alternator, 'fastLimit') },
    ...(accessory && filler
      ? {
          accessory: {
            bank: bankState(rig, accessory),
            chargerAmps: partValue(filler, 'limit'),
            chargerVolts: partValue(filler, 'absorb'),
            metresToStart: Number(Math.abs(accessory.station - start.station).toFixed(2)),
          },
        }
      : {}),
    ...(behind ? { behind: bankState(rig, behind) } : {}),
    trailerBank: banks.some((p) => p.vehicle !== alternator.vehicle),
    behindDraws: house ? partValue(house, 'draw') : 0,
    hitchOhms: hitchOf(rig)?.resistance.value ?? HITCH_OHMS,
  };
}
