/** Names of a device's numbers against where they stand. */
import { describe, expect, it } from 'vitest';
import { CURRENT, DEVICE_PARAMS, deviceIndex, OVERVOLTAGE, SOURCE, type DeviceKind } from './devices';
import { emptyValues, PORT_VALUES } from './network';

const values = () =>
  emptyValues({
    nodeNames: ['0', 'a'],
    resistors: [],
    emfs: [],
    ports: [
      { id: 'x', kind: 'source', plus: 1, minus: 0 },
      { id: 'y', kind: 'source', plus: 1, minus: 0 },
    ],
  });

describe('the numbers of a device', () => {
  it('of every kind fit their place, each in one of its own', () => {
    for (const [kind, names] of Object.entries(DEVICE_PARAMS)) {
      const at = names.map((name) => deviceIndex(kind as DeviceKind, 3, name as never));
      expect(new Set(at).size).toBe(names.length);
      for (const i of at) {
        expect(i).toBeGreaterThanOrEqual(3 * PORT_VALUES);
        expect(i).toBeLessThan(4 * PORT_VALUES);
      }
    }
  });

  it.each([
    ['source volts', SOURCE.volts, deviceIndex('source', 1, 'volts')],
    ['source ohms', SOURCE.ohms, deviceIndex('source', 1, 'ohms')],
    ['source limit', SOURCE.limit, deviceIndex('source', 1, 'limit')],
    ['overvoltage charging', OVERVOLTAGE.charging, deviceIndex('overvoltage', 1, 'charging')],
    ['overvoltage discharging', OVERVOLTAGE.discharging, deviceIndex('overvoltage', 1, 'discharging')],
    ['current amps', CURRENT.amps, deviceIndex('current', 1, 'amps')],
  ])('%s is written where it is read, and nowhere else', (_, param, index) => {
    const v = values();
    param.set(v, 1, 42);
    expect(param.get(v, 1)).toBe(42);
    expect([...v.deviceParams].map((x, i) => (x === 0 ? -1 : i)).filter((i) => i >= 0)).toEqual([index]);
  });
});
