import { SAME_WAY } from "./tolerance";
import { add3, cross3, dot3, perAxis, type Vec3 } from "./vector";

/** Rows of a rotation matrix and a shift: p -> R p + t. Millimetres. */
export interface Rigid {
  readonly rows: readonly [Vec3, Vec3, Vec3];
  readonly shift: Vec3;
}

export const IDENTITY: Rigid = {
  rows: [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ],
  shift: [0, 0, 0],
};
export const turn = (m: Rigid, v: Vec3): Vec3 => [dot3(m.rows[0], v), dot3(m.rows[1], v), dot3(m.rows[2], v)];
export const move = (m: Rigid, p: Vec3): Vec3 => add3(turn(m, p), m.shift);

type Triad = readonly [Vec3, Vec3, Vec3];
/**
 * The rotation that takes the orthonormal triad `from` to `to`, as rows: R = Σ to_k ⊗ from_k. A left-handed pair
 * gives a reflection.
 */
export function rotationBetween(from: Triad, to: Triad): Rigid["rows"] {
  const row = (i: 0 | 1 | 2): Vec3 =>
    perAxis((j) => to[0][i] * from[0][j] + to[1][i] * from[1][j] + to[2][i] * from[2][j]);
  return [row(0), row(1), row(2)];
}

/**
 * Entries within 1e-9 of -1, 0 or 1 are put exactly there, so that parts placed along axes meet without a hair's
 * tilt.
 */
export const snapRows = (rows: Rigid["rows"]): Rigid["rows"] =>
  rows.map((r) =>
    r.map((v) => (Math.abs(v - Math.round(v)) < SAME_WAY ? Math.round(v) + 0 : v)),
  ) as unknown as Rigid["rows"];

export const determinant = (rows: Rigid["rows"]): number => dot3(rows[0], cross3(rows[1], rows[2]));
