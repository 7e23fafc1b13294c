/**
 * A lithium bank that heats itself, against the first-order body worked out by hand: lift 48 K, 9000 s, charging from
 * +5 °C once it was forbidden. Constants are the written model's, from memory; that it must be warm before it is charged
 * is common practice.
 */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { motorhomeOf } from '../../../tests/motorhomes';
import type { Leg } from './scenarioSchema';
import type { SimResult } from './result';
import { simulate } from './simulate';

const leg = (id: string, kind: Leg['kind'], hours: number, celsius: number): Leg => ({
  id,
  name: id,
  kind,
  hours,
  celsius,
  sunHours: 0,
  loads: [],
});
const LFP = { chemistry: 'lfp', layout: 'parallel', capacity: 200 } as const;
const run = (heater: boolean, legs: Leg[]): SimResult =>
  simulate(compileRig(motorhomeOf({ link: 'dcdc', coach: { ...LFP, heater } })), {
    id: 't',
    name: 'T',
    startHour: 8,
    legs,
    startSoc: { 'coach-bank': 0.4 },
  });
const soc = (r: SimResult) => {
  const values = r.series.find((s) => s.id === 'coach-bank.soc')!.values;
  return values[values.length - 1]!;
};
const events = (r: SimResult) => r.events.filter((e) => e.part === 'coach-bank').map((e) => [e.t, e.what] as const);

describe('a lithium bank in frost', () => {
  const drive = [leg('drive', 'drive', 3, -10)];

  it('takes nothing in without a heater, and fills once its heater has brought it to 5 °C', () => {
    const [cold, warmed] = [run(false, drive), run(true, drive)];
    expect(soc(cold)).toBeLessThan(41);
    expect(soc(warmed)).toBeGreaterThan(55);
    const opens = events(warmed).find(([, what]) => what.endsWith('is connected'))!;
    // From −10 to +5 °C toward −10 + 48.
    expect(Math.abs(opens[0] - -9000 * Math.log(1 - 15 / 48))).toBeLessThan(120);
  });

  it('does not warm itself on its own charge: where nothing charges it stays cold and gives', () => {
    const r = run(true, [leg('stand', 'stand', 6, -10)]);
    expect(events(r).some(([, what]) => what.includes('warms itself'))).toBe(false);
  });

  it('leaves everything as it is where it never freezes', () => {
    const warm = [leg('drive', 'drive', 3, 15)];
    expect(soc(run(true, warm))).toBeCloseTo(soc(run(false, warm)), 9);
  });

  it('has cooled by the morning, and begins anew', () => {
    const r = run(true, [...drive, leg('night', 'stand', 14, -10), leg('next', 'drive', 2, -10)]);
    const warming = events(r).filter(([, what]) => what.includes('warms itself'));
    expect(warming.some(([t]) => t >= 17 * 3600 - 1)).toBe(true);
  });
});
