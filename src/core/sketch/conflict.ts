/**
 * A smallest set (by inclusion) of relations that cannot all be met, by divide and conquer.
 * After Junker, QUICKXPLAIN: Preferred Explanations and Relaxations for Over-Constrained Problems, AAAI 2004.
 * @param fits whether a subset can be met
 * @returns ids; relations later in the list are kept in the set only when needed
 */
export function conflictAmong<T extends { readonly id: string }>(
  relations: readonly T[],
  fits: (subset: readonly T[]) => boolean,
): string[] {
  if (fits(relations)) return [];
  const explain = (background: readonly T[], added: boolean, list: readonly T[]): T[] => {
    if (added && !fits(background)) return [];
    if (list.length <= 1) return [...list];
    const half = list.length >> 1;
    const left = list.slice(0, half),
      right = list.slice(half);
    const fromRight = explain([...background, ...left], left.length > 0, right);
    const fromLeft = explain([...background, ...fromRight], fromRight.length > 0, left);
    return [...fromLeft, ...fromRight];
  };
  return explain([], false, relations).map((r) => r.id);
}
