/**
 * Second of two mains chargers in parallel: it stands by while the first holds the bank up, joins when the
 * bank stays low, and stands by again once the current tails off. An idle one is no fault.
 */
import { nextStage, STAGE_WORDS } from './chargeStages';
import { enter, type ControllerKind, type ControllerStep } from './controller';
import { TIMER_SLACK } from './voltageLink';

/** Seconds the bank must stay low before the second one joins: from memory. */
const JOINS_AFTER_SECONDS = 120;

/** Inputs: `volts`, `amps` of its output. Settings: those of charge stages, and constant `joinBelow` volts. */
export const standbyCharger: ControllerKind = {
  id: 'standby-charger',
  initial: 'off',
  words: { ...STAGE_WORDS, 'standing-by': 'stands by' },
  step(mode, inputs, settings, dt): ControllerStep {
    const idle = (name: string, why: string, timer?: number): ControllerStep => ({
      mode: enter(mode, name, dt),
      closed: {},
      chosen: { power: 'standby', stage: 'absorb' },
      why,
      ...(timer === undefined ? {} : { timer }),
    });
    if (!inputs['mains']) return idle('off', 'no shore power');
    const { setPoint, float, tail, absorbFor, rebulk, droop, joinBelow } = settings as Record<string, number>;
    const volts = inputs['volts'] ?? 0;
    if (['off', 'standing-by', 'joining'].includes(mode.name)) {
      if (volts >= joinBelow!)
        return idle('standing-by', `bank at ${volts.toFixed(2)} V: the other charger carries it`);
      const left = JOINS_AFTER_SECONDS - enter(mode, 'joining', dt).seconds;
      if (left > TIMER_SLACK)
        return idle('joining', `bank at ${volts.toFixed(2)} V, under ${joinBelow!.toFixed(1)} V: joins soon`, left);
    }
    const { stage, ...step } = nextStage(
      mode,
      volts,
      inputs['amps'] ?? 0,
      { absorb: setPoint!, float: float!, tail: tail!, absorbFor: absorbFor!, rebulk: rebulk!, droop: droop! },
      dt,
    );
    if (step.mode.name === 'tail' || step.mode.name === 'float')
      return idle('standing-by', `${step.why}: leaves the rest to the other`);
    return { ...step, closed: {}, chosen: { power: 'on', stage } };
  },
};
