import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { inWords } from '../../core/units/vocabulary';
import { sideNames } from './sideNames';

describe('what the sides are called', () => {
  it('names the coach only where there is one', () => {
    for (const [name, rig] of EVERY_RIG) {
      const { engine, coach } = sideNames(rig);
      const alone = rig.vehicles.length === 1 && rig.vehicles[0]!.role !== 'bench';
      expect([name, coach === 'Coach side', engine === 'Engine side']).toEqual([name, alone, alone]);
      expect(engine).not.toBe(coach);
    }
  });

  it('by the vehicle that stands there, in the shop’s words', () => {
    const rigOf = (name: string) => EVERY_RIG.find(([n]) => n.startsWith(name))![1];
    expect(sideNames(rigOf('trailer'))).toEqual({ engine: 'Truck', coach: 'Trailer' });
    expect(sideNames(rigOf('towed-car'))).toEqual({ engine: 'Motorhome', coach: 'Towed car' });
    expect(sideNames(rigOf('camper')).coach).toBe('Camper');
    const alone = EVERY_RIG.find(([, rig]) => rig.vehicles.length === 1)![1];
    expect(inWords('europe', sideNames(alone).coach)).toBe('Leisure side');
  });
});
