/**
 * Ignition-delay module: some seconds after the ignition lead comes live it feeds the link's coil, and lets
 * go when the ignition does. It does not look at volts: with the key on and the engine off it closes too.
 */
import { enter, type ControllerKind } from './controller';

/** Below this the module's own electronics do not run. From memory: usual 12 V modules work down to 8–9 V. */
const RUNS_ABOVE_VOLTS = 8.5;

/** Inputs: `supply` volts at the ignition terminal. Settings: `delay` seconds (20–30 s, common practice). */
export const ignitionDelay: ControllerKind = {
  id: 'ignition-delay',
  initial: 'off',
  words: { off: 'opens', timing: 'counts its delay', on: 'feeds the coil' },
  step(mode, inputs, settings, dt) {
    const supply = inputs['supply'] ?? 0;
    const delay = settings['delay']!;
    if (supply < RUNS_ABOVE_VOLTS) {
      return {
        mode: enter(mode, 'off', dt),
        closed: { output: false },
        why: `ignition lead has ${supply.toFixed(1)} V`,
      };
    }
    if (mode.name === 'on') {
      return {
        mode: enter(mode, 'on', dt),
        closed: { output: true },
        why: `on since its ${delay.toFixed(0)} s ran out`,
      };
    }
    const timing = enter(mode, 'timing', dt);
    // Half a millisecond of slack: adding up steps must not make a timer ring twice.
    if (timing.seconds >= delay - 5e-4) {
      return { mode: { name: 'on', seconds: 0 }, closed: { output: true }, why: `its ${delay.toFixed(0)} s ran out` };
    }
    return {
      mode: timing,
      closed: { output: false },
      why: `waiting, ${timing.seconds.toFixed(0)} of ${delay.toFixed(0)} s`,
      timer: delay - timing.seconds,
    };
  },
};
