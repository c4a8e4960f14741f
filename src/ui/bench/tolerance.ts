/** Named tolerances of the room bench. */
/** Less than this is not seen on the screen: mm at the model, or a share of a unit vector. */
export const UNSEEN = 1e-3;
/** Three places whose middle leaves the chord by less than this share of it stand in one line. */
export const FLAT = 1e-6;
/** Drawn lines whose sine is less count as parallel: the solver leaves far less. */
export const DRAWN_PARALLEL = 1e-6;
/** A facet seen with less area than this, in square pixels, is seen edge on. */
export const NO_AREA = 1e-9;
