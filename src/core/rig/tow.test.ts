/** What a described tow interface may not say, each told by its place and with what is wanted. */
import { describe, expect, it } from 'vitest';
import { CONNECTORS } from '../parts/connectors';
import { coupledRig, USUAL_COUPLED } from './archetypes/coupled';
import { COUPLED_FAMILIES } from './archetypes/coupledChoices';
import { checkTow, type TowInterface, type TowWay } from './tow';
import { usualTow } from '../rules/tow/usual';

const lamp = { gauge: '14', length: 6, usesGauge: '14', usesLength: 6 } as const;
const SOUND: TowInterface = {
  plugs: [
    {
      id: 'main',
      connector: 'blade-7',
      convention: 'rv',
      ways: [
        { pin: '1', feed: 'ground', uses: ['ground'], ...lamp },
        { pin: '3', feed: 'tail', uses: ['tail'], ...lamp },
        { pin: '4', feed: 'constant', fuse: 30, uses: ['charger'], ...lamp },
        { pin: '5', feed: 'left', uses: ['left'], ...lamp },
      ],
    },
  ],
  charger: { amps: 20, inLimit: 30, lockout: 12.2, outVolts: 14.4, enable: 'wire' },
};
/** Issues of the sound one after a change. */
const issues = (change: (t: TowInterface, ways: TowWay[]) => void) => {
  const t = structuredClone(SOUND);
  change(t, t.plugs[0]!.ways as TowWay[]);
  return checkTow(t, '/tow').map((i) => `${i.pointer}: ${i.wanted}`);
};

describe('a tow interface', () => {
  it('that is sound has no issue, and so has the usual one of every family', () => {
    expect(checkTow(SOUND, '')).toEqual([]);
    for (const { id } of COUPLED_FAMILIES) {
      const tow = usualTow(coupledRig('t', 'T', USUAL_COUPLED[id]));
      if (tow) expect(checkTow(tow, ''), id).toEqual([]);
    }
  });

  it('uses a convention its connector has, every one of which is taken', () => {
    expect(issues((t) => (t.plugs[0]!.convention = 'of-its-own'))[0]).toMatch(
      /^\/tow\/plugs\/0\/convention: one of rv/,
    );
    for (const connector of CONNECTORS)
      for (const { id } of connector.conventions)
        expect(
          checkTow({ plugs: [{ id: 'p', connector: connector.id, convention: id, ways: [] }] } as TowInterface, ''),
          `${connector.id} ${id}`,
        ).toEqual([]);
  });

  it('has each plug once, each position once, and only positions that are there', () => {
    expect(issues((t) => t.plugs.push({ ...t.plugs[0]!, ways: [] }))).toEqual(['/tow/plugs/1/id: an id of its own']);
    expect(issues((_, ways) => (ways[1]!.pin = '9'))[0]).toMatch(/^\/tow\/plugs\/0\/ways\/1\/pin: a position of the/);
    expect(issues((_, ways) => (ways[1]!.pin = '1'))[0]).toMatch(/one row for a position/);
  });

  it('hangs nothing on a ground but ground, and each thing once, ground and tail lamps excepted', () => {
    expect(issues((_, ways) => ways[0]!.uses.push('left'))).toContain(
      '/tow/plugs/0/ways/0/uses: ground alone, or what is fed: the two together are a short',
    );
    expect(issues((_, ways) => ways[2]!.uses.push('left'))).toEqual([
      '/tow/plugs/0/ways/3/uses: it once: position 4 of main has it already',
    ]);
    expect(issues((_, ways) => ways[3]!.uses.push('tail'))).toEqual([]);
  });

  it('describes what hangs on it: charger, fridge, brakes, breakaway', () => {
    expect(issues((t) => delete t.charger)).toEqual([
      '/tow/charger: charger described: position 4 of main hangs on it',
    ]);
    for (const use of ['fridge', 'brakes', 'breakaway'] as const)
      expect(issues((_, ways) => ways[2]!.uses.push(use))[0]).toMatch(new RegExp(`^/tow/${use}: ${use} described`));
  });

  it('has one reading for a condition, its loaded volts with their amps', () => {
    expect(
      issues((_, ways) => {
        ways[2]!.seen = [
          { when: 'key-off', open: 12.6 },
          { when: 'key-off', open: 12.4 },
        ];
      }),
    ).toEqual(['/tow/plugs/0/ways/2/seen/1/when: one reading for a condition: the newer one']);
    expect(issues((_, ways) => (ways[2]!.seen = [{ when: 'key-off', open: 12.6, loaded: 12.1 }]))[0]).toMatch(
      /seen\/0\/amps: volts under load and the amps/,
    );
    expect(issues((_, ways) => (ways[2]!.seen = [{ when: 'key-off', open: 12.6, amps: 5 }]))[0]).toMatch(
      /seen\/0\/loaded/,
    );
    expect(issues((_, ways) => (ways[2]!.seen = [{ when: 'key-off', open: 12.6, loaded: 12.1, amps: 5 }]))).toEqual([]);
  });
});
