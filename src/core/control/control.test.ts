import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Mode } from './controller';
import { ignitionDelay } from './ignitionDelay';
import { solenoid } from './solenoid';

const coil = { pullIn: 8.5, dropOut: 4 };

describe('solenoid', () => {
  it('holds between drop-out and pull-in whichever way it came', () => {
    fc.assert(
      fc.property(fc.double({ min: 4.001, max: 8.499, noNaN: true }), (volts) => {
        const open: Mode = { name: 'open', seconds: 0 };
        const closed: Mode = { name: 'closed', seconds: 0 };
        expect(solenoid.step(open, { coil: volts }, coil, 1).closed['contact']).toBe(false);
        expect(solenoid.step(closed, { coil: volts }, coil, 1).closed['contact']).toBe(true);
      }),
    );
  });

  it('does not care which way round the coil is wired', () => {
    expect(solenoid.step({ name: 'open', seconds: 0 }, { coil: -12 }, coil, 1).closed['contact']).toBe(true);
  });
});

describe('ignition delay', () => {
  const settings = { delay: 25 };

  it('feeds the coil only once the delay has run, however the time is cut up', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.01, max: 12, noNaN: true }), { minLength: 1, maxLength: 40 }),
        (steps) => {
          let mode: Mode = { name: 'off', seconds: 0 };
          mode = ignitionDelay.step(mode, { supply: 12.4 }, settings, 0).mode;
          let elapsed = 0;
          for (const dt of steps) {
            const result = ignitionDelay.step(mode, { supply: 12.4 }, settings, dt);
            elapsed += dt;
            mode = result.mode;
            if (elapsed < 24.999) expect(result.closed['output']).toBe(false);
            if (elapsed >= 25) expect(result.closed['output']).toBe(true);
          }
        },
      ),
    );
  });

  it('lets go and starts over when the ignition goes', () => {
    const off = ignitionDelay.step({ name: 'on', seconds: 90 }, { supply: 0 }, settings, 1);
    expect(off.closed['output']).toBe(false);
    const again = ignitionDelay.step(off.mode, { supply: 12.4 }, settings, 0);
    expect(again.mode.name).toBe('timing');
    expect(again.timer).toBe(25);
  });
});
