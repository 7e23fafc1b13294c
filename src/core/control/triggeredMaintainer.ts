/**
 * Voltage-triggered maintainer: a small charger from coach to chassis that starts when the coach is being
 * charged. With the coach bank full and floating under its threshold it waits: right, not a fault.
 */
import { enter, type ControllerKind } from './controller';
import { TIMER_SLACK } from './voltageLink';

const TRIGGER_SECONDS = 5;
/** A under which bulk has done its work, and seconds for which: from memory. */
const TAIL_AMPS = 0.5;
const TAIL_SECONDS = 600;

/** Inputs: `coach` volts, `amps` it gives. Settings: `startAt` (13.6 V, common practice), `stopAt` V of the coach. */
export const triggeredMaintainer: ControllerKind = {
  id: 'triggered-maintainer',
  initial: 'waiting',
  words: {
    waiting: 'waits, lamp red',
    bulk: 'charges the start battery, lamp blue',
    float: 'floats the start battery, lamp green',
  },
  step(mode, inputs, settings, dt) {
    const { startAt, stopAt } = settings as { startAt: number; stopAt: number };
    const coach = inputs['coach'] ?? 0;
    const amps = inputs['amps'] ?? 0;
    const on = mode.name === 'bulk' || mode.name === 'tail' || mode.name === 'float' || mode.name === 'letting-go';
    const says = `coach has ${coach.toFixed(2)} V`;
    const to = (name: string, why: string, timer?: number) => ({
      mode: enter(mode, name, dt),
      closed: {},
      chosen: {
        power: name === 'waiting' || name === 'watching' ? 'off' : 'on',
        stage: name === 'float' ? 'float' : 'absorb',
      },
      why,
      ...(timer === undefined ? {} : { timer }),
    });
    if (!on) {
      if (coach < startAt) return to('waiting', `${says}: waits for ${startAt.toFixed(1)} V`);
      const left = TRIGGER_SECONDS - enter(mode, 'watching', dt).seconds;
      return left > TIMER_SLACK ? to('watching', says, left) : to('bulk', `${says}, over ${startAt.toFixed(1)} V`);
    }
    if (coach < stopAt) {
      const left = TRIGGER_SECONDS - enter(mode, 'letting-go', dt).seconds;
      return left > TIMER_SLACK
        ? to('letting-go', `${says}, under ${stopAt.toFixed(1)} V`, left)
        : to('waiting', `${says}, under ${stopAt.toFixed(1)} V`);
    }
    if (mode.name === 'float') return to('float', `${says}; floats`);
    if (amps >= TAIL_AMPS) return to('bulk', `${says}; gives ${amps.toFixed(1)} A`);
    const left = TAIL_SECONDS - enter(mode, 'tail', dt).seconds;
    return left > TIMER_SLACK
      ? to('tail', `${says}; gives ${amps.toFixed(1)} A`, left)
      : to('float', `gives ${amps.toFixed(1)} A: done`);
  },
};
