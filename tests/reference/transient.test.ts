/**
 * Simulation through time against ngspice's own transient analysis of the same equations: two banks and a
 * charger, joined for good, and by a relay with hysteresis (ngspice's voltage-controlled switch).
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { compileRig } from '../../src/core/compile/compile';
import type { Leg } from '../../src/core/simulate/scenarioSchema';
import { simulate } from '../../src/core/simulate/simulate';
import { wireResistance } from '../../src/core/units/wire';
import { smallPart, smallRig } from '../smallRigs';
import { bankDeck, transient, type Bank } from '../spiceBanks';

const folder = mkdtempSync(join(tmpdir(), 'surrik-tran-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const foot = wireResistance('4/0', 0.3);
const BANKS: [Bank, Bank] = [
  { name: 'a', chemistry: 'agm', ah: 100, soc: 0.8 },
  { name: 'b', chemistry: 'flooded', ah: 200, soc: 0.45 },
];
const HOURS = 3;
const LIMIT = 45;
const SET = 14.2;
const leg: Leg = { id: 'shore', name: 'Shore', kind: 'shore', hours: HOURS, celsius: 25, sunHours: 0, loads: [] };

const parts = BANKS.map((b) =>
  smallPart(
    b.name,
    'battery-bank',
    'coach',
    { capacity: b.ah, soc: b.soc, surface: 0, ageing: 1 },
    { chemistry: b.chemistry },
  ),
);
const charger = smallPart(
  'charger',
  'shore-charger',
  'coach',
  { setPoint: SET, limit: LIMIT, droop: 0.004 },
  { build: 'converter' },
);
const common: [string, string, number][] = [
  ['charger.plus', 'a.plus', 0.002],
  ['charger.minus', 'frame.bolt', 0.001],
  ['a.minus', 'frame.bolt', 0.001],
  ['b.minus', 'frame.bolt', 0.001],
];
const source = [
  `Bc 0 plus_a I=min(${LIMIT},max(0,(${SET}-v(plus_a))/${0.004 + 0.003 + 2 * foot}))`,
  `Rma minus_a 0 ${0.001 + foot}`,
  `Rmb minus_b 0 ${0.001 + foot}`,
];

describe('against ngspice in time', () => {
  it.each(['agm', 'lfp'] as const)('two banks for good on one charger, the near one %s', (chemistry) => {
    const near: Bank = { ...BANKS[0], chemistry, ah: 200, soc: 0.35 };
    const compiled = compileRig(
      smallRig(
        [
          smallPart(
            'a',
            'battery-bank',
            'coach',
            { capacity: near.ah, soc: near.soc, surface: 0, ageing: 1 },
            { chemistry },
          ),
          parts[1]!,
          charger,
        ],
        [...common, ['a.plus', 'b.plus', 0.01]],
      ),
    );
    const ours = simulate(compiled, { id: 's', name: 's', startHour: 0, legs: [leg] }, { tolerance: 2e-4 }).summary;
    const rows = transient(
      folder,
      `plain-${chemistry}`,
      [...bankDeck(near), ...bankDeck(BANKS[1]), ...source, `Rl plus_a plus_b ${0.01 + foot}`],
      HOURS * 3600,
      ['v(s_a)', 'v(s_b)', 'v(q_a)', 'v(q_b)'],
    );
    const [, sa, sb, qa, qb] = rows[rows.length - 1]!;
    expect(Math.abs(ours.batteries[0]!.endSoc - sa!)).toBeLessThan(5e-4);
    expect(Math.abs(ours.batteries[1]!.endSoc - sb!)).toBeLessThan(5e-4);
    expect(Math.abs(ours.batteries[0]!.ahIn - ours.batteries[0]!.ahOut - qa!)).toBeLessThan(0.06);
    expect(Math.abs(ours.batteries[1]!.ahIn - ours.batteries[1]!.ahOut - qb!)).toBeLessThan(0.06);
  });

  it('a relay with hysteresis closes when ngspice’s switch does', () => {
    const relay = smallPart('relay', 'voltage-relay', 'coach', { closeAt: 14, openAt: 12, hold: 0.1, contact: 0.002 });
    const compiled = compileRig(
      smallRig(
        [...parts, charger, relay],
        [
          ...common,
          ['a.plus', 'relay.input', 0.005],
          ['relay.output', 'b.plus', 0.005],
          ['relay.ground', 'frame.bolt', 0.001],
        ],
      ),
    );
    const r = simulate(
      compiled,
      { id: 's', name: 's', startHour: 0, legs: [{ ...leg, hours: 1 }] },
      { tolerance: 2e-4 },
    );
    const closes = r.events.find((e) => e.part === 'relay')!.t;
    const rows = transient(
      folder,
      'relay',
      [
        ...bankDeck(BANKS[0]),
        ...bankDeck(BANKS[1]),
        ...source,
        `Rw plus_a in ${0.005 + foot}`,
        'S1 in out in 0 SW off',
        '.model SW SW(VT=13 VH=1 RON=0.002 ROFF=1e8)',
        `Ro out plus_b ${0.005 + foot}`,
        'Rs in 0 1200',
        // A switch that jumps has no solution at that instant: half a farad beside it, a quarter of a coulomb.
        'Ci in 0 0.5',
        'Co out 0 0.5',
      ],
      3600,
      ['v(s_a)', 'v(s_b)', 'i(Vm_b)'],
    );
    const theirs = rows.find((row) => row[3]! > 1)![0]!;
    // Ours waits a tenth of a second; theirs is only as fine as its printed step.
    expect(Math.abs(closes - theirs)).toBeLessThan(6);
    const [, sa, sb] = rows[rows.length - 1]!;
    expect(Math.abs(r.summary.batteries[0]!.endSoc - sa!)).toBeLessThan(1e-3);
    expect(Math.abs(r.summary.batteries[1]!.endSoc - sb!)).toBeLessThan(1e-3);
  });
});
