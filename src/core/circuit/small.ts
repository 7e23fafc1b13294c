/** Dense linear algebra for the handful of nonlinear ports: sizes of one to a dozen. */

/**
 * Solves A·x = b in place by Gaussian elimination with partial pivoting. A (n×n, row major) is
 * destroyed, b becomes x. Returns false when A is singular to working precision.
 */
export function solveDense(A: Float64Array, b: Float64Array, n: number, columns = 1): boolean {
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let r = k + 1; r < n; r++) if (Math.abs(A[r * n + k]!) > Math.abs(A[pivot * n + k]!)) pivot = r;
    const p = A[pivot * n + k]!;
    if (!(Math.abs(p) > 1e-300)) return false;
    if (pivot !== k) {
      for (let c = k; c < n; c++) swap(A, k * n + c, pivot * n + c);
      for (let c = 0; c < columns; c++) swap(b, k * columns + c, pivot * columns + c);
    }
    for (let r = k + 1; r < n; r++) {
      const l = A[r * n + k]! / p;
      if (l === 0) continue;
      for (let c = k + 1; c < n; c++) A[r * n + c] = A[r * n + c]! - l * A[k * n + c]!;
      for (let c = 0; c < columns; c++) b[r * columns + c] = b[r * columns + c]! - l * b[k * columns + c]!;
    }
  }
  for (let k = n - 1; k >= 0; k--) {
    const inverse = 1 / A[k * n + k]!;
    for (let c = 0; c < columns; c++) {
      let s = b[k * columns + c]!;
      for (let j = k + 1; j < n; j++) s -= A[k * n + j]! * b[j * columns + c]!;
      b[k * columns + c] = s * inverse;
    }
  }
  return true;
}

function swap(x: Float64Array, i: number, j: number): void {
  const t = x[i]!;
  x[i] = x[j]!;
  x[j] = t;
}
