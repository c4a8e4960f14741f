/**
 * Named tolerances of the check room; lengths relative to the reference's size (box diagonal) unless said otherwise.
 */

/** Relative difference of areas, rims and volumes that count as equal. */
export const SAME_SIZE = 1e-6;
/**
 * Two moments of inertia are one within this share of their sum: what the library's rules for volumes differ by is far
 * below, what a mirror changes far above.
 */
export const SAME_INERTIA = 1e-5;
/** The balance of volumes must close to this share of the reference's volume. */
export const BALANCE = 1e-6;
/** Lumps of difference below this share of the reference's volume are noise of the boolean. */
export const NOISE = 1e-9;
/** A difference too small to be worth a figure. */
export const NO_DIFFERENCE = 5e-7;
/** A part exactly on the limit is inside it. */
export const ON_THE_LIMIT = 1e-9;
/** A ratio this near to 25.4 was made by confusing units, share. */
export const INCHES = 1e-4;
/** Facets follow the surface within this share of the size, and never finer than LEAST_FACET mm. */
export const FACET = 1e-3;
/** The finest facets, mm. */
export const LEAST_FACET = 1e-4;
/** Directions whose sine is more span a frame. */
export const NOT_PARALLEL = 1e-3;
/** Angles between directions that agree within this fit each other; cosine. */
export const SAME_ANGLE = 1e-6;
/** A placement must cover more than the best one by this share. */
export const BETTER = 1e-9;
/**
 * A part may differ by so many times as much and still be taken as it was drawn, where at least this share of the faces
 * coincides that another placing brings together.
 */
export const AS_DRAWN = 3;
export const AS_MANY = 0.6;
/** Two axes are one below this distance, mm. */
export const SAME_AXIS = 1e-5;
/** Two faces stand equally far off an axis below this share: a part in rounded inches is meant too. */
export const SAME_FAR = 1e-3;
/** Faces stand for each other up to this far apart; share of the reference's size. */
export const FAR_FROM_PARTNER = 1;
/** And leaning against each other up to this angle, radians. */
export const LEANING = 1.2;
/** And with radii up to so many times as large. */
export const OTHER_SIZE = 8;
/** How much the distance of their centres counts beside the gap of their surfaces. */
export const NEAR_WEIGHT = 0.02;
/** And the logarithm of the ratio of their areas, in sizes of the reference. */
export const AREA_WEIGHT = 1.5e-2;
/** A boolean that hands back its argument has taken nothing away; share of the volume. */
export const NOTHING_TAKEN = 1e-6;
/** What is left of a doubtful amount must be so many times inside or outside the tolerance to be judged. */
export const FAR_FROM_LIMIT = 3;
/** Shifts below this are not told, mm. */
export const SHIFTED = 1e-4;
/** Densities are one within this share. */
export const SAME_DENSITY = 1e-9;
/** Figures computed in two ways agree within this share. */
export const FIGURE_NOISE = 1e-9;
/** A placing under which more of the reference's area coincides is taken at once; share. */
export const ENOUGH = 0.4;
/** Levels this near are one when nothing coincides; share of the size. */
export const NEAR_LEVEL = 1e-3;
/** Faces further apart are none for each other then; share of the size. */
export const NEAR_REACH = 0.02;
/** Facets point nearly one way within this, radians: single precision, and settling mends the rest. */
export const FACETS_NEAR_ANGLE = 5e-3;
/** Facets that lie no further off typically lie there: settling need not try others; share of the size. */
export const FACETS_THERE = 1e-4;
/** Facets further from the reference than this, and than their fineness, are none of it; share of the size. */
export const FACETS_STRANGE = 1e-3;
/** Things of facets that stand equally far off an axis, and equally high, are one; share of the size. */
export const FACETS_ARM = 2e-3;
/** A rotation this near to one along the axes is that one. */
export const FACETS_SNAP = 2e-5;
/** A part as facets is another size where its volume says so by more, share of the length. */
export const FACETS_SCALE = 0.01;
/** Facets whose largest distance is less lie on the reference, but for what their fineness leaves open; share of it. */
export const FACETS_LIE = 2e-3;
/** Facets of the reference follow it within this share of the size. */
export const FACETS_FINE = 1e-4;
/** A motion below this share of the size has settled. */
export const SETTLED = 1e-7;
/** Distances below this count alike when settling, share of the size: their sum has a corner at none. */
export const SETTLE_SOFT = 1e-6;
/** What nothing holds when settling is held by this share of what all others are. */
export const UNHELD = 1e-12;

/**
 * Facets so fine that a wall beside a hole is measured to a few thousandths: share of the part's size, and radians
 * between neighbours.
 */
export const WALL_FACET = 2e-4;
export const WALL_TURN = 0.1;
/** Parts whose areas and moments agree within this share are the same part, whatever their numbers. */
export const ALIKE = 1e-5;
/** A part that somebody else built from a Sheet agrees with it within this: sizes typed as printed are rounded. */
export const COPIED = 2e-4;
/** A range ends on a step within this share of one: a tenth is no whole number in binary. */
export const WHOLE_STEPS = 1e-9;
/** Values of a number that differs from student to student lie so many tolerances apart. */
export const OWN_NUMBER_STEP = 3;
/** So many traces of hands in common are no chance. */
export const ENOUGH_TRACES = 4;
/** The order of relations is told where so much of it is the same. */
export const ORDER_SHARED = 0.6;
/** Levels along an axis nearer than this are one, mm; radii too. */
export const SAME_LEVEL = 1e-3;
/** Bodies whose boxes have less than this share of a side in common stand side by side. */
export const SIDE_BY_SIDE = 0.3;
