/**
 * How a reading is taken so that it means something: said at the moment it is asked for. A row is a piece of
 * meter technique and when it applies. All common practice, no source.
 */
import { operatingState } from '../operate/states';
import type { Measurement } from './measurement';

interface TechniqueRow {
  when(m: Pick<Measurement, 'kind' | 'red' | 'black'>, state: string): boolean;
  says: string;
}

const CONTROL = ['delay.', 'boost.', 'ignition.', 'link-switch.', 'link.coil'];
const SENSE = ['sense'];
const BANKS = ['coach-bank.plus', 'chassis-bank.plus', 'coach-bank.middle'];
const STUDS = ['link.', 'link-fuse.', 'disconnect.'];
const starts = (key: string, list: readonly string[]) => list.some((x) => key.startsWith(x));
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
    when: (m) => m.kind === 'drop' && m.red.includes('minus'),
    says: 'The return gets the same drop test as the feed: post to bolt, not clamp to bolt.',
  },
  {
    when: (m) => m.kind === 'clamp',
    says: 'DC range, zeroed on the spot with the jaws shut; one conductor only; look which way the arrow points.',
  },
  {
    when: (m, s) => m.kind === 'clamp' && s === 'rested',
    says: 'Wait until modules sleep (20 to 60 min). Never break the circuit: pulling a fuse wakes them.',
  },
  {
    when: (m, s) => m.kind === 'volts' && BANKS.includes(m.red) && s === 'rested',
    says: 'Post, not clamp. Rested volts mean charge only with the surface charge gone: hours after charging, or lights on two minutes and wait.',
  },
  {
    when: (m, s) => m.kind === 'volts' && BANKS.includes(m.red) && s !== 'rested',
    says: 'Post, not clamp. Under load or charge these volts are not a state of charge.',
  },
  {
    when: (m) => m.kind === 'volts' && starts(m.red, CONTROL) && !SENSE.some((x) => m.red.includes(x)),
    says: 'A 10 MΩ meter reads 12 V through a green pin: with 4 to 5 A of lamp on it a sound feed falls by less than 0.5 V.',
  },
  {
    when: (m) => m.kind === 'volts' && m.red.includes('sense'),
    says: 'No test lamp on a sense wire. Compare it with the post it should see, within seconds.',
  },
  {
    when: (m, s) => m.kind === 'volts' && starts(m.red, STUDS) && flows(s),
    says: 'Two studs that will be compared: within seconds of each other.',
  },
  {
    when: (m) => m.kind === 'volts' && m.red.endsWith('.minus'),
    says: 'Millivolts: tip on bare metal, black lead on a bolt that carries nothing.',
  },
  {
    when: (m) => m.red.startsWith('alternator.output'),
    says: 'The stud is live with the engine off as well. Hands and leads clear of belt and fan.',
  },
];

/** What to mind for a reading, most telling first; two lines at the most. */
export const techniqueFor = (m: Pick<Measurement, 'kind' | 'red' | 'black'>, state: string): string[] =>
  TECHNIQUE.filter((row) => row.when(m, state))
    .map((row) => row.says)
    .slice(0, 2);

/** Before the first reading of a job. */
export const PROVE_THE_METER =
  'Prove the meter on a source you know, before and after. Red jack back in volts before a stud is touched.';
