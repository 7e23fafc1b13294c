/** What a bench can have between its two batteries: the way the trade is taught, one unit on clips. */
export const BENCH_UNITS = [
  { id: 'dcdc', label: 'DC-DC charger', says: 'Charges battery 2 from battery 1, while its key clip is live' },
  { id: 'dual', label: 'Dual-input charger', says: 'The same, and a trickle back to battery 1 once battery 2 is full' },
  { id: 'delay', label: 'Delay module and solenoid', says: 'Closes some seconds after the key clip is live' },
  { id: 'one-way', label: 'One-way module and solenoid', says: 'Closes while battery 1 is charged' },
  { id: 'two-way', label: 'Two-way module and solenoid', says: 'Closes while either battery is charged' },
  {
    id: 'differential',
    label: 'Differential maintainer',
    says: 'Gives battery 1 while battery 2 stands well above it',
  },
  { id: 'triggered', label: 'Maintainer by volts', says: 'Starts once battery 2 is charged past 13.6 V' },
  { id: 'diode-lamp', label: 'Diode and lamp', says: 'A diode and a headlamp bulb toward battery 1' },
  { id: 'diodes', label: 'Diode isolator', says: 'One diode to each battery, fed by the shop charger' },
] as const;
export type BenchUnit = (typeof BENCH_UNITS)[number]['id'];
