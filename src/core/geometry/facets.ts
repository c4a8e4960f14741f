/** Triangles by corners: x y z after each other, mm, and three indices a triangle. */
export interface Facets {
  readonly positions: Float64Array;
  readonly triangles: Uint32Array;
}

/** Facets a file may have: ten times what a part of an exercise needs. */
export const MOST_FACETS = 200_000;
