/** Named tolerances of the sizes room. */

/** Carriers whose directions differ by less are parallel, radians: parts from elsewhere are written with ten digits. */
export const PARALLEL = 1e-7;
/** Surfaces that should touch, lie on one axis or at one level do so within this, mm. */
export const TOUCHING = 1e-5;
/** Two sizes are equal within this, mm or radians. */
export const EQUAL = 1e-6;
/** A driving length is disturbed by so much, mm: far above the noise of a rebuild, far below any curvature. */
export const DISTURB_LENGTH = 1e-3;
/** A driving angle is disturbed by so much, radians. */
export const DISTURB_ANGLE = 1e-5;
/** A size that follows a number by less does not follow it; share of the disturbance. */
export const FOLLOWS = 1e-4;
/** What is left of a row of the table below this, of rows of length 1, is nothing: it says what others say. */
export const DEPENDENT = 1e-3;
/** A size that moved by more than so many disturbances was read on another face. */
export const JUMP = 200;
/** Faces looked at for distances along one direction in every pair; beyond it one face a level stands for all. */
export const MANY_LEVELS = 36;
/** The rule by which a drawing rounds: half a unit of the last digit, on top of it a hair for binary numbers. */
export const ROUNDED = 1e-9;
/** Boxes are tight to within this, mm. */
export const BOX_SLACK = 1e-3;
/** A face whose numbers change by more when one is disturbed has moved: noise is far below, disturbances far above. */
export const MOVED = 1e-7;
/** A value this near below a half is one; share of the value in steps of its last digit. */
export const HALF_HAIR = 1e-12;
/** Typed as printed and read back, sizes agree within this, mm; an instructor may ask otherwise. */
export const PRINTED_LENGTH = 0.02;
/** The same for angles, radians: a tenth of a degree. */
export const PRINTED_ANGLE = Math.PI / 1800;
/** What rounding of binary numbers may add to a size exactly on its limit, mm or radians. */
export const PRINT_HAIR = 1e-7;
