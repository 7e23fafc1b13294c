/** Faults of what hangs on a charge line beside the bank. Priors, minutes and money are assumed; the wording is common practice. */
import type { PartFault } from '../fault';

const GAS = 'Gas off at the bottle first: it may light by itself.';

export const AUTOMATIC_FRIDGE_FAULTS: readonly PartFault[] = [
  {
    id: 'trigger-lost',
    wire: { end: 'to', terminal: 'trigger' },
    name: 'Trigger wire of the fridge open',
    effects: [{ do: 'open', element: '' }],
    prior: 2,
    explains: ['fridge-warm'],
    repair: 'Repair the fridge’s trigger wire',
    minutes: [20, 75],
    parts: [2, 15],
    shows: 'engine running, nothing on the trigger, and the fridge stays on gas or off',
    confirm: 'volts at the trigger terminal against the fridge’s minus, engine running',
    caution: GAS,
  },
  {
    id: 'element-open',
    name: '12 V element of the {owner} burned out',
    effects: [{ do: 'open', element: 'element' }],
    prior: 1.5,
    explains: ['fridge-warm'],
    repair: 'Replace the 12 V element',
    minutes: [60, 120],
    parts: [40, 120],
    shows: 'full volts on the element’s terminals and no amps',
    confirm: 'clamp on its feed, engine running; then ohms of the element, its wires off',
    caution: GAS,
  },
  {
    id: 'stays-on',
    name: 'Relay of the {owner} stuck closed',
    effects: [{ do: 'stuck-closed', element: 'element' }],
    prior: 1,
    explains: ['fridge-stays-on', 'chassis-flat', 'both-flat', 'coach-short-life'],
    repair: 'Replace the fridge’s 12 V relay or its control board',
    minutes: [40, 90],
    parts: [20, 160],
    shows: 'amps in the fridge’s feed with its trigger dead',
    confirm: 'clamp on its feed with the engine off, the trigger at 0 V',
    caution: GAS,
  },
];
