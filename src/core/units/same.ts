/** Fields in one order: a database hands them out in an order of its own. For JSON.stringify. */
export const inOrder = (_: string, v: unknown): unknown =>
  v && typeof v === "object" && !Array.isArray(v)
    ? Object.fromEntries(Object.entries(v).sort(([p], [q]) => (p < q ? -1 : 1)))
    : v;

/** Whether two pieces of plain data say the same, in whatever order their fields stand. */
export const isSame = (a: unknown, b: unknown): boolean =>
  a === b || JSON.stringify(a, inOrder) === JSON.stringify(b, inOrder);
