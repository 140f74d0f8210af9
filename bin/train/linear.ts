/** A little linear algebra for the training scripts. */

export type Matrix = Float64Array[];

export const zeros = (size: number): Matrix =>
  Array.from({ length: size }, () => new Float64Array(size));

export const at = (m: Matrix, i: number, k: number): number => m[i]?.[k] ?? 0;

/** Adds `weight * v * vᵀ`. */
export function addOuter(m: Matrix, v: ArrayLike<number>, weight: number): void {
  for (const [a, row] of m.entries()) {
    const x = weight * (v[a] ?? 0);
    if (x !== 0) for (let b = 0; b < row.length; b++) row[b] = (row[b] ?? 0) + x * (v[b] ?? 0);
  }
}

/** Eigenvalues and eigenvectors of a symmetric matrix, greatest first, by Jacobi's rotations. */
export function eigen(symmetric: Matrix): { value: number; vector: number[] }[] {
  const size = symmetric.length;
  const c = symmetric.map((row) => Float64Array.from(row));
  const e = zeros(size);
  for (let i = 0; i < size; i++) (e[i] as Float64Array)[i] = 1;
  for (let sweep = 0; sweep < 15; sweep++)
    for (let p = 0; p < size; p++) for (let q = p + 1; q < size; q++) rotate(c, e, p, q);
  return Array.from({ length: size }, (_, i) => ({
    value: at(c, i, i),
    vector: Array.from({ length: size }, (_, k) => at(e, k, i))
  })).sort((a, b) => b.value - a.value);
}

function rotate(c: Matrix, e: Matrix, p: number, q: number): void {
  const off = at(c, p, q);
  if (Math.abs(off) < 1e-14) return;
  const theta = (at(c, q, q) - at(c, p, p)) / (2 * off);
  const t = Math.sign(theta || 1) / (Math.abs(theta) + Math.hypot(theta, 1));
  const cos = 1 / Math.hypot(t, 1);
  const sin = t * cos;
  const turn = (x: number, y: number): [number, number] => [cos * x - sin * y, sin * x + cos * y];
  for (const m of [c, e]) for (const row of m) [row[p], row[q]] = turn(row[p] ?? 0, row[q] ?? 0);
  const [rowP, rowQ] = [c[p], c[q]];
  if (!rowP || !rowQ) return;
  for (let k = 0; k < c.length; k++) [rowP[k], rowQ[k]] = turn(rowP[k] ?? 0, rowQ[k] ?? 0);
}
