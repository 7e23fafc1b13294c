/** What one chooses to have two coupled vehicles drawn up: the choices with the words a screen shows. */
import type { BankChoice } from './choicesSchema';
import type { LinkRow } from './links';

export const COUPLED_FAMILIES = [
  { id: 'trailer', label: 'Truck and trailer', says: 'Travel trailer, fifth-wheel, caravan: a battery in each' },
  { id: 'camper', label: 'Truck and slide-in camper', says: 'The connector sits between bed and camper' },
  { id: 'towed-car', label: 'Motorhome and towed car', says: 'The car’s own battery drains while it is towed' },
  {
    id: 'second-battery',
    label: 'Van, second battery, trailer',
    says: 'An accessory battery on its own charger feeds the trailer',
  },
  { id: 'trailer-48', label: '48 V trailer', says: 'A 48 V bank behind a 12 V vehicle, brakes on their own 12 V feed' },
] as const;

export const COUPLED_LINKS = [
  {
    id: 'thin-line',
    label: 'Factory charge line',
    school: 'thin',
    says: 'The connector’s charge pin, as the vehicle came',
    for: ['trailer', 'camper', 'towed-car'],
  },
  {
    id: 'voltage-relay',
    label: 'Charge line, voltage relay',
    school: 'sensed',
    says: 'A relay behind closes while the line is being charged',
    for: ['trailer', 'camper'],
  },
  {
    id: 'heavy-line',
    label: 'Heavy line and solenoid',
    school: 'direct',
    says: 'Own cable, high-current connector, solenoid by the ignition',
    for: ['trailer', 'camper'],
  },
  {
    id: 'dcdc-pin',
    label: 'Small DC-DC on the pin',
    school: 'regulated',
    amps: { usual: [12] },
    says: 'A low-current charger made for thin pins',
    for: ['trailer', 'camper', 'towed-car'],
  },
  {
    id: 'dcdc',
    label: 'DC-DC charger, own cable',
    school: 'regulated',
    amps: { usual: [25, 40], 'second-battery': [12, 25, 40], 'trailer-48': [12, 15, 20] },
    says: 'Own cable and high-current connector to a charger at the bank',
    for: ['trailer', 'camper', 'trailer-48', 'second-battery'],
  },
  {
    id: 'dcdc-dual',
    label: 'Dual-input charger, own cable',
    school: 'regulated',
    amps: { usual: [30] },
    says: 'One charger for the vehicle and the panels; keeps the start battery up once the bank is full',
    for: ['trailer', 'camper'],
  },
  {
    id: 'chained',
    label: 'DC-DC from the accessory battery',
    school: 'regulated',
    amps: { usual: [25] },
    says: 'The trailer’s charger is fed from a battery that another charger is charging',
    for: ['second-battery'],
  },
  {
    id: 'diode-lamp',
    label: 'Diode and lamp',
    school: 'small',
    says: 'A fuse, a diode and a headlamp bulb as limiter',
    for: ['towed-car'],
  },
] as const satisfies readonly (LinkRow & { for: readonly string[] })[];
export type CoupledFamily = (typeof COUPLED_FAMILIES)[number]['id'];
export type CoupledLink = (typeof COUPLED_LINKS)[number]['id'];

export const linksFor = (family: CoupledFamily): readonly (typeof COUPLED_LINKS)[number][] =>
  COUPLED_LINKS.filter((l) => (l.for as readonly string[]).includes(family));

/** A of the charger that fills a van's accessory battery, where nobody says: usual. */
export const USUAL_VAN_AMPS = 25;

/** A motorhome’s house bank, where nobody says: four 6 V blocks. */
export const USUAL_HOUSE: BankChoice = { chemistry: 'flooded', layout: 'series-parallel', capacity: 440 };
