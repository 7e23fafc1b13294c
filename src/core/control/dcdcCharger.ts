/**
 * DC-DC charger: whether it runs (enable, engine detection, input lockout) and at which stage.
 *
 * Enabled by a wire it starts as soon as the wire is live; enabled by volts, once its input has been above
 * `on` for `delay`, and stops below `off`. Whatever enables it, an input under `lockout` stops it until the
 * input is above `restart` again: on a feed too thin for its power that is hunting.
 */
import { nextStage, STAGE_WORDS, type StageSettings } from './chargeStages';
import { enter, type ControllerKind, type ControllerStep } from './controller';
import { RUNS_ABOVE_VOLTS, TIMER_SLACK } from './voltageLink';

/** Seconds an input must be out of bounds before it counts, and before it is tried again: from memory. */
const LOCKOUT_SECONDS = 3;
const RESTART_SECONDS = 10;

interface DcdcSettings extends StageSettings {
  byVolts: number;
  stages: number;
  on: number;
  off: number;
  delay: number;
  lockout: number;
  restart: number;
}

/**
 * Inputs: `input`, `enable`, `output` volts to its ground, `amps` it gives. Settings: `on`/`off` volts and
 * `delay` (14.0 V, 13.1–13.5 V, 120 s: common practice), `lockout`/`restart` volts (12.0–12.5, 12.7–12.8:
 * common practice), the stages' own; `byVolts` 1 for voltage sensing, `stages` 0 for a fixed-voltage supply.
 */
export const dcdcCharger: ControllerKind = {
  id: 'dcdc-charger',
  initial: 'off',
  words: {
    ...STAGE_WORDS,
    waiting: 'waits to be sure the engine runs',
    'locked-out': 'locks itself out',
    recovering: 'tries again',
    supply: 'supplies',
  },
  // eslint-disable-next-line complexity -- a state machine, read as one: a mode a line
  step(mode, inputs, settings, dt): ControllerStep {
    const s = settings as unknown as DcdcSettings;
    const input = inputs['input'] ?? 0;
    const running = ['bulk', 'absorption', 'tail', 'float', 'sagging', 'input-low', 'letting-go', 'supply'].includes(
      mode.name,
    );
    const off = (name: string, why: string, timer?: number): ControllerStep => ({
      mode: enter(mode, name, dt),
      closed: {},
      chosen: { power: 'off', stage: 'absorb' },
      why,
      ...(timer === undefined ? {} : { timer }),
    });
    /** Goes on as it was while something is timed. */
    const still = (name: string, why: string, timer: number): ControllerStep => ({
      mode: enter(mode, name, dt),
      closed: {},
      chosen: { power: 'on' },
      why,
      timer,
    });
    const says = `input ${input.toFixed(2)} V`;
    if (inputs['held'] === 1) return off('off', 'switched off by hand');
    if (input < RUNS_ABOVE_VOLTS && !running) return off('off', `${says}: too little to run on`);
    const wired = s.byVolts ? input >= (running ? s.off : s.on) : (inputs['enable'] ?? 0) > RUNS_ABOVE_VOLTS;

    if (running) {
      if (input < s.lockout) {
        const left = LOCKOUT_SECONDS - enter(mode, 'input-low', dt).seconds;
        return left > TIMER_SLACK
          ? still('input-low', `${says}, under ${s.lockout.toFixed(1)} V: stops soon`, left)
          : off('locked-out', `${says}: under ${s.lockout.toFixed(1)} V, locked out`);
      }
      if (!wired) {
        if (!s.byVolts) return off('off', 'its enable wire is dead');
        const left = LOCKOUT_SECONDS - enter(mode, 'letting-go', dt).seconds;
        return left > TIMER_SLACK
          ? still('letting-go', `${says}, under ${s.off.toFixed(1)} V: stops soon`, left)
          : off('off', `${says}: under ${s.off.toFixed(1)} V, engine taken for off`);
      }
    } else {
      if (!wired) return off('off', s.byVolts ? `${says}: waits for ${s.on.toFixed(1)} V` : 'not enabled');
      if (mode.name === 'locked-out' || mode.name === 'recovering') {
        if (input < s.restart) return off('locked-out', `${says}: locked out until ${s.restart.toFixed(1)} V`);
        const left = RESTART_SECONDS - enter(mode, 'recovering', dt).seconds;
        if (left > TIMER_SLACK)
          return off('recovering', `${says}: above ${s.restart.toFixed(1)} V, starts again soon`, left);
      } else if (input < s.lockout) return off('off', `${says}: under its lockout of ${s.lockout.toFixed(1)} V`);
      else if (s.byVolts) {
        const left = s.delay - enter(mode, 'waiting', dt).seconds;
        if (left > TIMER_SLACK)
          return off('waiting', `${says}, above ${s.on.toFixed(1)} V: starts after ${s.delay.toFixed(0)} s`, left);
      }
    }
    if (!s.stages)
      return {
        mode: enter(mode, 'supply', dt),
        closed: {},
        chosen: { power: 'on', stage: 'absorb' },
        why: `${says}: holds ${s.absorb.toFixed(1)} V as a supply`,
      };
    const { stage, ...step } = nextStage(mode, inputs['output'] ?? 0, inputs['amps'] ?? 0, s, dt);
    return { ...step, closed: {}, chosen: { power: 'on', stage }, why: `${says}; output ${step.why}` };
  },
};
