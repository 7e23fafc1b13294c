/**
 * Regulator of a "smart" alternator: charges until the current has tailed off, then holds the system low to
 * save fuel, and charges again when the volts sag. "Engine on" can then not be told from volts alone.
 */
import { enter, type ControllerKind } from './controller';
import { TIMER_SLACK } from './voltageLink';

/** Seconds under the tail before it holds; seconds of sag before it charges again: from memory. */
const TAIL_SECONDS = 600;
const SAG_SECONDS = 30;

/** Inputs: `volts`, `amps` at its output. Settings: `tail` A, `sag` V. The part's `stage` is `charge` or `hold`. */
export const smartRegulator: ControllerKind = {
  id: 'smart-regulator',
  initial: 'charge',
  words: { charge: 'charges', hold: 'holds back to save fuel' },
  step(mode, inputs, settings, dt) {
    const { tail, sag } = settings as { tail: number; sag: number };
    const volts = inputs['volts'] ?? 0;
    const amps = inputs['amps'] ?? 0;
    const to = (name: string, why: string, timer?: number) => ({
      mode: enter(mode, name, dt),
      closed: {},
      chosen: { stage: name === 'hold' || name === 'sagging' ? 'hold' : 'charge' },
      why,
      ...(timer === undefined ? {} : { timer }),
    });
    const says = `${volts.toFixed(2)} V, ${amps.toFixed(0)} A`;
    if (amps <= 0 && mode.name !== 'hold' && mode.name !== 'sagging') return to('charge', 'engine off');
    if (mode.name === 'hold' || mode.name === 'sagging') {
      if (volts >= sag) return to('hold', `${says}: batteries taken for full`);
      const left = SAG_SECONDS - enter(mode, 'sagging', dt).seconds;
      return left > TIMER_SLACK ? to('sagging', says, left) : to('charge', `${says}, under ${sag.toFixed(1)} V`);
    }
    if (amps >= tail) return to('charge', says);
    const left = TAIL_SECONDS - enter(mode, 'tail', dt).seconds;
    return left > TIMER_SLACK
      ? to('tail', says, left)
      : to('hold', `${says}: under ${tail.toFixed(0)} A for ${TAIL_SECONDS / 60} min`);
  },
};
