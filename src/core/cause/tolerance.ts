/** Two numbers that were typed are the same one, relative. */
const SAME_NUMBER = 1e-6;
/** What is measured on a part is a number that was typed in it, mm or radians. */
export const TYPED = 2e-5;

export const isClose = (a: number, b: number): boolean =>
  Math.abs(a - b) <= SAME_NUMBER * Math.max(1, Math.abs(a), Math.abs(b));
