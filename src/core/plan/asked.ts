/** What a screen asks about links, and what it gets to choose from. Types only. */
import type { Leg, Scenario } from '../simulate/scenarioSchema';
import type { Candidate } from './candidates';
import type { Trouble } from './troubles';

export interface OptionList {
  candidates: Candidate[];
  usual: string[];
  scenarios: Scenario[];
  /** The bank that is lived from, if there is one. */
  house?: { id: string; name: string };
  batteries: { id: string; name: string }[];
  /** What of rig and use cannot be simulated, told at its place. */
  troubles: Trouble[];
}

export type Question =
  | { ask: 'how-long'; kind: 'drive' | 'idle' | 'shore'; from: number; to: number }
  | { ask: 'how-late'; driveHours: number; from: number; to: number }
  | { ask: 'how-long-stands' }
  | { ask: 'how-long-lasts'; from: number; floor: number }
  | { ask: 'generator-cranks'; from: number };

export interface Asked {
  candidate: string;
  question: Question;
  celsius: number;
  loads: Leg['loads'];
}
