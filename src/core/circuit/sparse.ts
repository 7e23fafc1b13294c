/**
 * Sparse LDLᵀ factorisation of a symmetric positive definite nodal matrix.
 *
 * The elimination order (minimum degree) and the list of updates are worked out once per topology, so
 * that a numeric factorisation is one pass over flat arrays. Method: any text on sparse direct solvers,
 * e.g. George and Liu, "Computer Solution of Large Sparse Positive Definite Systems" (1981).
 */
export class SparsePattern {
  readonly size: number;
  /** Elimination position of each node; −1 for the reference node 0. */
  readonly position: Int32Array;
  /** Column pointers and row indices (positions) of the strictly lower factor. */
  readonly columnStart: Int32Array;
  readonly rowIndex: Int32Array;
  /** Target slots of the updates, in the order the numeric factorisation walks them. */
  readonly updateSlots: Int32Array;

  /** @param nodeCount including the reference. @param edges pairs of nodes that share an element. */
  constructor(nodeCount: number, edges: readonly (readonly [number, number])[]) {
    this.size = nodeCount - 1;
    const neighbours: Set<number>[] = Array.from({ length: nodeCount }, () => new Set<number>());
    for (const [a, b] of edges) {
      if (a !== 0 && b !== 0 && a !== b) {
        neighbours[a]!.add(b);
        neighbours[b]!.add(a);
      }
    }
    this.position = new Int32Array(nodeCount).fill(-1);
    const columns: number[][] = [];
    const remaining = new Set<number>();
    for (let n = 1; n < nodeCount; n++) remaining.add(n);
    while (remaining.size > 0) {
      let best = -1;
      let bestDegree = Infinity;
      for (const n of remaining) {
        const degree = neighbours[n]!.size;
        if (degree < bestDegree) {
          best = n;
          bestDegree = degree;
        }
      }
      const adjacent = [...neighbours[best]!];
      for (const u of adjacent) {
        neighbours[u]!.delete(best);
        for (const w of adjacent) if (w !== u) neighbours[u]!.add(w);
      }
      this.position[best] = columns.length;
      columns.push(adjacent);
      remaining.delete(best);
    }
    this.columnStart = new Int32Array(this.size + 1);
    const rows: number[] = [];
    columns.forEach((adjacent, k) => {
      rows.push(...adjacent.map((u) => this.position[u]!).sort((x, y) => x - y));
      this.columnStart[k + 1] = rows.length;
    });
    this.rowIndex = Int32Array.from(rows);
    const updates: number[] = [];
    for (let k = 0; k < this.size; k++) {
      const end = this.columnStart[k + 1]!;
      for (let q = this.columnStart[k]!; q < end; q++) {
        for (let r = q + 1; r < end; r++) updates.push(this.slot(this.rowIndex[q]!, this.rowIndex[r]!));
      }
    }
    this.updateSlots = Int32Array.from(updates);
  }

  /** Index in the factor's value array of the entry between two positions. */
  slot(i: number, j: number): number {
    const column = Math.min(i, j);
    const row = Math.max(i, j);
    for (let q = this.columnStart[column]!; q < this.columnStart[column + 1]!; q++) {
      if (this.rowIndex[q] === row) return q;
    }
    throw new Error(`no slot for ${i}, ${j}: an edge is missing from the pattern`);
  }
}

export class SparseFactor {
  readonly diagonal: Float64Array;
  readonly lower: Float64Array;

  constructor(readonly pattern: SparsePattern) {
    this.diagonal = new Float64Array(pattern.size);
    this.lower = new Float64Array(pattern.rowIndex.length);
  }

  clear(): void {
    this.diagonal.fill(0);
    this.lower.fill(0);
  }

  /** Overwrites the assembled matrix with its factor; the diagonal then holds 1/d. */
  factorise(): void {
    const { diagonal: D, lower: L } = this;
    const { columnStart, rowIndex, updateSlots, size } = this.pattern;
    let u = 0;
    for (let k = 0; k < size; k++) {
      const inverse = 1 / D[k]!;
      D[k] = inverse;
      const end = columnStart[k + 1]!;
      for (let q = columnStart[k]!; q < end; q++) {
        const a = L[q]!;
        const l = a * inverse;
        const row = rowIndex[q]!;
        D[row] = D[row]! - l * a;
        for (let r = q + 1; r < end; r++) {
          const slot = updateSlots[u++]!;
          L[slot] = L[slot]! - l * L[r]!;
        }
        L[q] = l;
      }
    }
  }

  /** Solves in place for one right-hand side, by elimination position, that starts at `offset` in x. */
  solveInPlace(x: Float64Array, offset = 0): void {
    const { diagonal: D, lower: L } = this;
    const { columnStart, rowIndex, size } = this.pattern;
    for (let k = 0; k < size; k++) {
      const value = x[offset + k]!;
      if (value === 0) continue; // unit vectors start almost empty
      const end = columnStart[k + 1]!;
      for (let q = columnStart[k]!; q < end; q++) {
        const to = offset + rowIndex[q]!;
        x[to] = x[to]! - L[q]! * value;
      }
    }
    for (let k = size - 1; k >= 0; k--) {
      let value = x[offset + k]! * D[k]!;
      const end = columnStart[k + 1]!;
      for (let q = columnStart[k]!; q < end; q++) value -= L[q]! * x[offset + rowIndex[q]!]!;
      x[offset + k] = value;
    }
  }
}
