/** What a module's output lets through while it is off. */
import { assumed, type ParameterSpec } from '../units/parameter';
import { param, type ElementSpec } from './part';

/**
 * Ω of an output stage that is off: a coil on it takes this down to nothing, a meter on an open wire does not, and reads
 * the feed's volts there. Common practice that it does; the size from memory (thousands to hundreds of thousands).
 */
export const leakOhms: ParameterSpec = {
  unit: 'ohm',
  scale: 'ratio',
  label: 'Leak of its output when off',
  min: 100,
  max: 1e8,
  default: assumed(30_000, 0.8, 'from memory'),
};

/** The leak from the terminal that feeds a module's output to its output. */
export const driverLeak = (id: string, feed: string): ElementSpec => ({
  kind: 'resistor',
  id,
  a: feed,
  b: 'output',
  ohms: param('leak'),
});
