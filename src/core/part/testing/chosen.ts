/** Whether this is the long run (`npm run test:long`): then nothing is left out. */
export const IS_LONG = process.env["CALIPER_LONG"] !== undefined;

/**
 * Every so many of a list in the plain run, all of it in the long one. Tests of one list begin at different places, so
 * that together they still see all of it.
 */
export const fewer = <T>(list: readonly T[], every: number, from = 0): readonly T[] =>
  IS_LONG ? list : list.filter((_, i) => i % every === from % every);
