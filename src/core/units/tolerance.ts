/** Named tolerances of the room units. */

/** The sine of π comes out as 1.2e-16 and is nothing. */
export const NOTHING = 2e-16;

/** What lies so near to a half is a half: 1 5/8 in by 6.35 mm comes out as 6.4999999. */
export const HALF_WAY = 1e-9;

/** An end of an axis that is a round value but for rounding gets its tick. In steps. */
export const TICK = 1e-9;
