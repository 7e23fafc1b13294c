/** Changing the connector loses nothing without a word: a use is on a pin of the new one, or it is said to be left. */
import { describe, expect, it } from 'vitest';
import { CONNECTORS, connectorOf } from '../../parts/connectors';
import { coupledRig, USUAL_COUPLED } from '../../rig/archetypes/coupled';
import type { TowPlug } from '../../rig/towSchema';
import { rewired } from '../../rig/towRewire';
import { usualTow } from './usual';

const plugs = (['trailer', 'camper', 'towed-car', 'trailer-48'] as const).flatMap(
  (family) => usualTow(coupledRig('t', 'T', USUAL_COUPLED[family]))!.plugs,
);
const usesOf = (plug: TowPlug) => plug.ways.flatMap((w) => w.uses).filter((u) => u !== 'ground');

describe('another connector', () => {
  it.each(CONNECTORS.map((c) => [c.label, c.id] as const))('%s: every use is on it or said to be left', (_, id) => {
    for (const plug of plugs) {
      const { plug: next, left } = rewired(plug, id);
      expect([...new Set([...usesOf(next), ...left])].sort()).toEqual([...new Set(usesOf(plug))].sort());
      for (const use of left) expect(usesOf(next)).not.toContain(use);
      const positions = connectorOf(id).positions.map((p) => p.id);
      const pins = next.ways.map((w) => w.pin);
      expect(new Set(pins).size).toBe(pins.length);
      for (const pin of pins) expect(positions).toContain(pin);
    }
  });

  it('and back again is what it was, where nothing was left', () => {
    for (const plug of plugs)
      for (const { id } of CONNECTORS) {
        const there = rewired(plug, id);
        if (there.left.length > 0) continue;
        const back = rewired(there.plug, plug.connector);
        expect(back.left).toEqual([]);
        expect(usesOf(back.plug).sort()).toEqual(usesOf(plug).sort());
      }
  });

  it('a 4-flat has lamps alone: brakes, breakaway and the charge line are left, and said', () => {
    const blade = plugs.find((p) => p.connector === 'blade-7')!;
    const flat = CONNECTORS.find((c) => /4/.test(c.label) && /flat/i.test(c.label))!;
    expect(rewired(blade, flat.id).left).toEqual(expect.arrayContaining(['brakes', 'breakaway']));
  });
});
