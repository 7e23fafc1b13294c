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
/** Months it stands plugged in where only that was told (assumed). */
const USUAL_MONTHS_PLUGGED_IN = 3;
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

/**
 * A trip for what was told, usual figures where nothing was; and a storage where somebody spoke of one.
 * @param house the bank that is lived from.
 */
export function usualScenarios(told: ToldUse, house: string | undefined): Scenario[] {
  const drive = Math.max(0.5, told.driveHours ?? USUAL_DRIVE_HOURS);
  const nights = Math.max(1, Math.min(10, Math.round(told.nights ?? USUAL_NIGHTS)));
  const months = told.storedMonths ?? (told.storedPluggedIn ? USUAL_MONTHS_PLUGGED_IN : 0);
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
    ...(months > 0 ? [storage(months, told.storedPluggedIn ?? false, charged)] : []),
  ];
}

/** Standing for months and the first drive after it. */
export function storage(months: number, pluggedIn: boolean, start: Pick<Scenario, 'startSoc'>): Scenario {
  const long = Math.max(0.5, months);
  return {
    id: 'storage',
    name: 'Storage',
    startHour: 8,
    ...start,
    legs: [
      leg(
        'stored',
        `Stored ${long === 1 ? 'a month' : `${Number(long.toFixed(1))} months`}${pluggedIn ? ', plugged in' : ''}`,
        pluggedIn ? 'shore' : 'stand',
        Math.min(4400, HOURS_A_MONTH * long),
        {
          celsius: 5,
          loads: [],
          ...(pluggedIn ? {} : { disconnectOpen: true, uncoupled: true }),
        },
      ),
      leg('first', 'First drive', 'drive', 1, { celsius: 8 }),
    ],
  };
}
