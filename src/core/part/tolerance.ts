/** Named tolerances of the room part. */

/** How far from level or upright a line may be to be called so: a share of its length. */
export const LEVEL_ENOUGH = 1e-3;
/** Places that a reference remembers are kept to so much, mm. */
export const PLACES = 1e-3;
/** Guides that cross at less than this (sine) have no place in common. */
export const CROSSING = 1e-6;
/** A face looks along a direction when the cosine between them is more than this. */
export const FACING = 1e-6;
/** A coordinate further from whole hundredths of a millimetre was put by a hand, not typed; hundredths. */
export const HAND_PLACED = 1e-4;
