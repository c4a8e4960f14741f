/** Named tolerances of the measure room; lengths relative to the size of the body (box diagonal). */

/** Two directions are one below this angle (radians). */
export const SAME_DIRECTION = 1e-7;
/** Two carriers coincide below this share of the size: far above rebuild noise, far below any drawing tolerance. */
export const SAME_PLACE = 1e-7;
/** Corners of facets nearer than this are one: what single-precision numbers leave open; share of the size. */
export const ONE_POINT = 2e-7;
/** Facets whose normals differ by less lie in one plane, radians. */
export const FLAT = 1e-4;
/** Facets that turn by more meet in an edge, radians; by less they stand for a round surface. */
export const CREASE = 0.6;
