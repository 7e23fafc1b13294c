import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../../db/demo/jobs';
import { motorhome } from '../../rig/archetypes/motorhome';
import { jobCandidates } from '../../jobAnswers/options';
import { currentRevision } from '../../job/job';
import type { Shape } from './drawing';
import { wireLabels } from './names';
import { wiringOf } from './sheet';
import { svgOf } from './svg';

const UNITS = { length: 'ft', gauge: 'awg' } as const;
const jobs = demoJobs(new Date('2026-11-24T16:00:00Z'));
const rigs = [
  ...jobs.map((j) => currentRevision(j).doc),
  ...jobCandidates(jobs[1]!).map((c) => c.rig),
  motorhome('m', 'Front engine'),
];
const lines = (shapes: readonly Shape[]) =>
  shapes.filter((s): s is Extract<Shape, { kind: 'line' }> => s.kind === 'line' && !s.white);
const texts = (shapes: readonly Shape[]) =>
  shapes.filter((s): s is Extract<Shape, { kind: 'text' }> => s.kind === 'text');

describe('the wiring diagram', () => {
  it.each(rigs.map((r, i) => [`${i} ${r.name}`, r] as const))(
    'of %s shows every wire, part and probe once, inside the sheet',
    (_, rig) => {
      const { drawing, wires, grounds } = wiringOf(rig, UNITS);
      expect(wires.map((w) => w.wire)).toEqual([...wireLabels(rig).values()]);
      const words = texts(drawing.shapes).map((t) => t.text);
      for (const w of wires)
        expect(
          words.filter((t) => new RegExp(`(^|, )${w.wire}\\b`).test(t)),
          w.wire,
        ).toHaveLength(1);
      for (const p of rig.probes.filter((x) => !x.retired && !x.key.endsWith('.clamp'))) {
        const [part, terminal] = p.key.split('.');
        const wired = rig.conductors.some((c) =>
          [c.from, c.to].some((e) => e.part === part && e.terminal === terminal),
        );
        if (wired && rig.parts.some((x) => x.id === part))
          expect(
            words.filter((t) => t.endsWith(` ${p.label}`)),
            p.label,
          ).toHaveLength(1);
      }
      // Where a clamp goes is told in the schedule, beside its wire.
      for (const p of rig.probes.filter((x) => !x.retired && x.key.endsWith('.clamp')))
        expect(
          wires.filter((w) => w.name.endsWith(`clamp ${p.label}`)),
          p.label,
        ).toHaveLength(1);
      expect(grounds.length).toBe(rig.grounds.flatMap((g) => g.points).length);
      for (const s of drawing.shapes) {
        const xs = s.kind === 'line' ? s.points.map((p) => p[0]) : s.kind === 'box' ? [s.x, s.x + s.w] : [s.x];
        for (const x of xs) expect(x >= 0 && x <= drawing.width, JSON.stringify(s)).toBe(true);
      }
    },
  );

  it('never lets two risers of different pins lie on each other: that would be a join', () => {
    for (const rig of rigs) {
      const risers = lines(wiringOf(rig, UNITS).drawing.shapes)
        .filter((l) => l.points.length === 4)
        .flatMap((l) => [
          [l.points[0]!, l.points[1]!],
          [l.points[2]!, l.points[3]!],
        ])
        .map(([a, b]) => ({
          x: a![0],
          pin: a![1] === b![1] ? a![1] : 0,
          lo: Math.min(a![1], b![1]),
          hi: Math.max(a![1], b![1]),
          end: `${a![0].toFixed(2)}`,
        }));
      const xs = [...new Set(risers.map((r) => r.end))].map(Number).sort((a, b) => a - b);
      for (let i = 1; i < xs.length; i++) expect(xs[i]! - xs[i - 1]!).toBeGreaterThan(1);
    }
  });

  it('keeps conductors on one track apart', () => {
    for (const rig of rigs) {
      const runs = lines(wiringOf(rig, UNITS).drawing.shapes)
        .filter((l) => l.points.length === 4)
        .map((l) => ({
          y: l.points[1]![1],
          lo: Math.min(l.points[1]![0], l.points[2]![0]),
          hi: Math.max(l.points[1]![0], l.points[2]![0]),
          key: JSON.stringify(l.points),
        }));
      for (const a of runs)
        for (const b of runs)
          if (a.key !== b.key && a.y === b.y)
            expect(a.hi <= b.lo + 1e-6 || b.hi <= a.lo + 1e-6, `${a.key} ${b.key}`).toBe(true);
    }
  });

  it('leaves as SVG that no name can break out of', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 30 }), (name) => {
        const rig = { ...rigs[1]!, name };
        const svg = svgOf(wiringOf(rig, UNITS).drawing);
        expect(svg).not.toMatch(/<(?!\/?(svg|title|rect|polyline|circle|text)\b|\?xml)/);
        expect(svg.match(/<text /g)!.length).toBe(svg.match(/<\/text>/g)!.length);
      }),
      { numRuns: 20 },
    );
    expect(svgOf(wiringOf({ ...rigs[1]!, name: '<script>"x"&' }, UNITS).drawing)).toContain(
      '&lt;script&gt;&quot;x&quot;&amp;',
    );
  });
});
