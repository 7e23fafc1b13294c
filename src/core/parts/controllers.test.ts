/** What every controller must keep to, whichever part it decides in: the list is the catalogue itself. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Mode } from '../control/controller';
import { PART_KINDS } from './kinds';
import type { ControllerWiring, PartKind, ElementValue } from './part';

/** Every part kind with every combination of its options that gives it a controller. */
const CASES = [...PART_KINDS.values()].flatMap((kind): { name: string; kind: PartKind; wiring: ControllerWiring }[] => {
  const combinations = Object.entries(kind.options ?? {}).reduce<Record<string, string>[]>(
    (list, [name, spec]) => list.flatMap((o) => spec.choices.map((c) => ({ ...o, [name]: c.id }))),
    [{}],
  );
  const seen = new Set<string>();
  return [12, 24, 48].flatMap((nominal) =>
    combinations.flatMap((options) => {
      const wiring = kind.controller?.({ options, nominal });
      if (!wiring) return [];
      const key = JSON.stringify([wiring.kind.id, wiring.constants]);
      if (seen.has(key)) return [];
      seen.add(key);
      return [{ name: `${kind.id}: ${wiring.kind.id} ${JSON.stringify(wiring.constants ?? {})}`, kind, wiring }];
    }),
  );
});

const settingsOf = ({ kind, wiring }: (typeof CASES)[number]): Record<string, number> => ({
  ...Object.fromEntries(wiring.settings.map((name) => [name, kind.params[name]!.default.value])),
  ...wiring.constants,
});

/** Random volts and amps at its terminals, over the whole range a 48 V rig can show. */
const inputsFor = ({ wiring }: (typeof CASES)[number]) =>
  fc.record({
    celsius: fc.integer({ min: -30, max: 50 }),
    mains: fc.constantFrom(0, 1),
    sun: fc.constantFrom(0, 0.01, 0.4, 1),
    held: fc.constantFrom(0, 0, 0, 1),
    ...Object.fromEntries(
      Object.keys(wiring.senses).map((name) => [name, fc.double({ min: -1, max: 60, noNaN: true })]),
    ),
    ...Object.fromEntries(
      Object.keys(wiring.amps ?? {}).map((name) => [name, fc.double({ min: -50, max: 120, noNaN: true })]),
    ),
  }) as fc.Arbitrary<Record<string, number>>;

const choicesOf = (kind: PartKind) => {
  const values = kind.elements.flatMap((e): ElementValue[] =>
    Object.values(e).filter(
      (v): v is ElementValue => typeof v === 'object' && v !== null && ('by' in v || 'value' in v),
    ),
  );
  return values.flatMap((v) => ('by' in v ? [v] : []));
};

it('the catalogue has controllers to check', () => {
  expect(new Set(CASES.map((c) => c.wiring.kind.id)).size).toBeGreaterThanOrEqual(14);
});

describe.each(CASES)('$name', (c) => {
  const { kind, wiring } = c;
  const settings = settingsOf(c);
  const start: Mode = { name: wiring.kind.initial, seconds: 0 };

  it('senses only terminals its part has, and is set only by parameters it has', () => {
    const terminals = new Set([...kind.terminals.map((t) => t.id), ...(kind.inner ?? [])]);
    for (const pair of Object.values(wiring.senses)) for (const t of pair) expect(terminals.has(t), t).toBe(true);
    for (const element of Object.values(wiring.amps ?? {}))
      expect(
        kind.elements.some((e) => e.id === element),
        element,
      ).toBe(true);
    for (const name of wiring.settings) expect(kind.params[name], name).toBeDefined();
  });

  it('moves only contacts and choices its part has, says why, and times only what is still to come', () => {
    const contacts = new Set(
      kind.elements.flatMap((e) => (e.kind === 'contact' && 'controller' in e.closedBy ? [e.closedBy.controller] : [])),
    );
    const choices = choicesOf(kind);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(inputsFor(c), fc.double({ min: 0, max: 4000, noNaN: true })), {
          minLength: 1,
          maxLength: 30,
        }),
        (list) => {
          let mode = start;
          for (const [inputs, dt] of list) {
            const step = wiring.kind.step(mode, inputs, settings, dt);
            expect(step.why.length).toBeGreaterThan(1);
            expect(step.why).not.toMatch(/NaN|undefined|Infinity/);
            for (const name of Object.keys(step.closed)) expect(contacts.has(name), name).toBe(true);
            for (const [by, pick] of Object.entries(step.chosen ?? {})) {
              const used = choices.filter((v) => v.by === by);
              for (const v of used) expect(v.of[pick], `${by}: ${pick}`).toBeDefined();
            }
            if (step.timer !== undefined) expect(step.timer).toBeGreaterThan(0);
            expect(step.mode.seconds).toBeGreaterThanOrEqual(0);
            mode = step.mode;
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('comes to rest, or to another output, while nothing changes; a timer that rings moves it on', () => {
    fc.assert(
      fc.property(fc.array(inputsFor(c), { minLength: 1, maxLength: 6 }), (list) => {
        let mode = start;
        for (const inputs of list) {
          const first = wiring.kind.step(mode, inputs, settings, 0);
          const outputs = (step: typeof first) => JSON.stringify([step.closed, step.chosen]);
          let step = first;
          // A contact it moves changes what it feels: from there on it is another network.
          for (let rounds = 0; step.timer !== undefined && outputs(step) === outputs(first); rounds++) {
            const next = wiring.kind.step(step.mode, inputs, settings, step.timer);
            expect(
              next.mode.name === step.mode.name && next.timer !== undefined && next.timer < 1e-3,
              'rings without effect',
            ).toBe(false);
            step = next;
            expect(rounds).toBeLessThan(20);
          }
          mode = step.mode;
        }
      }),
      { numRuns: 60 },
    );
  });

  it('takes the same time however the time is cut up', () => {
    fc.assert(
      fc.property(
        inputsFor(c),
        inputsFor(c),
        fc.array(fc.double({ min: 0.1, max: 60, noNaN: true }), { minLength: 2, maxLength: 20 }),
        (before, inputs, dts) => {
          const first = wiring.kind.step(start, before, settings, 0);
          let mode = wiring.kind.step(first.mode, inputs, settings, 0).mode;
          const timed = wiring.kind.step(mode, inputs, settings, 0).timer;
          if (timed === undefined || dts.reduce((a, b) => a + b, 0) >= timed - 1) return;
          const name = mode.name;
          let elapsed = 0;
          for (const dt of dts) {
            const step = wiring.kind.step(mode, inputs, settings, dt);
            elapsed += dt;
            expect(step.mode.name).toBe(name);
            expect(step.timer! + elapsed).toBeCloseTo(timed, 6);
            mode = step.mode;
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});
