/** The use a comparison starts from: what the owner told, usual figures where he told nothing, within what can be run. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Validator } from 'typebox/schema';
import { ScenarioSchema } from '../simulate/scenarioSchema';
import { usualScenarios } from './usualScenarios';

const hours = (told: Parameters<typeof usualScenarios>[0], scenario: string, leg: string) =>
  usualScenarios(told, 'coach-bank')
    .find((s) => s.id === scenario)!
    .legs.find((l) => l.id === leg)!;

describe('usual scenarios', () => {
  it('drive, camp and store as long as was told', () => {
    const told = { driveHours: 3, nights: 4, storedMonths: 2 };
    expect(hours(told, 'trip', 'out').hours).toBe(3);
    expect(hours(told, 'trip', 'home').hours).toBe(3);
    expect(hours(told, 'trip', 'camp')).toMatchObject({ hours: 96, name: '4 nights off grid' });
    expect(hours(told, 'storage', 'stored').hours).toBe(1460);
  });

  it('take five hours and two nights where nothing was, and no storage that nobody spoke of', () => {
    expect(hours({}, 'trip', 'out').hours).toBe(5);
    expect(hours({}, 'trip', 'camp').hours).toBe(48);
    expect(usualScenarios({}, 'coach-bank').map((s) => s.id)).toEqual(['trip']);
    expect(usualScenarios({ storedMonths: 0 }, 'coach-bank').map((s) => s.id)).toEqual(['trip']);
    expect(hours({ storedMonths: 3 }, 'storage', 'stored')).toMatchObject({ hours: 2190, name: 'Stored 3 months' });
  });

  it('store plugged in where that was told, else coupled to nothing with the disconnect open', () => {
    expect(hours({ storedPluggedIn: true }, 'storage', 'stored')).toMatchObject({ kind: 'shore' });
    expect(hours({ storedPluggedIn: true }, 'storage', 'stored').disconnectOpen).toBeUndefined();
    expect(hours({ storedMonths: 3 }, 'storage', 'stored')).toMatchObject({
      kind: 'stand',
      disconnectOpen: true,
      uncoupled: true,
      loads: [],
    });
  });

  it('speak English: one night, a month', () => {
    expect(hours({ nights: 1 }, 'trip', 'camp').name).toBe('One night off grid');
    expect(hours({ storedMonths: 1 }, 'storage', 'stored').name).toBe('Stored a month');
    expect(hours({ storedMonths: 1.5 }, 'storage', 'stored').name).toBe('Stored 1.5 months');
  });

  it('can be run whatever was told, odd figures too', () => {
    const valid = new Validator({}, ScenarioSchema as never);
    fc.assert(
      fc.property(
        fc.record({
          driveHours: fc.double({ min: 0, max: 24, noNaN: true }),
          nights: fc.double({ min: 0, max: 365, noNaN: true }),
          storedMonths: fc.double({ min: 0, max: 12, noNaN: true }),
          storedPluggedIn: fc.boolean(),
        }),
        fc.option(fc.constant('coach-bank'), { nil: undefined }),
        (told, house) => {
          for (const s of usualScenarios(told, house)) {
            expect(valid.Check(s), JSON.stringify(s.legs)).toBe(true);
            expect(s.startSoc).toEqual(house ? { 'coach-bank': 0.9 } : undefined);
            expect(new Set(s.legs.map((l) => l.id)).size).toBe(s.legs.length);
          }
        },
      ),
    );
  });
});
