/** The usual complaints of this trade, as the intake offers them. */
import type { TraitName } from './traits';

/** Of a motorhome, in our base vocabulary; other rigs say it of what they have (rig/complaintsOf.ts). */
export const COMPLAINTS = {
  'coach-not-charging': 'Coach bank does not charge on the road',
  'slow-charging': 'Coach bank charges slowly on the road',
  'boost-dead': 'Boost does nothing',
  'coach-short-life': 'Coach bank does not last the night',
  'house-dead': 'Nothing works in the living space, or it cuts out',
  'chassis-flat': 'Start battery flat after standing',
  'both-flat': 'Both banks flat together',
  'link-always-on': 'The banks never part',
  'link-cycles': 'The link clicks on and off',
  'hot-link': 'Isolator hot, or it smells',
  'chassis-not-charging': 'Start battery does not charge with the engine on',
  'shore-not-charging': 'Coach bank does not charge on shore power',
  'chassis-not-on-shore': 'Start battery does not charge on shore power',
  'fridge-stays-on': 'Fridge stays on 12 V after stopping',
  'fridge-warm': 'Fridge gets warm on the road',
} as const;
export type Complaint = keyof typeof COMPLAINTS;

/** Complaints about something that only some rigs have: offered where one of these traits stands. */
export const COMPLAINT_OF: Readonly<Partial<Record<Complaint, readonly TraitName[]>>> = {
  'boost-dead': ['boost'],
  'house-dead': ['houseLoads'],
  'link-always-on': ['solenoid', 'linkSwitch'],
  'link-cycles': ['solenoid', 'charger'],
  'shore-not-charging': ['mainsCharger'],
  'fridge-stays-on': ['fridge'],
  'fridge-warm': ['fridge'],
};

/** What the owner of a towed car says of it. Common practice. */
export const OF_A_TOWED_CAR: Readonly<Partial<Record<Complaint, string>>> = {
  'coach-not-charging': 'Car dead on arrival',
  'slow-charging': 'Car battery lower on arrival than at the start',
  'both-flat': 'Car battery and start battery flat together',
  'link-always-on': 'The batteries never part',
};
/** Complaints no towed car has: nobody lives in it. */
export const NOT_OF_A_TOWED_CAR: readonly Complaint[] = ['coach-short-life', 'chassis-not-on-shore'];
