/** The papers of every demo job in every setting of a shop: whole sentences, units, nothing only a program would say. */
import { EVERY_RIG } from '../../../tests/everyRig';
import { describe, expect, it } from 'vitest';
import { exampleJob } from '../../../tests/answers';
import { currentRevision } from '../job/job';
import { DEFAULT_SETTINGS, type Settings } from '../shop/shop';
import type { Rig } from '../rig/schema';
import { reportOf } from './report';
import { wiringOf } from './wiring/sheet';
import { svgOf } from './wiring/svg';

const JOBS = ['heron', 'heron-1009', 'pika', 'dipper', 'marmot', 'osprey', 'wren'] as const;
const SHOPS: [string, Settings][] = [
  ['feet and AWG', DEFAULT_SETTINGS],
  ['metres and mm²', { ...DEFAULT_SETTINGS, length: 'm', gauge: 'mm2', temperature: 'C' }],
];
const SLIPS = /undefined|NaN|\[object|Infinity|null\b/;
/** Every text in a document, however deep. */
function texts(value: unknown): string[] {
  if (typeof value === 'string') return [value];
  if (Array.isArray(value)) return value.flatMap(texts);
  if (typeof value === 'object' && value !== null) return Object.values(value).flatMap(texts);
  return [];
}

describe.each(JOBS)('the report of %s', (name) => {
  it.each(SHOPS)('in %s', (_, settings) => {
    const job = exampleJob(name);
    const report = reportOf(job, settings);
    for (const text of texts(report)) expect(text).not.toMatch(SLIPS);
    expect(report.job).toBe(job.number);
    expect(report.complaint).toContain(job.complaint.words.slice(0, 20));
  });
});

const rigs: (readonly [string, Rig])[] = [
  ...EVERY_RIG,
  ...JOBS.map((name): [string, Rig] => [name, currentRevision(exampleJob(name)).doc]),
];

describe.each(rigs)('the wiring of %s', (_, rig) => {
  it.each(SHOPS)('in %s: every wire once, numbered, with both ends; well-formed, inside its sheet', (__, settings) => {
    const { drawing, wires } = wiringOf(rig, settings);
    expect(wires.length).toBe(rig.conductors.length);
    expect(new Set(wires.map((w) => w.wire)).size).toBe(wires.length);
    for (const text of texts(wires)) expect(text).not.toMatch(SLIPS);
    const svg = svgOf(drawing);
    expect(svg).not.toMatch(SLIPS);
    // Every tag that is opened is closed, in order.
    const open: string[] = [];
    for (const [, close, tag, self] of svg.matchAll(/<(\/?)([a-z]+)(?:\s[^>]*?)?(\/?)>/g)) {
      if (self) continue;
      if (close) expect(open.pop()).toBe(tag);
      else open.push(tag!);
    }
    expect(open).toEqual([]);
    for (const [, x, y] of svg.matchAll(/<text x="(-?[\d.]+)" y="(-?[\d.]+)"/g)) {
      expect(Number(x)).toBeGreaterThanOrEqual(-1);
      expect(Number(x)).toBeLessThanOrEqual(drawing.width + 1);
      expect(Number(y)).toBeGreaterThanOrEqual(-1);
      expect(Number(y)).toBeLessThanOrEqual(drawing.height + 1);
    }
  });
});
