/** Faults of DC-DC chargers. Priors, minutes and money are assumed; the wording is common practice. */
import type { PartFault } from '../fault';

const NOT_CHARGING = ['coach-not-charging'] as const;

export const DCDC_FAULTS: readonly PartFault[] = [
  {
    id: 'dead',
    name: '{owner} dead',
    effects: [{ do: 'dead-controller' }],
    prior: 4,
    explains: NOT_CHARGING,
    repair: 'Replace the charger',
    shows: 'input, enable and ground are there, but no output',
    confirm: 'input and output volts, enable live, negative proved: power at both ends wakes some',
    minutes: [45, 90],
    parts: [150, 500],
  },
  {
    id: 'negative-missing',
    wire: { end: 'from', terminal: 'ground' },
    name: 'Negative of the DC-DC charger missing',
    effects: [{ do: 'open', element: '' }],
    prior: 4,
    explains: NOT_CHARGING,
    repair: 'Run or remake the charger’s negative',
    shows: 'looks like a dead unit',
    confirm: 'input volts to the charger’s own negative stud, not to the frame',
    minutes: [20, 45],
    parts: [5, 20],
  },
  {
    id: 'profile-low',
    name: '{owner} set for another battery: too low',
    // Between the profile of one chemistry and a fixed-voltage supply: common practice, the size from memory.
    effects: [{ do: 'shift-param', param: 'absorb', from: -0.5, to: -1.6 }],
    prior: 3,
    explains: ['slow-charging', 'coach-short-life'],
    repair: 'Set the profile for this bank and prove it with the meter',
    shows: 'the output stops rising short of what this bank wants',
    confirm:
      'its switches against the unit’s own table (“on” may be down), then the output’s volts on a nearly full bank',
    minutes: [10, 30],
    parts: [0, 0],
  },
  {
    id: 'profile-high',
    name: '{owner} set for another battery: too high',
    effects: [{ do: 'shift-param', param: 'absorb', from: 0.3, to: 1.2 }],
    prior: 2,
    explains: ['hot-link'],
    repair: 'Set the profile for this bank and prove it with the meter',
    shows: 'the output rises above what this battery is rated for',
    confirm:
      'its switches against the unit’s own table (“on” may be down), then the output’s volts on a nearly full bank',
    minutes: [10, 30],
    parts: [0, 0],
    caution: 'Too many volts boil a lead-acid bank and trip a lithium one’s BMS: stop charging until it is set.',
  },
  {
    id: 'derated',
    name: '{owner} holds back: too hot',
    effects: [{ do: 'scale-param', param: 'limit', from: 0.55, to: 0.15 }],
    prior: 2,
    explains: ['slow-charging'],
    repair: 'Give the charger air: stand-off, fins free, nothing laid on it',
    shows: 'full amps cold, a fraction of them half an hour later',
    confirm: 'clamp on its output cold and again after half an hour on a low bank; its case too hot to hold',
    minutes: [20, 45],
    parts: [5, 20],
    caution: 'Its case may be over 70 °C (160 °F).',
  },
  {
    id: 'not-enabled',
    wire: { end: 'to', terminal: 'enable' },
    name: 'Enable wire of the charger dead',
    effects: [{ do: 'open', element: '' }],
    prior: 5,
    explains: NOT_CHARGING,
    repair: 'Repair the enable wire, on a circuit that is live only in run',
    shows: 'input live, output at bank volts, enable dead',
    confirm: 'enable terminal to the charger’s own negative, key in run',
    minutes: [20, 60],
    parts: [2, 15],
    caution: 'Never tap an airbag, ABS or engine-computer circuit.',
  },
];

export const PANEL_INPUT_FAULTS: readonly PartFault[] = [
  {
    id: 'panels-over-limit',
    name: 'Panels of the {owner} in series: over its limit',
    effects: [{ do: 'scale-param', param: 'panelVolts', from: 1.9, to: 2.1 }],
    prior: 3,
    explains: ['slow-charging'],
    repair: 'Put the panels in parallel: this input has a voltage limit',
    shows: 'no charge from the sun at all',
    confirm: 'open-circuit volts of the panels at the solar input, against its label',
    minutes: [20, 45],
    parts: [10, 40],
    caution: 'Panels in the sun are live: cover them first.',
  },
];
