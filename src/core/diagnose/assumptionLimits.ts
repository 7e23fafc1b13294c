/** Which assumptions of the diagnosis a shop sets for itself, with words, unit and limits. */
import type { Assumptions } from './assumptions';

export interface AssumptionSpec {
  label: string;
  /** What it does, for the person who sets it. */
  says: string;
  unit: '%' | 'min' | '×';
  /** Shown = stored × times. */
  times: number;
  min: number;
  max: number;
}

export type EditableAssumption = Exclude<
  keyof Assumptions,
  | 'blunderKinds'
  | 'openMinutes'
  | 'priorFactors'
  | 'modelCapVolts'
  | 'modelFloorVolts'
  | 'mostClaimed'
  | 'loadsStrayAmps'
  | 'unknownShare'
  | 'slipsTwice'
  | 'soundAt'
  | 'directAt'
>;

export const ASSUMPTION_LIMITS: Readonly<Record<EditableAssumption, AssumptionSpec>> = {
  blunderShare: {
    label: 'Readings that are slips',
    says: 'Wrong probe, lead not touching, slip of the pen. More: no single reading convinces.',
    unit: '%',
    times: 100,
    min: 0.002,
    max: 0.3,
  },
  modelShare: {
    label: 'Model off by, in volts',
    says: 'How far a sound rig’s drop may be from the computed one beyond all spreads.',
    unit: '%',
    times: 100,
    min: 0,
    max: 0.3,
  },
  modelShareAmps: {
    label: 'Model off by, in amps',
    says: 'The same for currents.',
    unit: '%',
    times: 100,
    min: 0,
    max: 0.5,
  },
  spreadFactor: {
    label: 'Spreads taken wider by',
    says: 'People state spreads too narrow: everything uncertain is taken this many times wider.',
    unit: '×',
    times: 1,
    min: 1,
    max: 3,
  },
  unexplained: {
    label: 'A fault that does not explain a complaint keeps',
    says: 'Less: the complaint is taken at its word.',
    unit: '%',
    times: 100,
    min: 0.02,
    max: 1,
  },
  asDesigned: {
    label: '“Nothing is wrong” keeps, for each complaint',
    says: 'More: a rig somebody complains of is taken to be sound more readily.',
    unit: '%',
    times: 100,
    min: 0.02,
    max: 1,
  },
  wrongCallMinutes: {
    label: 'A wrong call costs',
    says: 'A part fitted for nothing and the way back. More: more is measured before stopping.',
    unit: 'min',
    times: 1,
    min: 5,
    max: 600,
  },
  bitMinutes: {
    label: 'A bit of information is worth',
    says: 'Halving what is still open, beyond the wrong calls it saves at once. More: more is measured.',
    unit: 'min',
    times: 1,
    min: 1,
    max: 120,
  },
  returnMinutes: {
    label: 'Back to a place already open',
    says: 'Minutes to go back to where one has been.',
    unit: 'min',
    times: 1,
    min: 0,
    max: 10,
  },
  confirmAt: {
    label: 'Confirmed when still above',
    says: 'The verdict must stay above this with any one reading left out.',
    unit: '%',
    times: 100,
    min: 0.5,
    max: 0.98,
  },
};
