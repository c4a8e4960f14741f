/** Named tolerances of the sketch room. Relative ones are fractions of the sketch's size. */

/** A residual below this counts as met while solving. */
export const RESIDUAL = 1e-12;
/** A residual below this, when progress has ended, still counts as met: cancellation in long chains. */
export const RESIDUAL_LOOSE = 1e-10;
/** A normalised row that shrinks below this under elimination depends on the rows before it. */
export const RANK = 1e-8;
/** What is left of a unit motion beside others, below this, is nothing of its own. */
export const LEFT_OVER = 1e-6;
/** A null vector's component below this does not move. */
export const MOVES = 1e-7;
/** The finite step that confirms a freedom, and the share of it that must survive the return to the constraints. */
export const PROBE = 1e-3;
export const PROBE_SURVIVES = 0.3;
/** Lines shorter and radii smaller than this have collapsed. */
export const COLLAPSED = 1e-9;
/**
 * Ends within this distance (mm) are one corner when regions are looked for: above solver noise, below drawing
 * accuracy.
 */
export const JOIN = 1e-6;
/**
 * An equation is settled by itself where it changes at least so much with its unknown: lengths with lengths, mostly
 * by 1.
 */
export const STEEP = 1e-3;
/**
 * How far beside the drawn place is tried before anything is called a conflict, as a share of the size; and how
 * often.
 */
export const NUDGE = 1e-3;
export const NUDGES = 2;
/** How far beside a drawing it is tried again, shares of its size, and how far from it the outcome may lie. */
export const STARTS_BESIDE = [0.01, 0.02, 0.03, 0.04, 0.06, 0.08, 0.1, 0.12, 0.15, 0.18];
export const BESIDE = 0.3;
/** How rough the starts are from which it is asked whether relations could be met at all. */
export const ROUGH = [0.02, 0.05, 0.1, 0.2, 0.3, 0.5, 0.8, 1.2];
/**
 * So many relations, summed over all tries, are solved at most to make a conflict smallest; then the set is told as
 * it is.
 */
export const CONFLICT_WORK = 40_000;
/** A size given within this of what is measured was read off the rounded figure shown: mm, radians. */
export const AS_SHOWN = { length: 0.006, angle: 2e-4 };
/** Mobility of what is held: it gives way last. */
export const HELD = 1e-5;
/** Numbers that agree to this share of the size are where they were. */
export const STILL = 1e-6;
/** A sketch may be scaled by this at least, and by its inverse at most. */
export const SMALLEST_SCALE = 1e-6;
/** A pivot of the damped system below this share counts as nothing. */
export const PIVOT = 1e-11;
/** The first damping when a whole step did not help. */
export const DAMPING = 1e-4;
/** Damping below this is none. */
export const NO_DAMPING = 1e-12;
/** An entry left by elimination that is rounding only. */
export const FILL = 1e-15;
/** How far along a curve its heading at an end is looked at: share of its parameter. */
export const STUB = 1e-4;
/** A curve leaves the axis squarely when the cosine is less than this. */
export const LEAVES_SQUARE = 1e-3;
/** A circle is never dragged smaller, share of the size. */
export const LEAST_RADIUS = 1e-4;
/** Keeps the root of a derivative finite: its square is still a number. */
export const TINY_ROOT = 1e-150;
/** An end on the mirror's axis is its own image within this share of the size. */
export const SAME_IMAGE = 1e-7;
/** Parameters of a spline's points are at least so far apart. */
export const KNOT_GAP = 1e-6;
