/**
 * Parts that act through time, each against a deck written by hand for ngspice: what the part should do is written as
 * SPICE knows it (a switch on a clock, a diode and a filament as a table), never taken from our own network.
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

const folder = mkdtempSync(join(tmpdir(), 'surrik-parts-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const foot = wireResistance('4/0', 0.3);
const leg = (kind: Leg['kind'], hours: number): Leg => ({
  id: `${kind}`,
  name: kind,
  kind,
  hours,
  celsius: 25,
  sunHours: 0,
  loads: [],
});
const bankPart = (b: Bank, side: 'coach' | 'engine' = 'coach') =>
  smallPart(
    b.name,
    'battery-bank',
    side,
    { capacity: b.ah, soc: b.soc, surface: 0, ageing: 1 },
    { chemistry: b.chemistry },
  );

describe('against ngspice in time', () => {
  it('an automatic fridge is on its bank while its trigger is live, and lets go when that goes dead', () => {
    const bank: Bank = { name: 'a', chemistry: 'flooded', ah: 100, soc: 0.9 };
    const [driven, stood] = [1, 2];
    const compiled = compileRig(
      smallRig(
        [
          bankPart(bank),
          smallPart('key', 'ignition-switch', 'engine', { contact: 0.01, others: 0.01 }),
          smallPart('fridge', 'automatic-fridge', 'coach', { watts: 290 }),
        ],
        [
          ['a.plus', 'fridge.plus', 0.02],
          ['a.plus', 'key.feed', 0.01],
          ['key.run', 'fridge.trigger', 0.02],
          ['fridge.minus', 'frame.bolt', 0.001],
          ['a.minus', 'frame.bolt', 0.001],
        ],
      ),
    );
    const legs = [leg('drive', driven), leg('stand', stood)];
    const ours = simulate(compiled, { id: 's', name: 's', startHour: 0, legs }, { tolerance: 2e-4 }).summary;
    // Its element of 290 W at 12 V, its relay's coil, and what the run circuit keeps on, by the clock.
    const off = driven * 3600;
    const rows = transient(
      folder,
      'fridge',
      [
        ...bankDeck(bank),
        `Rma minus_a 0 ${0.001 + foot}`,
        `Vclock clock 0 PWL(0 1 ${off} 1 ${off + 1} 0)`,
        `.model sw sw vt=0.5 vh=0 ron=1e-4 roff=1e9`,
        `Rw plus_a w ${0.02 + foot}`,
        `Se w e clock 0 sw`,
        `Re e 0 ${144 / 290 + 0.001 + foot}`,
        `Rk plus_a k ${0.02 + foot}`,
        `Sk k r clock 0 sw`,
        `Rc r 0 ${120 + 0.02}`,
        `Ro r 0 ${(1.04 * 12) / 0.01}`,
      ],
      (driven + stood) * 3600,
      ['v(s_a)'],
    );
    const theirs = rows.at(-1)![1]!;
    const here = ours.batteries.find((b) => b.part === 'a')!.endSoc;
    expect(Math.abs(here - theirs)).toBeLessThan(0.002);
    // And it did something: about a quarter of the bank in an hour, nothing after.
    expect(here).toBeLessThan(0.7);
  });

  it('a shunt takes its own tenth of a milliohm from a discharge, and no more', () => {
    const bank: Bank = { name: 'a', chemistry: 'agm', ah: 100, soc: 0.9 };
    const load = 0.5;
    const shunt = 0.002;
    const compiled = compileRig(
      smallRig(
        [
          bankPart(bank),
          smallPart('shunt', 'shunt', 'coach', { element: shunt }),
          smallPart('fridge', 'fridge-element', 'coach', { watts: 144 / load }, { position: 'battery' }),
        ],
        [
          ['a.plus', 'fridge.plus', 0.001],
          ['a.minus', 'shunt.battery', 0.001],
          ['shunt.system', 'frame.bolt', 0.001],
          ['fridge.minus', 'frame.bolt', 0.001],
        ],
      ),
    );
    const legs = [{ ...leg('stand', 2), fridgeOnBattery: true }];
    const ours = simulate(compiled, { id: 's', name: 's', startHour: 0, legs }, { tolerance: 2e-4 }).summary;
    const rows = transient(
      folder,
      'shunt',
      [...bankDeck(bank), `Rm minus_a 0 ${0.002 + shunt + 2 * foot}`, `Rl plus_a 0 ${load + 0.002 + 2 * foot}`],
      7200,
      ['v(s_a)'],
    );
    const here = ours.batteries.find((b) => b.part === 'a')!.endSoc;
    expect(Math.abs(here - rows.at(-1)![1]!)).toBeLessThan(0.001);
    expect(here).toBeLessThan(0.5);
  });

  it('a differential maintainer gives while the gap holds: one contact between two banks', () => {
    const [a, b]: [Bank, Bank] = [
      { name: 'a', chemistry: 'agm', ah: 200, soc: 0.99 },
      { name: 'b', chemistry: 'flooded', ah: 90, soc: 0.12 },
    ];
    const contact = 0.7;
    const compiled = compileRig(
      smallRig(
        [bankPart(a), bankPart(b, 'engine'), smallPart('m', 'differential-maintainer', 'coach', { contact })],
        [
          ['a.plus', 'm.from', 0.001],
          ['m.to', 'b.plus', 0.001],
          ['m.ground', 'frame.bolt', 0.001],
          ['a.minus', 'frame.bolt', 0.001],
          ['b.minus', 'frame.bolt', 0.001],
        ],
      ),
    );
    const ours = simulate(
      compiled,
      { id: 's', name: 's', startHour: 0, legs: [leg('stand', 8)] },
      { tolerance: 2e-4 },
    ).summary;
    const given = ours.batteries.find((x) => x.part === 'b')!.endSoc - b.soc;
    // A relay that closes at 0.75 V of difference: common practice. Ours lets go at its own lower mark.
    const { params } = compiled.rig.parts.find((p) => p.id === 'm')!;
    const figure = (k: string, usual: number) => params[k]?.value ?? usual;
    const [on, off] = [figure('closeAt', 0.75), figure('openAt', 0.25)];
    const rows = transient(
      folder,
      'maintainer',
      [
        ...bankDeck(a),
        ...bankDeck(b),
        `Rma minus_a 0 ${0.001 + foot}`,
        `Rmb minus_b 0 ${0.001 + foot}`,
        `.model relay sw vt=${(on + off) / 2} vh=${(on - off) / 2} ron=${contact} roff=1e9`,
        `Rf plus_a f ${0.001 + foot}`,
        `Sm f t f t relay off`,
        `Rt t plus_b ${0.001 + foot}`,
      ],
      8 * 3600,
      ['v(s_b)'],
    );
    const theirs = rows.at(-1)![1]! - b.soc;
    expect(given).toBeGreaterThan(0);
    expect(Math.abs(given - theirs)).toBeLessThan(0.002);
  });
});
