/**
 * Stages of a charger: bulk at its limit, absorption at its volts until the current has tailed off, float.
 * The part's `stage` choice goes by the name given here: `absorb` or `float`.
 */
import { enter, type ControllerKind, type ControllerStep, type Mode } from './controller';
import { TIMER_SLACK } from './voltageLink';

/** Seconds the current must stay under the tail before float: usual for shop chargers, from memory. */
const TAIL_SECONDS = 1200;
/** Seconds the volts must stay under `rebulk` before it starts over. */
const REBULK_SECONDS = 60;
/** This close to its volts it is in absorption. */
const AT_SETPOINT_VOLTS = 0.08;

export interface StageSettings {
  absorb: number;
  float: number;
  /** A below which absorption has done its work. */
  tail: number;
  /** Longest absorption, s. */
  absorbFor: number;
  /** Volts under which a floating charger starts over. */
  rebulk: number;
  /** Ω by which its own volts give way under current: at its set-point it is in absorption all the same. */
  droop: number;
}

export type Stage = 'bulk' | 'absorption' | 'tail' | 'float' | 'sagging';
const isStage = (name: string): name is Stage => ['bulk', 'absorption', 'tail', 'float', 'sagging'].includes(name);

/** What a charger does at each stage. */
export const STAGE_WORDS = {
  off: 'is off',
  bulk: 'gives all it can',
  absorption: 'holds its volts',
  float: 'floats',
} as const;

export interface StageStep {
  mode: Mode;
  stage: 'absorb' | 'float';
  why: string;
  timer?: number;
}

/**
 * The stage after this one. `mode` is any mode; one that is no stage starts in bulk. The time spent in
 * absorption is not kept through `tail`: a current that dithers there ends by the tail rule.
 */
export function nextStage(mode: Mode, volts: number, amps: number, s: StageSettings, dt: number): StageStep {
  const says = `${volts.toFixed(2)} V, ${amps.toFixed(1)} A`;
  const to = (name: Stage, why: string, timer?: number): StageStep => ({
    mode: enter(mode, name, dt),
    stage: name === 'float' || name === 'sagging' ? 'float' : 'absorb',
    why,
    ...(timer === undefined ? {} : { timer }),
  });
  const now = isStage(mode.name) ? mode.name : 'bulk';
  if (now === 'float' || now === 'sagging') {
    if (volts >= s.rebulk) return to('float', `${says}: floats at ${s.float.toFixed(1)} V`);
    const left = REBULK_SECONDS - enter(mode, 'sagging', dt).seconds;
    return left > TIMER_SLACK
      ? to('sagging', `${says}, under ${s.rebulk.toFixed(1)} V: starts over soon`, left)
      : to('bulk', `${says}, under ${s.rebulk.toFixed(1)} V: starts over`);
  }
  if (volts + s.droop * Math.max(0, amps) < s.absorb - AT_SETPOINT_VOLTS - 0.1 * Number(now !== 'bulk'))
    return to('bulk', `${says}: gives all it can`);
  if (amps < s.tail) {
    const left = TAIL_SECONDS - enter(mode, 'tail', dt).seconds;
    return left > TIMER_SLACK
      ? to('tail', `${says}, under ${s.tail.toFixed(0)} A: floats soon`, left)
      : to('float', `${says}: under ${s.tail.toFixed(0)} A for ${TAIL_SECONDS / 60} min`);
  }
  const left = s.absorbFor - enter(mode, 'absorption', dt).seconds;
  return left > TIMER_SLACK
    ? to('absorption', `${says}: holds ${s.absorb.toFixed(1)} V`, left)
    : to('float', `${says}: absorption has lasted ${(s.absorbFor / 3600).toFixed(1)} h`);
}

/** A mains charger: its stages while there are mains, off without. Inputs: `volts`, `amps` of its output. */
export const chargeStages: ControllerKind = {
  id: 'charge-stages',
  initial: 'off',
  words: STAGE_WORDS,
  step(mode, inputs, settings, dt): ControllerStep {
    if (!inputs['mains'])
      return { mode: enter(mode, 'off', dt), closed: {}, why: 'no shore power', chosen: { stage: 'absorb' } };
    const { setPoint, float, tail, absorbFor, rebulk, droop } = settings as Record<string, number>;
    const { stage, ...step } = nextStage(
      mode,
      inputs['volts'] ?? 0,
      inputs['amps'] ?? 0,
      { absorb: setPoint!, float: float!, tail: tail!, absorbFor: absorbFor!, rebulk: rebulk!, droop: droop! },
      dt,
    );
    return { ...step, closed: {}, chosen: { stage } };
  },
};
