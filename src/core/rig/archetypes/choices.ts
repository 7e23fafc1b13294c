/** What one chooses to have a motorhome drawn up: the choices with the words a screen shows. */
import type { LinkRow } from './links';

export const LINK_CHOICES = [
  {
    id: 'ignition-delay',
    label: 'Delay module',
    school: 'direct',
    says: 'Solenoid; closes some seconds after the key, whatever the volts',
  },
  { id: 'switch', label: 'Dash switch', school: 'direct', says: 'Solenoid; the driver links the banks by hand' },
  {
    id: 'one-way',
    label: 'One-way, by volts',
    school: 'sensed',
    says: 'Solenoid; closes while the engine charges the chassis bank',
  },
  {
    id: 'bidirectional',
    label: 'Two-way, by volts',
    school: 'sensed',
    says: 'Solenoid; closes while either bank is being charged',
  },
  {
    id: 'timed-window',
    label: 'Timed window',
    school: 'sensed',
    says: 'Solenoid; links for an hour when the other bank is low',
  },
  {
    id: 'dcdc-boost',
    label: 'DC-DC charger, isolator for boost',
    school: 'regulated',
    amps: { usual: [40] },
    says: 'Charger under way; the solenoid closes for boost only',
  },
  {
    id: 'dcdc',
    label: 'DC-DC charger',
    school: 'regulated',
    amps: { usual: [40, 60] },
    says: 'Charger under way; nothing flows back, no boost',
  },
  {
    id: 'dcdc-dual',
    label: 'Dual-input charger',
    school: 'regulated',
    amps: { usual: [30] },
    says: 'One charger for engine and panels; keeps the start battery up once the bank is full; no boost',
  },
  { id: 'diode', label: 'Diode isolator', school: 'direct', says: 'Two diodes from the alternator; nothing switches' },
] as const satisfies readonly LinkRow[];

export const ENGINE_CHOICES = [
  { id: 'rear', label: 'Rear engine' },
  { id: 'front', label: 'Front engine' },
] as const;

export const DISCONNECT_CHOICES = [
  { id: 'switch', label: 'Hand switch' },
  { id: 'latching', label: 'Latching solenoid' },
  { id: 'none', label: 'None' },
] as const;

export const SENSE_CHOICES = [
  { id: 'bank', label: 'At the bank' },
  { id: 'behind-disconnect', label: 'Behind the disconnect' },
] as const;

export const CHARGER_CHOICES = [
  { id: 'charger', label: 'Three-stage charger' },
  { id: 'converter', label: 'Converter' },
  { id: 'inverter-charger', label: 'Inverter-charger' },
] as const;

/** What keeps the start battery up from the coach bank, beside the link. */
export const MAINTAINER_CHOICES = [
  { id: 'none', label: 'None' },
  { id: 'differential', label: 'Differential, about 1 A', says: 'Gives while the coach bank stands well above it' },
  { id: 'triggered', label: 'By volts, about 5 A', says: 'Starts once the coach bank is charged past 13.6 V' },
  { id: 'diode-lamp', label: 'Diode and lamp', says: 'A fuse, a diode and a headlamp bulb as limiter' },
] as const;

export const CHEMISTRY_CHOICES = [
  { id: 'flooded', label: 'Flooded' },
  { id: 'agm', label: 'AGM' },
  { id: 'gel', label: 'Gel' },
  { id: 'lfp', label: 'LFP' },
] as const;

export const LAYOUT_CHOICES = [
  { id: 'single', label: 'One block' },
  { id: 'parallel', label: 'In parallel' },
  { id: 'series', label: 'Two in series' },
  { id: 'series-parallel', label: 'Series pairs' },
] as const;
