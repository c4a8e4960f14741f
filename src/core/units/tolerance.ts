/** Named tolerances of the room units. */

/** The sine of π comes out as 1.2e-16 and is nothing. */
export const NOTHING = 2e-16;
