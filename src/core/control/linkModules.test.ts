import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bidirectionalLink } from './bidirectionalLink';
import type { ControllerKind, ControllerStep, Mode } from './controller';
import { timedWindow } from './timedWindow';
import { voltageLink } from './voltageLink';

/** Runs a controller over steps of seconds and inputs; returns every answer. */
function run(
  kind: ControllerKind,
  settings: Record<string, number>,
  steps: readonly { dt: number; inputs: Record<string, number> }[],
): ControllerStep[] {
  let mode: Mode = { name: kind.initial, seconds: 0 };
  return steps.map(({ dt, inputs }) => {
    const step = kind.step(mode, inputs, settings, dt);
    mode = step.mode;
    return step;
  });
}
const steady = (seconds: number, inputs: Record<string, number>, dt = 1) =>
  Array.from({ length: Math.round(seconds / dt) }, () => ({ dt, inputs }));
const last = (steps: readonly ControllerStep[]) => steps[steps.length - 1]!;

describe('one-way by volts', () => {
  const settings = { closeAt: 13, openAt: 12.85, hold: 10 };
  it('needs its threshold held, both ways: a dip or a blip moves nothing', () => {
    const blip = [...steady(8, { chassis: 14 }), ...steady(2, { chassis: 12.6 }), ...steady(8, { chassis: 14 })];
    expect(run(voltageLink, settings, blip).some((s) => s.closed['output'])).toBe(false);
    const closed = run(voltageLink, settings, [
      ...steady(30, { chassis: 14 }),
      ...steady(8, { chassis: 12 }),
      ...steady(5, { chassis: 13.5 }),
    ]);
    expect(last(closed).closed['output']).toBe(true);
    expect(
      last(run(voltageLink, settings, [...steady(30, { chassis: 14 }), ...steady(12, { chassis: 12 })])).closed[
        'output'
      ],
    ).toBe(false);
  });

  it('keeps its mode between the thresholds, however it came there', () => {
    fc.assert(
      fc.property(fc.double({ min: 12.86, max: 12.99, noNaN: true }), (between) => {
        expect(last(run(voltageLink, settings, steady(60, { chassis: between }))).closed['output']).toBe(false);
        expect(
          last(run(voltageLink, settings, [...steady(20, { chassis: 14 }), ...steady(60, { chassis: between })]))
            .closed['output'],
        ).toBe(true);
      }),
    );
  });

  it('closes after the same time however the time is cut up', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.05, max: 4, noNaN: true }), { minLength: 5, maxLength: 60 }), (dts) => {
        let elapsed = -dts[0]!; // the first step only notices
        run(
          voltageLink,
          settings,
          dts.map((dt) => ({ dt, inputs: { chassis: 14 } })),
        ).forEach((step, i) => {
          elapsed += dts[i]!;
          if (elapsed < 9.99) expect(step.closed['output']).toBe(false);
          if (elapsed > 10.01) expect(step.closed['output']).toBe(true);
        });
      }),
    );
  });

  it('says when to look again exactly while a timer runs', () => {
    for (const step of run(voltageLink, settings, [...steady(5, { chassis: 14 }), ...steady(20, { chassis: 14 })])) {
      expect(step.timer !== undefined).toBe(step.mode.name === 'watching');
    }
  });
});

describe('bidirectional', () => {
  const settings = { closeAt: 13, openAt: 12.8, hold: 8 };
  it('feeds the coil from the bank that charges, and never from both', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            chassis: fc.double({ min: 0, max: 15, noNaN: true }),
            coach: fc.double({ min: 0, max: 15, noNaN: true }),
          }),
          { minLength: 1, maxLength: 80 },
        ),
        (list) => {
          for (const step of run(
            bidirectionalLink,
            settings,
            list.map((inputs) => ({ dt: 3, inputs })),
          )) {
            expect(step.closed['from-chassis'] && step.closed['from-coach']).toBe(false);
          }
        },
      ),
    );
    expect(last(run(bidirectionalLink, settings, steady(20, { chassis: 12.5, coach: 13.6 }))).mode.name).toBe(
      'closed-by-coach',
    );
    expect(last(run(bidirectionalLink, settings, steady(20, { chassis: 14, coach: 12.4 }))).mode.name).toBe(
      'closed-by-chassis',
    );
  });

  it('lets go only when both have fallen', () => {
    const closed = steady(20, { chassis: 14, coach: 12.4 });
    expect(
      last(run(bidirectionalLink, settings, [...closed, ...steady(60, { chassis: 12.5, coach: 12.9 })])).mode.name,
    ).toBe('closed-by-chassis');
    expect(
      last(run(bidirectionalLink, settings, [...closed, ...steady(12, { chassis: 12.5, coach: 12.5 })])).mode.name,
    ).toBe('open');
  });

  it('with its coach sense dead sees one bank only', () => {
    expect(last(run(bidirectionalLink, settings, steady(60, { chassis: 12.6, coach: 0 }))).mode.name).toBe('open');
  });
});

describe('timed window', () => {
  const settings = { low: 12.6, chassisHigh: 13.2, coachHigh: 13, run: 3600 };
  const driving = { chassis: 13.8, coach: 12.3, key: 12 };
  it('links for its hour, then waits for the window again: on a drive it cycles', () => {
    const steps = run(timedWindow, settings, [
      ...steady(3700, { ...driving, coach: 13.2 }, 10),
      ...steady(3650, driving, 10),
      ...steady(3000, { ...driving, coach: 13.1 }, 10),
      ...steady(100, driving, 10),
    ]);
    const on = steps.map((s) => s.closed['output']!);
    expect(on.slice(0, 370).every((x) => !x)).toBe(true); // coach not low: nothing to do
    const first = on.indexOf(true);
    const off = on.indexOf(false, first);
    expect((off - first) * 10).toBeGreaterThanOrEqual(3590);
    expect((off - first) * 10).toBeLessThanOrEqual(3610);
    expect(on[on.length - 1]).toBe(true); // low again: another hour
  });

  it('parked, lends the other way', () => {
    expect(last(run(timedWindow, settings, steady(3, { chassis: 12.3, coach: 13.4, key: 0 }))).closed['output']).toBe(
      true,
    );
    expect(last(run(timedWindow, settings, steady(3, { chassis: 12.3, coach: 12.9, key: 0 }))).closed['output']).toBe(
      false,
    );
  });
});
