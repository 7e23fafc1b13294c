import type { TraitName } from './traits';

/** The usual complaints of this trade, as the intake offers them. */
export const COMPLAINTS = {
  'coach-not-charging': 'Coach bank does not charge on the road',
  'slow-charging': 'Coach bank charges slowly on the road',
  'boost-dead': 'Boost does nothing',
  'coach-short-life': 'Coach bank does not last the night',
  'house-dead': 'Nothing works in the living space',
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

/** Complaints about a part that only some rigs have: offered where it stands. */
export const COMPLAINT_OF: Readonly<Partial<Record<Complaint, TraitName>>> = {
  'fridge-stays-on': 'fridge',
  'fridge-warm': 'fridge',
};
