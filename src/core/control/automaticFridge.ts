/**
 * A three-way refrigerator that chooses by itself: 12 V while its trigger says that an engine runs, mains where there
 * is mains, else gas. After the trigger goes dead it waits before it lights the gas, so that nobody's fuel stop does.
 */
import { enter, type ControllerKind } from './controller';

/** V on the trigger from which it takes an engine to run. From memory: such inputs are made for a charging circuit. */
const ENGINE_ABOVE_VOLTS = 10.5;
/** Seconds without a trigger before it lights gas: common practice. */
export const GAS_WAIT_SECONDS = 15 * 60;

/** Input: `trigger` volts. The element stays on while the mode is `battery`. */
export const automaticFridge: ControllerKind = {
  id: 'automatic-fridge',
  initial: 'gas',
  words: { battery: 'goes to 12 V', waiting: 'lets go of 12 V and waits to light gas', gas: 'goes to gas' },
  step(mode, inputs, _, dt) {
    const trigger = inputs['trigger'] ?? 0;
    if (trigger >= ENGINE_ABOVE_VOLTS)
      return {
        mode: enter(mode, 'battery', dt),
        closed: { element: true },
        why: `on 12 V: its trigger has ${trigger.toFixed(1)} V`,
      };
    if (mode.name === 'gas')
      return { mode: enter(mode, 'gas', dt), closed: { element: false }, why: 'on gas or off: nothing on its trigger' };
    const waiting = enter(mode, 'waiting', dt);
    // Half a millisecond of slack: adding up steps must not make a timer ring twice.
    if (waiting.seconds >= GAS_WAIT_SECONDS - 5e-4)
      return {
        mode: { name: 'gas', seconds: 0 },
        closed: { element: false },
        why: 'on gas: its quarter of an hour is over',
      };
    return {
      mode: waiting,
      closed: { element: false },
      why: `neither 12 V nor gas yet: ${Math.round(waiting.seconds / 60)} of ${GAS_WAIT_SECONDS / 60} min`,
      timer: GAS_WAIT_SECONDS - waiting.seconds,
    };
  },
};
