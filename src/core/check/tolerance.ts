/**
 * Named tolerances of the check room; lengths relative to the reference's size (box diagonal) unless said otherwise.
 */

/** Two directions are one below this angle (radians). */
export const SAME_DIRECTION = 1e-7;
/** Two carriers coincide below this share of the size: far above rebuild noise, far below any drawing tolerance. */
export const SAME_PLACE = 1e-7;
/** Relative difference of areas, rims and volumes that count as equal. */
export const SAME_SIZE = 1e-6;
/** The balance of volumes must close to this share of the reference's volume. */
export const BALANCE = 1e-6;
/** Lumps of difference below this share of the reference's volume are noise of the boolean. */
export const NOISE = 1e-9;
