/**
 * One wire, one answer: the table of gauges, the fuse's window, the rules, the calculator and the cut list say the same
 * of it, on every rig and by every jurisdiction.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { RULE_SETS } from '../codes';
import { usualScenarios } from '../plan/usualScenarios';
import { withConductor, withPart } from '../rig/applyEdit';
import type { Rig } from '../rig/schema';
import { houseBankOf } from '../rig/value';
import { checkDesign } from '../rules/check';
import { INSULATIONS } from '../units/ampacity';
import { JURISDICTIONS, type Jurisdiction } from '../units/preferences';
import { AWG_GAUGES, wireArea, type Gauge } from '../units/wire';
import { valuesOf } from './calculators/calculator';
import { fuse } from './calculators/wiring';
import { fuseLimit, wireSpecOf } from './fuseLimit';
import { sizeRig, type Sizing } from './sizing';

const use = (rig: Rig) => usualScenarios({}, houseBankOf(rig)?.id).slice(0, 1);
const size = (rig: Rig, jurisdiction: Jurisdiction = 'us') => sizeRig(rig, use(rig), { jurisdiction });
/** Each rig as drawn, sized once. */
const sizedAsDrawn = new Map<string, Sizing>();
function asDrawn(name: string, rig: Rig): Sizing {
  const sized = sizedAsDrawn.get(name) ?? size(rig);
  sizedAsDrawn.set(name, sized);
  return sized;
}

/** NEC 551.10(E)(1), typed apart from the rule sets (from memory). */
const NEC: Partial<Record<Gauge, number>> = { '18': 6, '16': 8, '14': 15, '12': 20, '10': 30 };

describe('what is called good of a wire', () => {
  it.each(EVERY_RIG)('on %s carries what can flow in it and is fused as the code has it', (name, rig) => {
    const sized = asDrawn(name, rig);
    const byId = new Map(rig.conductors.map((c) => [c.id, c]));
    for (const run of sized.runs) {
      const fuses = sized.fuses.filter((f) => run.conductors.some((c) => f.protects.includes(c.id)));
      for (const row of run.table.rows) {
        if (row.verdict !== 'good') continue;
        expect(row.ampacity, `${run.name} ${row.gauge}`).toBeGreaterThanOrEqual(run.table.flows);
        for (const f of fuses) {
          expect(f.rating, `${run.name} ${row.gauge}`).toBeLessThanOrEqual(row.fuseLimit);
          const code = NEC[row.gauge];
          if (code !== undefined) expect(f.rating, `${run.name} ${row.gauge}`).toBeLessThanOrEqual(code);
        }
      }
      // Thicker is never worse than what is good.
      const first = run.table.rows.findIndex((r) => r.verdict === 'good');
      if (run.table.pick)
        expect(wireArea(run.table.pick)).toBeGreaterThanOrEqual(wireArea(run.table.rows[first]!.gauge));
    }
    for (const f of sized.fuses) {
      const limits = f.protects.map((id) => fuseLimit(wireSpecOf(byId.get(id)!), RULE_SETS.us).amps);
      if (limits.length > 0) expect(f.window.to).toBeCloseTo(Math.min(...limits), 6);
    }
  });

  it('never lets a thin wire behind a bigger fuse: no 14 AWG behind 30 A, no 18 AWG to a panel', () => {
    for (const [name, rig] of EVERY_RIG) {
      const sized = asDrawn(name, rig);
      for (const run of sized.runs) {
        const good = run.table.rows.filter((r) => r.verdict === 'good').map((r) => r.gauge);
        const feedsPanel = run.between.includes('loads');
        if (feedsPanel) expect(good, `${name}: ${run.name}`).not.toContain('18');
        const behind = sized.fuses.filter((f) => run.conductors.some((c) => f.protects.includes(c.id)));
        if (behind.some((f) => f.rating >= 30)) expect(good, `${name}: ${run.name}`).not.toContain('14');
      }
    }
  });
});

describe('the same wire, asked in five places', () => {
  it('gets one answer from sizing, fuses, rules and calculator', () => {
    fc.assert(
      fc.property(
        fc.nat(EVERY_RIG.length - 1),
        fc.nat(1000),
        fc.constantFrom(...AWG_GAUGES.slice(0, 9)),
        fc.constantFrom(...INSULATIONS),
        fc.constantFrom(10, 20, 30, 40, 60, 100, 150),
        fc.constantFrom(...JURISDICTIONS.map((j) => j.id)),
        (which, n, gauge, insulation, rating, jurisdiction) => {
          const [, drawn] = EVERY_RIG[which]!;
          const before = asDrawn(EVERY_RIG[which]![0], drawn);
          const check = before.fuses[n % Math.max(1, before.fuses.length)];
          if (!check || check.protects.length === 0) return;
          const wire = check.protects[n % check.protects.length]!;
          const rig = withPart(withConductor(drawn, wire, { gauge, insulation }), check.part, {
            params: { rating: { value: rating, spread: 0, provenance: 'nameplate' } },
          });
          const sized = size(rig, jurisdiction);
          const fused = sized.fuses.find((f) => f.part === check.part)!;
          if (!fused.protects.includes(wire)) return;
          const limit = fuseLimit(wireSpecOf(rig.conductors.find((c) => c.id === wire)!), RULE_SETS[jurisdiction]);
          // The calculator, asked by hand.
          const asked = fuse.answer(
            valuesOf(fuse, { amps: '0.1', gauge, insulation: String(insulation), place: 'open', jurisdiction }),
          );
          expect(asked.figures.find((f) => f.label === 'At most')!.value).toBeCloseTo(limit.amps, 6);
          if (rating <= limit.amps) return;
          // Too big for this wire: fuse, rule and gauge table all say so.
          expect(fused.window.to).toBeLessThanOrEqual(limit.amps + 1e-9);
          expect(fused.checks.find((k) => k.id === 'window')!.verdict).toBe('bad');
          const rules = checkDesign(rig, sized);
          expect(rules.some((f) => f.rule === 'fuse-over-wire' && f.at === check.part)).toBe(true);
          const run = sized.runs.find((r) => r.conductors.some((c) => c.id === wire) && r.table.now === gauge);
          if (run) expect(run.table.rows.find((r) => r.gauge === gauge)!.verdict).not.toBe('good');
        },
      ),
      { numRuns: 36, seed: 20261129 },
    );
  });

  it('depends on where the shop is: 40 A on 12 AWG in 125 °C jacket is too much in the US and Canada alone', () => {
    const [, drawn] = EVERY_RIG.find(([name]) => name === 'trailer, thin-line')!;
    const wires = drawn.conductors.filter((c) => c.use === 'feed').map((c) => c.id);
    const rig = withPart(
      wires.reduce((r, id) => withConductor(r, id, { gauge: '12', insulation: 125 }), drawn),
      'behind-fuse',
      { params: { rating: { value: 40, spread: 0, provenance: 'nameplate' } } },
    );
    const over = (j: Jurisdiction) =>
      checkDesign(rig, size(rig, j)).filter((f) => f.rule === 'fuse-over-wire' && f.at === 'behind-fuse');
    expect(over('us')[0]!.says).toContain('NEC 551.10(E)(1)');
    expect(over('ca')[0]!.source).toContain('CSA');
    for (const j of ['uk', 'eu', 'au-nz'] as const) expect(over(j)).toEqual([]);
  });
});
