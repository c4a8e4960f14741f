/** Named tolerances of the measure room; lengths relative to the size of the body (box diagonal). */

/** Two directions are one below this angle (radians). */
export const SAME_DIRECTION = 1e-7;
/** Two carriers coincide below this share of the size: far above rebuild noise, far below any drawing tolerance. */
export const SAME_PLACE = 1e-7;
