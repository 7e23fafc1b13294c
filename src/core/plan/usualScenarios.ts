/** Scenarios to start from, drawn from what the owner told at intake: a trip, and standing in storage. */
import type { Leg, Scenario } from '../simulate/scenarioSchema';

export interface ToldUse {
  /** Hours driven on a travel day. */
  driveHours?: number;
  /** Nights off grid in a row. */
  nights?: number;
  /** Months stored a year. */
  storedMonths?: number;
  storedPluggedIn?: boolean;
}

const USUAL_DRIVE_HOURS = 5;
const USUAL_NIGHTS = 2;
const USUAL_MONTHS = 3;
const HOURS_A_MONTH = 730;
const EVENING: Leg['loads'] = ['standby', 'fridge-compressor', 'furnace-fan', 'lights'];
const DAY: Leg['loads'] = ['standby', 'fridge-compressor'];

const leg = (id: string, name: string, kind: Leg['kind'], hours: number, more: Partial<Leg> = {}): Leg => ({
  id,
  name,
  kind,
  hours,
  celsius: 15,
  sunHours: 0,
  loads: [...DAY],
  ...more,
});

/** A trip and a storage for what was told; usual figures where nothing was. `house` is the bank that is lived from. */
export function usualScenarios(told: ToldUse, house: string | undefined): Scenario[] {
  const drive = Math.max(0.5, told.driveHours ?? USUAL_DRIVE_HOURS);
  const nights = Math.max(1, Math.min(10, Math.round(told.nights ?? USUAL_NIGHTS)));
  const months = Math.max(0.5, told.storedMonths ?? USUAL_MONTHS);
  const charged = house ? { startSoc: { [house]: 0.9 } } : {};
  return [
    {
      id: 'trip',
      name: 'Trip',
      startHour: 17,
      ...charged,
      legs: [
        leg('night', 'Night before', 'stand', 16, { celsius: 8, loads: EVENING }),
        leg('out', 'Drive out', 'drive', drive, { idleShare: 0.2, celsius: 18 }),
        leg('camp', nights === 1 ? 'One night off grid' : `${nights} nights off grid`, 'stand', 24 * nights, {
          celsius: 8,
          sunHours: 2,
          loads: ['standby', 'fridge-compressor', 'furnace-fan'],
        }),
        leg('home', 'Drive home', 'drive', drive, { idleShare: 0.2, celsius: 18 }),
      ],
    },
    {
      id: 'storage',
      name: 'Storage',
      startHour: 8,
      ...charged,
      legs: [
        leg(
          'stored',
          `Stored ${months === 1 ? 'a month' : `${Number(months.toFixed(1))} months`}${told.storedPluggedIn ? ', plugged in' : ''}`,
          told.storedPluggedIn ? 'shore' : 'stand',
          Math.min(4400, HOURS_A_MONTH * months),
          {
            celsius: 5,
            loads: [],
            ...(told.storedPluggedIn ? {} : { disconnectOpen: true, uncoupled: true }),
          },
        ),
        leg('first', 'First drive', 'drive', 1, { celsius: 8 }),
      ],
    },
  ];
}
