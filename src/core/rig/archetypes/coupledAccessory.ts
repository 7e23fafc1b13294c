/** A second battery in the vehicle in front: a van's own, or a motorhome's house bank, and the charger that fills it. */
import { assumed } from '../../units/parameter';
import type { Conductor, Part } from '../schema';
import type { Draft } from './coupledDraft';
import { cable } from './drawing';

export function accessoryParts({ accessory, words, S, part, bank, vanAmps }: Draft): Part[] {
  if (!accessory) return [];
  return [
    part(
      'accessory-charger',
      'dcdc-charger',
      S.accessoryCharger,
      'both',
      words.tow,
      words.accessoryCharger,
      `${vanAmps} A`,
      {
        limit: assumed(vanAmps, 0.05),
        inLimit: assumed(Math.round(vanAmps * 1.5), 0.1),
        tail: assumed(0.03 * accessory.capacity, 0.2),
      },
      { enable: 'ignition' },
    ),
    bank('accessory-bank', S.accessory, 'coach', words.tow, words.accessory, accessory, 0.75),
  ];
}

export function accessoryCables({ accessory, words, S, run, car }: Draft): Conductor[] {
  if (!accessory) return [];
  return [
    cable(
      'accessory-input',
      `${words.accessoryCharger} input`,
      'feed',
      'chassis-bank.plus',
      'accessory-charger.input',
      '6',
      run(S.bank, S.accessoryCharger) + 0.8,
      0.001,
    ),
    cable(
      'accessory-output',
      `${words.accessoryCharger} output`,
      'feed',
      'accessory-charger.output',
      'accessory-bank.plus',
      '6',
      run(S.accessoryCharger, S.accessory) + 0.5,
      0.001,
    ),
    cable(
      'accessory-enable',
      `Ignition to ${words.accessoryCharger} enable`,
      'control',
      'ignition.run',
      'accessory-charger.enable',
      '16',
      run(S.ignition, S.accessoryCharger) + 1,
      0.02,
    ),
    cable(
      'accessory-ground',
      `${words.accessoryCharger} to frame`,
      'return',
      'accessory-charger.ground',
      'frame.front',
      '6',
      0.8,
      0.001,
    ),
    cable(
      'accessory-negative',
      car ? 'House bank to frame' : 'Accessory battery to frame',
      'return',
      'accessory-bank.minus',
      'frame.rear',
      '4',
      0.8,
      0.0008,
    ),
  ];
}
