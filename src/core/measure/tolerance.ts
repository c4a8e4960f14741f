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
/** Directions whose cosine is more look along each other, when outlines are drawn. */
export const SEEN_ALONG = 1 - 1e-9;
/** An outline is asked for this far beside itself, radians: a rim may run along it. */
export const OUTLINE_BESIDE = 1e-6;
/** A face whose normal's cosine with the way of looking is less is seen edge on. */
export const EDGE_ON = 1e-6;
/** Faces whose normals' cosine differs from 1 by less go on into each other: 0.6°. */
export const SMOOTH_EDGE = 5e-5;
/** It is asked so far beside an edge whether something stands before it: five times what facets may be off; a share. */
export const BESIDE = 2.5e-4;
/** Blends of one radius differ by less, share of it: the library comes only near to them. */
export const SAME_BLEND = 1e-3;
/** The middle of what goes all round lies on its axis; share of how far it reaches. */
export const ON_AXIS = 1e-3;
