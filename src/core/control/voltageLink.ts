/**
 * One-way voltage-sensing link: closes once the chassis has been above its threshold for a moment, opens
 * when it falls, so that the link never drags the start battery down.
 */
import { enter, type ControllerKind } from './controller';

/** Below this the module's own electronics do not run. From memory: usual 12 V modules work down to 8–9 V. */
export const RUNS_ABOVE_VOLTS = 8.5;
/** Half a millisecond of slack: adding up steps must not make a timer ring twice. */
export const TIMER_SLACK = 5e-4;

/**
 * Inputs: `chassis` volts. Settings: `closeAt` and `openAt` volts (13.0–13.3 and 12.8–12.9, common
 * practice), `hold` seconds a threshold must be passed for, both ways.
 */
export const voltageLink: ControllerKind = {
  id: 'voltage-link',
  initial: 'open',
  words: { open: 'opens', closed: 'feeds the coil' },
  step(mode, inputs, settings, dt) {
    const volts = inputs['chassis'] ?? 0;
    const { closeAt, openAt, hold } = settings as { closeAt: number; openAt: number; hold: number };
    const open = (name: string, why: string, timer?: number) => ({
      mode: enter(mode, name, dt),
      closed: { output: false },
      why,
      ...(timer === undefined ? {} : { timer }),
    });
    const shut = (name: string, why: string, timer?: number) => ({
      mode: enter(mode, name, dt),
      closed: { output: true },
      why,
      ...(timer === undefined ? {} : { timer }),
    });
    const says = `chassis has ${volts.toFixed(2)} V`;
    if (volts < RUNS_ABOVE_VOLTS) return open('open', `${says}: too little to run on`);
    if (mode.name === 'closed' || mode.name === 'letting-go') {
      if (volts >= openAt) return shut('closed', `${says}, above ${openAt.toFixed(2)} V`);
      const left = hold - enter(mode, 'letting-go', dt).seconds;
      return left <= TIMER_SLACK
        ? open('open', `${says}, under ${openAt.toFixed(2)} V long enough`)
        : shut('letting-go', `${says}, under ${openAt.toFixed(2)} V: opens soon`, left);
    }
    if (volts < closeAt) return open('open', `${says}, needs ${closeAt.toFixed(2)} V`);
    const left = hold - enter(mode, 'watching', dt).seconds;
    return left <= TIMER_SLACK
      ? shut('closed', `${says}, above ${closeAt.toFixed(2)} V long enough`)
      : open('watching', `${says}, above ${closeAt.toFixed(2)} V: closes soon`, left);
  },
};
