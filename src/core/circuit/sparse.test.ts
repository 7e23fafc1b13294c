import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRng } from '../units/rng';
import { portCurrent, portValueSlopes } from './ports';
import { solveDense } from './small';
import { SparseFactor, SparsePattern } from './sparse';

describe('sparse factorisation', () => {
  it('solves what dense elimination solves', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const rng = seededRng(seed);
        const n = 3 + Math.floor(rng.uniform() * 20);
        const edges: [number, number][] = [];
        for (let k = 1; k <= n; k++) edges.push([k, Math.floor(rng.uniform() * k)]);
        for (let k = 0; k < n; k++) edges.push([1 + Math.floor(rng.uniform() * n), 1 + Math.floor(rng.uniform() * n)]);
        const pattern = new SparsePattern(n + 1, edges);
        const factor = new SparseFactor(pattern);
        const dense = new Float64Array(n * n);
        factor.clear();
        for (const [a, b] of edges) {
          if (a === b) continue;
          const g = 0.1 + 10 * rng.uniform();
          const [pa, pb] = [pattern.position[a]!, pattern.position[b]!];
          for (const p of [pa, pb]) {
            if (p < 0) continue;
            factor.diagonal[p] = factor.diagonal[p]! + g;
            dense[p * n + p] = dense[p * n + p]! + g;
          }
          if (pa >= 0 && pb >= 0) {
            const slot = pattern.slot(pa, pb);
            factor.lower[slot] = factor.lower[slot]! - g;
            dense[pa * n + pb] = dense[pa * n + pb]! - g;
            dense[pb * n + pa] = dense[pb * n + pa]! - g;
          }
        }
        const rhs = Float64Array.from({ length: n }, () => rng.normal());
        const x = Float64Array.from(rhs);
        factor.factorise();
        factor.solveInPlace(x);
        expect(solveDense(dense, rhs, n)).toBe(true);
        for (let k = 0; k < n; k++) expect(x[k]).toBeCloseTo(rhs[k]!, 8);
      }),
    );
  });

  it('solves several right-hand sides dense, and says when it cannot', () => {
    const A = Float64Array.from([0, 2, 1, 0]);
    const b = Float64Array.from([2, 4, 3, 5]);
    expect(solveDense(A, b, 2, 2)).toBe(true);
    expect([...b]).toEqual([3, 5, 1, 2]);
    expect(solveDense(Float64Array.from([1, 2, 2, 4]), Float64Array.from([1, 1]), 2)).toBe(false);
  });
});

describe('nonlinear elements', () => {
  const out = new Float64Array(3);
  const current = (kind: 'source' | 'overvoltage', values: number[], u: number) => {
    portCurrent(kind, Float64Array.from(values), 0, u, out);
    return [out[0]!, out[1]!] as const;
  };
  const kinds = fc.constantFrom(['source', [14, 0.01, 60]] as const, ['overvoltage', [0.6, 0.1, 0.03]] as const);

  it('never push more current into a higher voltage: what makes the solution unique', () => {
    fc.assert(
      fc.property(
        kinds,
        fc.double({ min: -20, max: 20, noNaN: true }),
        fc.double({ min: 1e-6, max: 5, noNaN: true }),
        ([kind, values], u, more) => {
          const [i0, slope] = current(kind, [...values], u);
          const [i1] = current(kind, [...values], u + more);
          expect(i1).toBeLessThanOrEqual(i0);
          expect(slope).toBeLessThanOrEqual(0);
          expect(Number.isFinite(i0)).toBe(true);
        },
      ),
    );
  });

  it('have the slopes they say, by voltage and by each of their values', () => {
    for (const [kind, values, us] of [
      ['source', [14, 0.01, 60], [13.9, 13.5, 12, 15]],
      ['overvoltage', [0.6, 0.1, 0.03], [0.05, 0.3, -0.05, -0.12]],
    ] as const) {
      for (const u of us) {
        const h = 1e-7;
        const [, slope] = current(kind, [...values], u);
        const numeric = (current(kind, [...values], u + h)[0] - current(kind, [...values], u - h)[0]) / (2 * h);
        expect(Math.abs(slope - numeric)).toBeLessThan(1e-4 * Math.abs(numeric) + 1e-4);
        portValueSlopes(kind, Float64Array.from(values), 0, u, out);
        const slopes = [...out];
        values.forEach((v, k) => {
          const moved = (d: number) =>
            current(
              kind,
              values.map((x, j) => (j === k ? v + d : x)),
              u,
            )[0];
          const byValue = (moved(h) - moved(-h)) / (2 * h);
          expect(Math.abs(slopes[k]! - byValue), `${kind} at ${u}, value ${k}`).toBeLessThan(
            1e-4 * Math.abs(byValue) + 1e-4,
          );
        });
      }
    }
  });
});
