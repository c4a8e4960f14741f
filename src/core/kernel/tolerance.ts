/** Named tolerances of the room kernel. */

/** Offsets are exact for what students model; this is how near pieces must come to be joined, mm. */
export const OFFSET_JOIN = 1e-5;
/** The rule of thumb for volumes is off by 1e-5 where curved faces trim each other; a spoilt merge by far more. */
export const AS_LARGE = 1e-4;
/** Surfaces nearer to each other than this are one, mm; looser than the library, since a copy too many does no harm. */
export const SAME_CARRIER = 1e-5;
/** Volumes that differ by less than this share are one. */
export const SAME_VOLUME = 1e-9;
/** Components of a unit vector this near to 0 or ±1 are those. */
export const TIDY = 1e-14;
/** Arcs across a blend are of one radius where they differ by less; a share of it: the library's blends do by 1e-5. */
export const BLEND_NEAR = 1e-4;
/** The radius of a blend is told in steps of this, mm: coarser than its noise, finer than a disturbance. */
export const BLEND_STEP = 1e-4;
/** The step of a difference quotient on a surface, share of its parameter. */
export const DERIVE = 1e-4;
/** Off-diagonal products below this share of the diagonal have gone. */
export const EIGEN = 1e-15;

/** Facets that tell what is seen are this near to their surface; a share of the body's size. */
export const FINENESS = 5e-5;
/** Two rules over a stretch of a face's edge agree to this share of the face's figures, or it is taken in halves. */
export const FACE_ACCURACY = 1e-11;
/** A face is summed in so many stretches of its edges at most beyond one for each span of an edge. */
export const MOST_HALVES = 600;
