import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { coupledRig, USUAL_COUPLED } from '../../core/rig/archetypes/coupled';
import {
  COUPLED_FAMILIES,
  linksFor,
  type CoupledFamily,
  type CoupledLink,
} from '../../core/rig/archetypes/coupledChoices';
import { motorhome } from '../../core/rig/archetypes/motorhome';
import { withPieces } from '../../core/rig/applyEdit';
import { insertFuse } from '../../core/rig/insertFuse';
import { spread } from './isotonic';
import { LEAST_PITCH, LEAST_PLATE, NAME_BEGINS, nameWidth, STRIP } from './geometry';
import { stripLayout } from './layout';
import { feetTicks, rulerLabels } from './ruler';

describe('spreading along a line', () => {
  it('keeps order and room, stays inside, and leaves things alone that have room already', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: -200, max: 1400, noNaN: true }), fc.integer({ min: 10, max: 60 })), {
          minLength: 1,
          maxLength: 18,
        }),
        (list) => {
          const sorted = [...list].sort((a, b) => a[0] - b[0]);
          const wanted = sorted.map((x) => x[0]);
          const room = sorted.map((x) => x[1]);
          const xs = spread(wanted, room, 0, 1160);
          for (let i = 1; i < xs.length; i++)
            expect(xs[i]! - xs[i - 1]!).toBeGreaterThanOrEqual((room[i]! + room[i - 1]!) / 2 - 1e-6);
          expect(xs[0]! - room[0]! / 2).toBeGreaterThanOrEqual(-1e-6);
          expect(xs.at(-1)! + room.at(-1)! / 2).toBeLessThanOrEqual(1160 + 1e-6);
        },
      ),
    );
    expect(spread([100, 300, 900], [50, 50, 50], 0, 1160)).toEqual([100, 300, 900]);
  });
});

describe('the loom strip of the coach', () => {
  const rig = motorhome('strip', 'Strip coach');
  const layout = stripLayout(rig);

  it('draws every part, every feed and control wire, every probe', () => {
    expect(layout.columns.map((c) => c.part.id).sort()).toEqual(rig.parts.map((p) => p.id).sort());
    expect(layout.flags.map((f) => f.label).sort()).toEqual(rig.probes.map((p) => p.label).sort());
    for (const c of rig.conductors.filter((x) => x.use !== 'return'))
      expect(
        layout.wires.some((w) => w.id === c.id),
        c.id,
      ).toBe(true);
  });

  it('keeps parts at a pitch of 84 px in order of station, on the paper', () => {
    for (let i = 1; i < layout.columns.length; i++) {
      expect(layout.columns[i]!.x - layout.columns[i - 1]!.x).toBeGreaterThanOrEqual(83);
      expect(layout.columns[i]!.part.station).toBeGreaterThanOrEqual(layout.columns[i - 1]!.part.station);
    }
    for (const c of layout.columns) expect(c.x).toBeGreaterThan(40);
  });

  it('no two flags of a row overlap, none leaves the paper', () => {
    for (const low of [true, false]) {
      const xs = layout.flags.filter((f) => f.low === low).map((f) => f.x);
      for (let i = 1; i < xs.length; i++)
        expect(xs[i]! - xs[i - 1]!).toBeGreaterThanOrEqual(low ? layout.chipWidth : 72);
      for (const x of xs) expect(x).toBeGreaterThan(20);
      for (const x of xs) expect(x).toBeLessThan(STRIP.width - 20);
    }
  });

  it('wires of different nets never share a stretch of a lane', () => {
    const byLane = new Map<number, { id: string; from: number; to: number }[]>();
    for (const c of rig.conductors.filter((x) => x.use !== 'return')) {
      const w = layout.wires.find((x) => x.id === c.id)!;
      const lane = w.points[1]![1];
      const xs = [w.points[1]![0], w.points[2]![0]].sort((a, b) => a - b);
      byLane.set(lane, [...(byLane.get(lane) ?? []), { id: c.id, from: xs[0]!, to: xs[1]! }]);
    }
    const ends = (id: string) => {
      const c = rig.conductors.find((x) => x.id === id)!;
      return [`${c.from.part}.${c.from.terminal}`, `${c.to.part}.${c.to.terminal}`];
    };
    for (const list of byLane.values()) {
      for (const a of list)
        for (const b of list) {
          if (a.id >= b.id || a.to <= b.from || b.to <= a.from) continue;
          expect(
            ends(a.id).some((e) => ends(b.id).includes(e)),
            `${a.id} over ${b.id}`,
          ).toBe(true);
        }
    }
  });

  it('the ruler runs the whole length without crowding its figures', () => {
    const ticks = feetTicks(layout);
    for (let i = 1; i < ticks.length; i++) expect(ticks[i]!.x0).toBeCloseTo(ticks[i - 1]!.x1, 6);
    const labels = rulerLabels(layout, 'ft', 26);
    for (let i = 1; i < labels.length; i++) expect(labels[i]!.x - labels[i - 1]!.x).toBeGreaterThanOrEqual(26);
  });
});

