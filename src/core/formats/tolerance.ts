/** Named tolerances of the room formats. */

/** Ends nearer than this share of the drawing's size are one. */
export const ONE = 1e-7;
/** A height above the drawing plane that counts, mm. */
export const HEIGHT = 1e-9;
/** A direction is that of the drawing plane within this. */
export const SQUARE = 1e-9;
/** Lengths below this are nothing, mm. */
export const NOTHING = 1e-9;
/** Weights that differ by less share are one. */
export const SAME_WEIGHT = 1e-12;
/** Half axes that differ by less share make a circle. */
export const ROUND = 1e-9;
/**
 * Points nearer than this are one, mm: faces share their edges' points exactly, but for rounding to single precision.
 */
export const WELD = 1e-5;
/** Poles whose sine is less stand in one line. */
export const IN_LINE = 1e-12;
