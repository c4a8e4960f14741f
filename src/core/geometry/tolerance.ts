/**
 * Tolerances that every room may ask for. A room's own stand in a file of this name beside its code; nowhere else does
 * a power of ten decide anything.
 */

/** Places nearer than this are one, mm: the kernel's own confusion is 1e-7, a drawing shows 1e-3. */
export const COINCIDENT = 1e-6;
/** Directions whose sine differs by less are one, and angles nearer than this, radians: far above rounding. */
export const SAME_WAY = 1e-9;
/** What rounding may leave of a number of size 1. */
export const ROUNDING = 1e-12;
/** Added to a divisor that may vanish, so that the quotient stays finite; changes no other. */
export const TINY = 1e-300;
/** Parameters of a spline's points are at least so far apart. */
export const KNOT_GAP = 1e-3;
/** Damping of the step towards a meeting, share of the squared speeds. */
export const CAUTION = 1e-10;
