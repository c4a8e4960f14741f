/** "Part Modelling 1, Autumn". */
export const courseText = (c: { readonly title: string; readonly term: string }): string =>
  [c.title, c.term].filter(Boolean).join(", ");
