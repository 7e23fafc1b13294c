/**
 * How a reading is taken so that it means something: said at the moment it is asked for. A row is a piece of
 * meter technique and when it applies. All common practice, no source.
 */
import { operatingState } from '../operate/states';
import { is, isOneOf } from '../parts/kinds';
import type { Part, Rig } from '../rig/schema';
import type { Measurement } from './measurement';

/** A measurement, with the part its red lead is on and the terminal there; no part for a clamp or a ground. */
interface At {
  kind: Measurement['kind'];
  part: Part | undefined;
  terminal: string;
}

interface TechniqueRow {
  when(m: At, state: string): boolean;
  says: string;
}

const onSense = (m: At): boolean => m.terminal.includes('sense');
/** A wire or terminal of what tells the link to close. */
const onControl = (m: At): boolean =>
  isOneOf(m.part, ['module', 'boost', 'ignition', 'linkSwitch']) ||
  (is(m.part, 'solenoid') && m.terminal.startsWith('coil'));
const onPost = (m: At): boolean => is(m.part, 'battery') && m.terminal !== 'minus';
const onStud = (m: At): boolean => isOneOf(m.part, ['solenoid', 'fuse', 'disconnect']);
const flows = (state: string) => {
  const { engine, shore, generator, boost } = operatingState(state).inputs;
  return engine !== 'off' || shore || generator || boost;
};

export const TECHNIQUE: readonly TechniqueRow[] = [
  {
    when: (m, s) => m.kind === 'drop' && flows(s),
    says: 'Leads on the two ends of the same piece, while it carries current. No current, no drop: note the amps too.',
  },
  {
    when: (m, s) => m.kind === 'drop' && !flows(s),
    says: 'With no current a sound piece shows nothing: what shows here is an open contact or a leak.',
  },
  {
    when: (m) => m.kind === 'drop' && m.terminal === 'minus',
    says: 'The return gets the same drop test as the feed: post to bolt, not clamp to bolt.',
  },
  {
    when: (m) => m.kind === 'clamp',
    says: 'DC range, zeroed where you’ll clamp with the jaws shut; one conductor only; look which way the arrow points.',
  },
  {
    when: (m, s) => m.kind === 'clamp' && s === 'rested',
    says: 'Wait until modules sleep (20 to 60 min). Never break the circuit: pulling a fuse wakes them.',
  },
  {
    when: (m, s) => m.kind === 'volts' && onPost(m) && s === 'rested',
    says:
      'Post, not clamp. Rested volts mean charge only with the surface ' +
      'charge gone: hours after charging, or lights on two minutes and wait.',
  },
  {
    when: (m, s) => m.kind === 'volts' && onPost(m) && s !== 'rested',
    says: 'Post, not clamp. Under load or charge these volts are not a state of charge.',
  },
  {
    when: (m) => m.kind === 'volts' && onControl(m) && !onSense(m),
    says: 'A 10 MΩ meter reads 12 V through a green pin: with 4 to 5 A of lamp on it a sound feed falls by less than 0.5 V.',
  },
  {
    when: (m) => m.kind === 'volts' && onSense(m),
    says: 'No test lamp on a sense wire. Compare it with the post it should see, within seconds.',
  },
  {
    when: (m, s) => m.kind === 'volts' && onStud(m) && flows(s),
    says: 'Two studs that will be compared: within seconds of each other.',
  },
  {
    when: (m) => m.kind === 'volts' && m.terminal === 'minus',
    says: 'Millivolts: tip on bare metal, black lead on an unused ground bolt.',
  },
  {
    when: (m) => is(m.part, 'alternator') && m.terminal === 'output',
    says: 'The stud is live with the engine off as well. Hands and leads clear of belt and fan.',
  },
];

/** Everything that holds for a reading on this rig, most telling first. */
export function allTechniqueFor(
  rig: Pick<Rig, 'parts'>,
  { kind, red }: Pick<Measurement, 'kind' | 'red'>,
  state: string,
): string[] {
  const [owner, terminal] = red.split('.');
  const at: At = { kind, part: rig.parts.find((p) => p.id === owner), terminal: terminal ?? '' };
  return TECHNIQUE.filter((row) => row.when(at, state)).map((row) => row.says);
}

/** What to mind for it: two lines at the most. */
export const techniqueFor = (rig: Pick<Rig, 'parts'>, m: Pick<Measurement, 'kind' | 'red'>, state: string): string[] =>
  allTechniqueFor(rig, m, state).slice(0, 2);

/** Before the first reading of a job. */
export const PROVE_THE_METER =
  'Prove the meter on a source you know, before and after. Red jack back in volts before a stud is touched.';
