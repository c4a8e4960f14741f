/** Named tolerances of the room kernel. */

/** Offsets are exact for what students model; this is how near pieces must come to be joined, mm. */
export const OFFSET_JOIN = 1e-5;
/** The rule of thumb for volumes is off by 1e-5 where curved faces trim each other; a spoilt merge by far more. */
export const AS_LARGE = 1e-4;
/** Surfaces nearer to each other than this are one, mm; looser than the library, since a copy too many does no harm. */
export const SAME_CARRIER = 1e-5;
/**
 * Accuracy asked of the adaptive rule; asked for 1e-7 it was off by 7e-6 on a disc with a wall. The plain rule is exact
 * for planes and pieces of cylinders, moments too, but off by 2e-6 where curved faces are trimmed by one another.
 */
export const VOLUME_ACCURACY = 1e-11;
/**
 * Accuracy asked for areas: right to 6e-12 on a pierced cylinder, where the plain rule is off by 6e-6; asking for more
 * gives the same at five times the cost.
 */
export const AREA_ACCURACY = 1e-3;
/**
 * Volumes by the two rules that differ by less than this share: the plain rule was exact, the adaptive one is off by
 * 1e-9.
 */
export const RULES_AGREE = 1e-8;
/** Volumes that differ by less than this share are one. */
export const SAME_VOLUME = 1e-9;
/** Components of a unit vector this near to 0 or ±1 are those. */
export const TIDY = 1e-14;
/** The step of a difference quotient on a surface, share of its parameter. */
export const DERIVE = 1e-4;
/** Off-diagonal products below this share of the diagonal have gone. */
export const EIGEN = 1e-15;

/** Facets that tell what is seen are this near to their surface; a share of the body's size. */
export const FINENESS = 5e-5;
