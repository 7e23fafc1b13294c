/**
 * Fuses against the gates of their standards, typed here once more from memory of the published tables, and against
 * what every fuse must keep to whatever its table.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FUSE_KINDS, fuseKind, interruptsAt, opensAtEarliest, opensAtLatest, opensSeconds } from './fuses';

/** Share of rating → seconds it may take, from and to. */
const PUBLISHED: readonly (readonly [kind: string, standard: string, gates: readonly (readonly number[])[]])[] = [
  [
    'blade',
    'ISO 8820-3',
    [
      [1.35, 0.75, 600],
      [1.6, 0.25, 50],
      [2, 0.15, 5],
      [3.5, 0.04, 0.5],
      [6, 0.02, 0.1],
    ],
  ],
  [
    'blade-large',
    'ISO 8820-3 type E',
    [
      [1.35, 60, 1800],
      [2, 2, 60],
      [3.5, 0.2, 7],
      [6, 0.04, 1],
    ],
  ],
  [
    'bolt-large',
    'ISO 8820-5',
    [
      [1.35, 120, 1800],
      [2, 1, 15],
      [3.5, 0.3, 5],
      [6, 0.1, 1],
    ],
  ],
  [
    'bolt-58',
    'ISO 8820-5',
    [
      [1.35, 120, 1800],
      [2, 1, 15],
      [3.5, 0.3, 5],
      [6, 0.1, 1],
    ],
  ],
];

describe('a fuse’s time', () => {
  it.each(PUBLISHED)('of %s stands in the gates of %s', (id, _, gates) => {
    const kind = fuseKind(id)!;
    for (const [multiple, from, to] of gates) {
      expect(opensSeconds(kind, multiple!)).toBeGreaterThanOrEqual(from!);
      expect(opensSeconds(kind, multiple!)).toBeLessThanOrEqual(to!);
      expect(opensAtEarliest(kind, multiple!)).toBeCloseTo(from!, 9);
      expect(opensAtLatest(kind, multiple!)).toBeCloseTo(to!, 9);
    }
  });

  it.each(FUSE_KINDS.map((k) => [k.id, k] as const))('of %s: %#', (_, kind) => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.36, max: 40, noNaN: true }),
        fc.double({ min: 1, max: 1.5, noNaN: true }),
        (m, more) => {
          // The quickest, the usual, the slowest, in that order; and never slower for more.
          expect(opensAtEarliest(kind, m)).toBeLessThanOrEqual(opensSeconds(kind, m) * (1 + 1e-9));
          expect(opensSeconds(kind, m)).toBeLessThanOrEqual(opensAtLatest(kind, m) * (1 + 1e-9));
          for (const time of [opensAtEarliest, opensSeconds, opensAtLatest])
            expect(time(kind, m * more)).toBeLessThanOrEqual(time(kind, m) * (1 + 1e-9));
        },
      ),
    );
  });

  it('beyond its last gate keeps its I²t: twice the current, a quarter of the time', () => {
    for (const kind of FUSE_KINDS) {
      const last = kind.gates.at(-1)!;
      for (const time of [opensAtEarliest, opensSeconds, opensAtLatest]) {
        const at = time(kind, last.multiple);
        expect(time(kind, 2 * last.multiple)).toBeCloseTo(at / 4, 9);
        expect(time(kind, 10 * last.multiple)).toBeCloseTo(at / 100, 9);
      }
    }
  });

  it('at its rating and up to a tenth over it is for ever', () => {
    for (const kind of FUSE_KINDS)
      for (const m of [0.2, 1, 1.1]) {
        expect(opensAtEarliest(kind, m)).toBe(Infinity);
        expect(opensSeconds(kind, m)).toBe(Infinity);
        expect(opensAtLatest(kind, m)).toBe(Infinity);
      }
    // Between, the standard lets it open, and lets it hold.
    expect(opensAtEarliest(fuseKind('blade')!, 1.2)).toBe(0.75);
    expect(opensAtLatest(fuseKind('blade')!, 1.2)).toBe(Infinity);
  });

  it('of a class T is quick: at ten times its rating within a fiftieth of a second', () => {
    expect(opensAtLatest(fuseKind('class-t')!, 10)).toBeLessThanOrEqual(0.02);
    expect(opensAtLatest(fuseKind('bolt-large')!, 10)).toBeGreaterThan(0.1);
  });
});

describe('the kinds of fuse', () => {
  it('are listed in rising ratings, once each', () => {
    for (const { id, ratings } of FUSE_KINDS) {
      expect(
        [...ratings].sort((a, b) => a - b),
        id,
      ).toEqual([...ratings]);
      expect(new Set(ratings).size, id).toBe(ratings.length);
    }
    expect(new Set(FUSE_KINDS.map((k) => k.id)).size).toBe(FUSE_KINDS.length);
    expect(fuseKind('of wood')).toBeUndefined();
  });

  /** Ratings made, from memory of the standards' tables and of the shelves: the least, the most. */
  it.each([
    ['blade', 1, 40, 32],
    ['blade-mini', 2, 30, 32],
    ['blade-micro', 5, 30, 32],
    ['blade-large', 20, 100, 32],
    ['cartridge', 20, 60, 32],
    ['strip', 35, 750, 32],
    ['bolt-small', 30, 200, 32],
    ['bolt-large', 60, 500, 32],
    ['bolt-58', 30, 300, 58],
    ['terminal', 30, 300, 58],
    ['class-t', 15, 400, 125],
  ] as const)('%s is made from %d to %d A, for %d V', (id, least, most, volts) => {
    const kind = fuseKind(id)!;
    expect([kind.ratings[0], kind.ratings.at(-1), kind.volts]).toEqual([least, most, volts]);
  });

  it('have what a shelf has of each: the ratings that are asked for most', () => {
    for (const [id, wanted] of [
      ['blade', [1, 2, 3, 10, 15, 20, 30, 35]],
      ['blade-large', [35, 40, 50, 60, 80, 100]],
      ['bolt-small', [60, 100, 150]],
      ['bolt-large', [100, 150, 200, 250]],
      ['class-t', [110, 200, 300, 400]],
    ] as const)
      for (const amps of wanted) expect(fuseKind(id)!.ratings, id).toContain(amps);
  });

  /** From memory of the standards and of makers' sheets: what a kind breaks at the volts of a 12, 24 and 48 V system. */
  it.each([
    ['blade', 1000, 1000, 0],
    ['blade-large', 1000, 1000, 0],
    ['bolt-small', 2000, 2000, 0],
    ['bolt-large', 2000, 2000, 0],
    ['bolt-58', 2500, 2500, 2500],
    ['terminal', 10_000, 5000, 2000],
    ['class-t', 20_000, 20_000, 20_000],
  ] as const)('%s opens into %d A at 14.5 V, %d A at 29 V, %d A at 58 V', (id, at12, at24, at48) => {
    const kind = fuseKind(id)!;
    expect([14.5, 29, 58].map((volts) => interruptsAt(kind, volts))).toEqual([at12, at24, at48]);
  });

  it('never open into more at more volts, and into nothing beyond what they are made for', () => {
    for (const kind of FUSE_KINDS) {
      expect(interruptsAt(kind, kind.volts)).toBeGreaterThan(0);
      expect(interruptsAt(kind, kind.volts + 1)).toBe(0);
      for (let volts = 2; volts <= kind.volts; volts++)
        expect(interruptsAt(kind, volts), `${kind.id} ${volts} V`).toBeLessThanOrEqual(interruptsAt(kind, volts - 1));
    }
  });
});
