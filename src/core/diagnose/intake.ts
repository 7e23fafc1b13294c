/**
 * What the owner tells beside the complaint: when it happens, how the rig is used, what was changed before,
 * what they do about it. A row is a fact to tick; it makes some faults likelier or less likely before any
 * reading. All factors are assumed: they start the search, readings end it.
 */
import { COMPLAINTS, type Complaint } from '../parts/complaints';

export interface IntakeFact {
  group: 'when' | 'use' | 'workaround' | 'history';
  says: string;
  /** Factor on the prior by what a fault answers to: its own id, or the trait (and side) of its part before it. */
  weighs: Readonly<Record<string, number>>;
}

export const INTAKE_GROUPS: Readonly<Record<IntakeFact['group'], string>> = {
  when: 'When it happens',
  use: 'How the rig is used',
  workaround: 'What the owner does about it',
  history: 'What happened before',
};

export const INTAKE_FACTS = {
  'after-standing': {
    group: 'when',
    says: 'After standing for weeks',
    weighs: {
      parasitic: 2.5,
      flat: 2,
      sulphated: 1.5,
      wedged: 1.5,
      welded: 1.5,
      'drifted-low': 1.5,
      'always-live': 1.5,
      'left-on': 1.5,
    },
  },
  'after-a-night': {
    group: 'when',
    says: 'After a single night',
    weighs: {
      'left-on': 2,
      sulphated: 2,
      'weak-block': 1.7,
      'weak-in-string': 1.7,
      'open-cell': 1.5,
      wedged: 1.5,
      welded: 1.3,
    },
  },
  'when-hot': {
    group: 'when',
    says: 'Once everything is hot',
    weighs: { loose: 2, weak: 1.5, 'contact-high': 1.5, 'wrong-duty': 1.5, dead: 1.3 },
  },
  'when-wet': {
    group: 'when',
    says: 'In the wet, or after it',
    weighs: { corroded: 2.5, 'bad-joint': 2, 'bad-splice': 2, 'bad-lug': 1.5, 'bad-strap': 1.5 },
  },
  'comes-and-goes': {
    group: 'when',
    says: 'On rough roads; it comes and goes',
    weighs: { 'bad-lug': 2, broken: 2, loose: 2, 'bad-strap': 1.5, worn: 1.5, 'ground-lost': 1.5 },
  },
  suddenly: {
    group: 'when',
    says: 'From one day to the next',
    weighs: {
      open: 1.6,
      'fuse-blown': 1.6,
      'coil-open': 1.5,
      dead: 1.5,
      'contact-open': 1.5,
      'no-output': 1.5,
      broken: 1.5,
      sulphated: 0.5,
      'contact-high': 0.6,
    },
  },
  slowly: {
    group: 'when',
    says: 'Worse month by month',
    weighs: { sulphated: 2, 'contact-high': 1.7, 'bad-joint': 1.5, worn: 1.5, open: 0.5, dead: 0.5, 'fuse-blown': 0.5 },
  },

  'short-drives': {
    group: 'use',
    says: 'Drives of under two hours',
    weighs: { 'nothing-wrong': 1.6, 'battery@coach.flat': 1.5 },
  },
  'many-nights': {
    group: 'use',
    says: 'Several nights off grid at a time',
    weighs: { 'nothing-wrong': 1.4, 'battery@coach.flat': 1.5, sulphated: 1.2 },
  },
  'rented-out': {
    group: 'use',
    says: 'Rented out: everything runs at once',
    weighs: { wedged: 2, 'left-on': 1.6, 'battery@coach.flat': 1.5, 'fuse-blown': 1.4 },
  },
  'stored-unplugged': {
    group: 'use',
    says: 'Stored without shore power',
    weighs: { parasitic: 1.6, flat: 1.7, sulphated: 1.6, 'does-not-open': 1.3 },
  },
  'stored-plugged-in': {
    group: 'use',
    says: 'Stored plugged in',
    weighs: { 'stuck-float': 1.4, 'mainsCharger.no-output': 1.3, 'battery@coach.flat': 0.7 },
  },

  'wedges-boost': {
    group: 'workaround',
    says: 'Wedges or tapes the boost switch',
    weighs: { wedged: 3, 'fuse-blown': 3, 'coil-open': 2, 'contact-high': 2, welded: 2 },
  },
  'boosts-to-start': {
    group: 'workaround',
    says: 'Boosts to start the engine',
    weighs: { 'battery@engine.sulphated': 1.8, 'battery@engine.flat': 1.8, parasitic: 1.7, welded: 0.6 },
  },
  'portable-charger': {
    group: 'workaround',
    says: 'Uses a portable charger',
    weighs: { 'mainsCharger.no-output': 2, 'stuck-float': 1.5 },
  },
  'turns-it-off': {
    group: 'workaround',
    says: 'Turns the disconnect off overnight',
    weighs: { 'left-on': 2, 'battery@coach.sulphated': 1.3 },
  },
  'taps-isolator': {
    group: 'workaround',
    says: 'A tap on the isolator helps',
    weighs: { 'contact-open': 2.5, 'contact-high': 2, 'coil-open': 1.2, 'fuse.open': 0.4 },
  },
  'wiggles-cable': {
    group: 'workaround',
    says: 'Wiggling a cable helps',
    weighs: { 'bad-lug': 3, 'bad-joint': 3, 'bad-strap': 2, loose: 2, broken: 2, 'bad-splice': 1.5 },
  },

  'old-batteries': {
    group: 'history',
    says: 'Batteries over five years old',
    weighs: { sulphated: 2, 'open-cell': 2, 'weak-block': 2, 'weak-in-string': 2 },
  },
  'new-batteries': {
    group: 'history',
    says: 'New batteries within a year',
    weighs: {
      sulphated: 0.4,
      'open-cell': 0.4,
      'weak-block': 0.5,
      'weak-in-string': 0.5,
      'bad-lug': 1.5,
      'bad-joint': 1.3,
    },
  },
  'new-isolator': {
    group: 'history',
    says: 'Isolator replaced before',
    weighs: { 'wrong-duty': 3, 'contact-high': 0.6, 'contact-open': 0.6, 'coil-open': 0.6, 'ground-lost': 1.5 },
  },
  'other-work': {
    group: 'history',
    says: 'Began after other work on the rig',
    weighs: {
      'always-live': 2.5,
      missing: 2,
      'module-ground': 2,
      'ground-lost': 1.7,
      'chassis-sense-open': 1.6,
      'coach-sense-open': 1.6,
      'bad-lug': 1.5,
    },
  },
  'jump-started': {
    group: 'history',
    says: 'Jump-started lately',
    weighs: {
      'fuse.open': 1.7,
      'alternator.no-output': 1.7,
      dead: 1.3,
      'coach-diode-open': 1.5,
      'coach-diode-shorted': 1.5,
    },
  },
} as const satisfies Record<string, IntakeFact>;
export type IntakeFactId = keyof typeof INTAKE_FACTS;
export const INTAKE_FACT_IDS = Object.keys(INTAKE_FACTS) as IntakeFactId[];

/** A complaint or a fact of the intake. */
export type IntakeClue = Complaint | IntakeFactId;
export const isComplaint = (clue: IntakeClue): clue is Complaint => clue in COMPLAINTS;
export const clueSays = (clue: IntakeClue): string => (isComplaint(clue) ? COMPLAINTS[clue] : INTAKE_FACTS[clue].says);
