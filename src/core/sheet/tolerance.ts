/** Named tolerances of the room sheet. */

/** Distances below this (mm) are drawing noise: far below a line's width at any scale used. */
export const NEAR = 1e-4;
/** Directions whose cosine is less are drawn square to each other. */
export const SQUARE = 1e-6;
/** Drawn lines whose sine is less are parallel. */
export const DRAWN_PARALLEL = 1e-6;
/** An arc that lacks less than this of a turn is a whole one, radians. */
export const WHOLE_TURN = 1e-6;
/** Directions whose cosine with a view's own is more are drawn along it. */
export const ALONG_VIEW = 0.999;
/** Points nearer to a drawn line lie on it; share of the view's size: arcs are followed by chords. */
export const ON_STROKE = 2e-3;
/** A part is turned where so much of its surface turns about one axis; share. */
export const TURNED_SHARE = 0.75;
/** Directions on paper whose sine is less are level, or upright. */
export const LEVEL = 1e-6;
/** Angles that differ by less are the same, radians. */
export const SAME_ANGLE = 1e-6;
/** Free paths this near to another line are covered by it, mm: their curves are approximations, followed by chords. */
export const COVERED = 0.02;
/** Edges that are computed where two faces meet lie on what they stand for but for this, mm. */
export const COMPUTED = 1e-3;
/** What is drawn shorter than this is noise, mm. */
export const POINT = 0.05;
/** Arcs of a larger radius are drawn as free lines, mm. */
export const FLAT_ARC = 1e4;
/** The area of a ring whose tube is whole is that of the tube; share of it. */
export const WHOLE_TUBE = 1e-3;
