/** A plain solenoid: its contact follows the coil with hysteresis. */
import { enter, type ControllerKind } from './controller';

/**
 * Inputs: `coil` volts across the coil. Settings: `pullIn` and `dropOut` volts (usual values for a 12 V
 * continuous-duty coil: under 9 V and 3–5 V; from memory).
 */
export const solenoid: ControllerKind = {
  id: 'solenoid',
  initial: 'open',
  words: { open: 'opens', closed: 'closes' },
  step(mode, inputs, settings, dt) {
    const volts = inputs['coil'] ?? 0;
    const limit = mode.name === 'closed' ? settings['dropOut']! : settings['pullIn']!;
    const held = inputs['held'] === 1;
    const closed = Math.abs(volts) >= limit && !held;
    return {
      mode: enter(mode, closed ? 'closed' : 'open', dt),
      closed: { contact: closed },
      why: held
        ? 'its coil feed is switched off by hand'
        : closed
          ? `coil has ${volts.toFixed(1)} V, enough to hold`
          : `coil has ${volts.toFixed(1)} V, needs ${limit.toFixed(1)} V`,
    };
  },
};
