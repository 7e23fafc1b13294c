/** The limits of a lithium bank's BMS, as its kind is sold: common practice; figures from memory, those of the entry. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bms } from './bms';
import type { Mode } from './controller';

const LIMITS = {
  coldest: 0,
  hottest: 50,
  coldestGiving: -20,
  hottestGiving: 60,
  highest: 14.6,
  lowest: 10,
  rest: 13,
  capacity: 100,
  most: 1,
};
const CLOSED: Mode = { name: 'closed', seconds: 0 };

interface Moment {
  volts: number;
  /** A into the bank. */
  amps: number;
  celsius?: number;
  seconds?: number;
}
/** The modes it goes through, one for each moment. */
function through(...moments: Moment[]): { name: string; open: boolean }[] {
  let mode = CLOSED;
  return moments.map(({ volts, amps, celsius = 25, seconds = 1 }) => {
    const step = bms.step(mode, { volts, gives: -amps, celsius }, LIMITS, seconds);
    mode = step.mode;
    return { name: mode.name, open: step.chosen!['bms'] === 'open' };
  });
}
const times = (n: number, m: Moment): Moment[] => Array.from({ length: n }, () => m);

describe('a lithium bank’s BMS', () => {
  it('takes a charge from 0 to 50 °C and refuses it outside', () => {
    fc.assert(
      fc.property(fc.integer({ min: -19, max: 59 }), (celsius) => {
        const [last] = through({ volts: 13.8, amps: 20, celsius }).slice(-1);
        expect(last!.open).toBe(celsius < 0 || celsius > 50);
      }),
    );
  });

  it('still gives when it is too cold or too hot to charge, and not outside –20 to 60 °C', () => {
    fc.assert(
      fc.property(fc.integer({ min: -40, max: 80 }), (celsius) => {
        const [last] = through({ volts: 12.9, amps: -20, celsius }).slice(-1);
        expect(last!.open).toBe(celsius < -20 || celsius > 60);
      }),
    );
  });

  it('wants to be some degrees back within its limit before it is charged again', () => {
    const names = through(
      { volts: 13.8, amps: 20, celsius: -2 },
      { volts: 13.8, amps: 0, celsius: 2 },
      { volts: 13.8, amps: 0, celsius: 6 },
    ).map((m) => m.name);
    expect(names).toEqual(['too-cold', 'too-cold', 'closed']);
    const warm = through(
      { volts: 13.8, amps: 20, celsius: 52 },
      { volts: 13.8, amps: 0, celsius: 48 },
      { volts: 13.8, amps: 0, celsius: 44 },
    ).map((m) => m.name);
    expect(warm).toEqual(['too-hot', 'too-hot', 'closed']);
    const deep = through(
      { volts: 13.1, amps: -5, celsius: -22 },
      { volts: 13.1, amps: -5, celsius: -17 },
      { volts: 13.1, amps: -5, celsius: -14 },
    ).map((m) => m.open);
    expect(deep).toEqual([true, true, false]);
  });

  it.each([150, -150])('lets %i A through 100 Ah for seconds, opens, and tries again after a minute', (amps) => {
    const seen = through(...times(9, { volts: 13, amps })).map((m) => m.open);
    expect(seen).not.toContain(true);
    const [open, waits, closed] = through(
      ...times(14, { volts: 13, amps }),
      ...times(50, { volts: 13, amps: 0 }),
      ...times(20, { volts: 13, amps: 0 }),
    ).filter((_, i) => i === 13 || i === 60 || i === 83);
    expect(open).toEqual({ name: 'overloaded', open: true });
    expect(waits!.open).toBe(true);
    expect(closed).toEqual({ name: 'closed', open: false });
  });

  it('never keeps a current for a minute that its label forbids, whatever comes', () => {
    const moment = fc.record({
      volts: fc.double({ min: 8, max: 16, noNaN: true }),
      amps: fc.double({ min: -250, max: 250, noNaN: true }),
      celsius: fc.integer({ min: -40, max: 80 }),
    });
    fc.assert(
      fc.property(fc.array(moment, { maxLength: 20 }), moment, (before, held) => {
        const [last] = through(...before, ...times(30, held)).slice(-1);
        const forbidden =
          (held.amps > 0.05 && (held.celsius < 0 || held.celsius > 50)) || held.celsius < -20 || held.celsius > 60;
        if (forbidden) expect(last!.open || last!.name === 'giving').toBe(true);
        if (forbidden && held.amps > 0.05 && held.volts > LIMITS.rest) expect(last!.open).toBe(true);
        expect(bms.words[last!.name]).toBeTruthy();
      }),
    );
  });

  it('lets go flat, and only a charger wakes it', () => {
    const names = through(...times(5, { volts: 9.5, amps: -10 }), { volts: 11, amps: 0 }, { volts: 13.5, amps: 0 }).map(
      (m) => m.name,
    );
    expect(names.slice(-3)).toEqual(['flat', 'flat', 'closed']);
  });
});