describe.each(COUPLED_FAMILIES.flatMap(({ id }) => linksFor(id).map((l): [string, string] => [id, l.id])))(
  'the loom strip of a %s with %s',
  (family, link) => {
    const rig = coupledRig('t', 'T', { ...USUAL_COUPLED[family as CoupledFamily], link: link as CoupledLink });
    const layout = stripLayout(rig);
    const { columns } = layout;

    it('no two flags of a row overlap, none leaves the paper', () => {
      for (const low of [true, false]) {
        const xs = layout.flags.filter((f) => f.low === low).map((f) => f.x);
        const width = low ? layout.chipWidth : layout.plateWidth;
        expect(width).toBeGreaterThanOrEqual(low ? 50 : 64);
        for (let i = 1; i < xs.length; i++) expect(xs[i]! - xs[i - 1]!).toBeGreaterThanOrEqual(width);
        for (const x of xs) {
          expect(x - width / 2).toBeGreaterThanOrEqual(0);
          expect(x + width / 2).toBeLessThanOrEqual(layout.width);
        }
      }
    });

    it('no name runs into the next, no icon into another, all on the paper', () => {
      for (let i = 1; i < columns.length; i++) {
        const gap = columns[i]!.x - columns[i - 1]!.x;
        expect(gap, columns[i - 1]!.part.name).toBeGreaterThanOrEqual(
          Math.max(LEAST_PITCH, nameWidth(columns[i - 1]!.part.name)) - 1,
        );
      }
      const last = columns.at(-1)!;
      expect(columns[0]!.x - 38).toBeGreaterThanOrEqual(0);
      expect(last.x - 38 + nameWidth(last.part.name)).toBeLessThanOrEqual(layout.width);
    });
  },
);

describe('the loom strip of a rig somebody has added to', () => {
  const drawn = [motorhome('t', 'T'), ...COUPLED_FAMILIES.map(({ id }) => coupledRig('t', 'T', USUAL_COUPLED[id]))];
  it('takes the room it needs: nothing overlaps, nothing leaves the paper, the ruler never runs backwards', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...drawn),
        fc.array(fc.tuple(fc.nat(40), fc.constantFrom('from' as const, 'to' as const)), { maxLength: 9 }),
        (start, fuses) => {
          const rig = fuses.reduce((r, [k, end]) => {
            const feeds = r.conductors.filter((c) => c.use === 'feed' && r.parts.some((p) => p.id === c[end].part));
            return withPieces(r, insertFuse(r, feeds[k % feeds.length]!, end, 60, 'bolt-large'));
          }, start);
          const layout = stripLayout(rig);
          const { columns, width } = layout;
          expect(width).toBeGreaterThanOrEqual(STRIP.width);
          for (let i = 1; i < columns.length; i++) {
            const gap = columns[i]!.x - columns[i - 1]!.x;
            expect(gap, columns[i - 1]!.part.name).toBeGreaterThanOrEqual(
              Math.max(LEAST_PITCH, nameWidth(columns[i - 1]!.part.name)) - 1,
            );
          }
          for (const { part, x } of [columns[0]!, columns.at(-1)!]) {
            expect(x - NAME_BEGINS, part.name).toBeGreaterThanOrEqual(0);
            expect(x - NAME_BEGINS + nameWidth(part.name), part.name).toBeLessThanOrEqual(width);
          }
          for (const low of [true, false]) {
            const xs = layout.flags.filter((f) => f.low === low).map((f) => f.x);
            const plate = low ? layout.chipWidth : layout.plateWidth;
            expect(plate).toBeGreaterThanOrEqual(low ? 50 : LEAST_PLATE);
            for (let i = 1; i < xs.length; i++) expect(xs[i]! - xs[i - 1]!).toBeGreaterThanOrEqual(plate);
          }
          for (const w of layout.wires) {
            if (!w.label) continue;
            const half = w.label.text.length * 3.1;
            const { x, y } = w.label;
            for (const f of layout.flags)
              if (Math.abs(f.tap[1] - y) < 6)
                expect(Math.abs(f.tap[0] - x), `${w.id}, ${f.label}`).toBeGreaterThan(half);
          }
          for (const t of feetTicks(layout)) expect(t.x1).toBeGreaterThan(t.x0);
          for (const s of layout.shells) expect(s.x1).toBeGreaterThan(s.x0);
        },
      ),
      { numRuns: 150 },
    );
  });
});
