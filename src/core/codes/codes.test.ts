/** The figures of the rule sets, typed here once more beside the clause they are from (from memory, both). */
import { describe, expect, it } from 'vitest';
import { JURISDICTIONS } from '../units/preferences';
import { AWG_GAUGES, wireArea } from '../units/wire';
import { RULE_SETS, USUAL_JURISDICTION } from './index';
import { cited } from './ruleSet';

describe('the rule sets', () => {
  it('are one for every jurisdiction, each with what it goes by', () => {
    for (const { id } of JURISDICTIONS) {
      const set = RULE_SETS[id];
      expect(set.id).toBe(id);
      expect(set.standards.length).toBeGreaterThan(20);
      expect(set.fuseWithin.guide).toBeLessThanOrEqual(set.fuseWithin.most);
      for (const said of [set.fuseWithin.says, cited(set.breakaway.from), set.cable.from])
        expect(said, id).toMatch(/from memory/);
    }
    expect(new Set(Object.values(RULE_SETS).map((s) => s.standards)).size).toBe(5);
    expect(RULE_SETS[USUAL_JURISDICTION].smallWire).toBeDefined();
  });

  /** NEC table 551.10(E)(1), 12 V circuits of recreational vehicles. */
  it.each(['us', 'ca'] as const)('of %s fuse small wire as the code’s table does', (id) => {
    expect(RULE_SETS[id].smallWire!.amps).toEqual({ '18': 6, '16': 8, '14': 15, '12': 20, '10': 30 });
    expect(RULE_SETS[id].fuseWithin.most).toBeCloseTo(18 * 0.0254, 3);
  });

  it('of Europe and Australasia say nothing of AWG, and put the fuse by the boats’ guide', () => {
    for (const id of ['uk', 'eu', 'au-nz'] as const) {
      expect(RULE_SETS[id].smallWire).toBeUndefined();
      expect(RULE_SETS[id].fuseWithin.guide).toBe(0.18);
    }
  });

  it('name cable by what is in it: the same number holds less copper in vehicle cable, “6 mm” holds under 5 mm²', () => {
    for (const { label, square } of RULE_SETS.us.cable.sold) {
      const gauge = AWG_GAUGES.find((g) => label === `${g} SAE`)!;
      const share = square / (wireArea(gauge) * 1e6);
      expect(share, label).toBeGreaterThan(0.86);
      expect(share, label).toBeLessThan(0.97);
    }
    const six = RULE_SETS['au-nz'].cable.sold.find((s) => s.label.startsWith('6 mm'))!;
    expect(six.square).toBeLessThan(5);
  });

  it('know what a fridge’s element usually draws there', () => {
    // North America 215–325 W, British and European caravans 110–175 W, Australia 125–175 W: common practice.
    const between: Record<string, [number, number]> = {
      us: [215, 325],
      ca: [215, 325],
      uk: [110, 175],
      eu: [110, 175],
      'au-nz': [125, 175],
    };
    for (const { id } of JURISDICTIONS) {
      expect(RULE_SETS[id].fridgeWatts).toBeGreaterThanOrEqual(between[id]![0]);
      expect(RULE_SETS[id].fridgeWatts).toBeLessThanOrEqual(between[id]![1]);
    }
  });

  it('ask for a habitation relay in Europe alone', () => {
    const ask = JURISDICTIONS.filter(({ id }) => RULE_SETS[id].habitationCut !== undefined).map(({ id }) => id);
    expect(ask.sort()).toEqual(['eu', 'uk']);
  });

  it('cite a clause in full', () => {
    expect(cited({ standard: 'NEC', clause: '551.10(E)(1)', edition: '2023' })).toBe(
      'NEC 551.10(E)(1), 2023 edition (from memory)',
    );
    expect(cited({ standard: 'ADR 38', clause: '' })).toBe('ADR 38 (from memory)');
  });
});
