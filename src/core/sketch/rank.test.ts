import { describe, expect, it } from "vitest";
import { linear } from "./constraints/equations";
import { prepare } from "./newton";
import { rankOf } from "./rank";
import type { BoundEquation } from "./system";
import { seeded } from "./testing/ladder";

/** A cluster of linear equations from dense rows. */
function cluster(rows: readonly (readonly number[])[]) {
  const n = rows[0]!.length;
  const equations = rows.map((row, i): BoundEquation => {
    const used = row.flatMap((v, j) => (v === 0 ? [] : [j]));
    const { evaluate } = linear(
      used,
      used.map((j) => row[j]!),
      0,
    );
    return {
      relation: `r${i}`,
      slots: used,
      evaluate,
      g: used.map(() => 0),
    };
  });
  return prepare({ unknowns: Array.from({ length: n }, (_, i) => i), equations }, new Uint8Array(n));
}
const inOrder = (rows: readonly unknown[]) => rows.map((_, i) => i);
const rank = (rows: readonly (readonly number[])[], order = inOrder(rows)) =>
  rankOf(cluster(rows), new Float64Array(rows[0]!.length), order);

describe("rank by elimination", () => {
  it("of independent rows leaves no dependence and the rest as motions", () => {
    const r = rank([
      [1, 1, 0, 0],
      [0, 1, 1, 0],
    ]);
    expect(r.dependent).toEqual([]);
    expect(r.motions).toHaveLength(2);
  });
  it("blames the later of two that say the same", () => {
    const rows = [
      [1, -1, 0],
      [0, 1, -1],
      [2, -2, 0],
    ];
    expect(rank(rows).dependent).toEqual([2]);
    expect(rank(rows, [2, 1, 0]).dependent).toEqual([0]);
  });
  it("finds a sum of others", () => {
    expect(
      rank([
        [1, 2, 0, 1],
        [0, 1, 5, 0],
        [1, 3, 5, 1],
      ]).dependent,
    ).toEqual([2]);
  });
  it("does not mind rows of very different size", () => {
    expect(
      rank([
        [1e6, 1e6, 0],
        [1e-6, -1e-6, 0],
        [0, 0, 1e-9],
      ]).dependent,
    ).toEqual([]);
  });
  it("counts a row of nothing as dependent", () => {
    expect(
      rank([
        [1, 0],
        [0, 0],
      ]).dependent,
    ).toEqual([1]);
  });

  it.each([
    [5, 8],
    [20, 30],
    [40, 40],
  ])("%d random sparse rows over %d unknowns: motions meet every row, and the counts add up", (m, n) => {
    const rnd = seeded(m * 100 + n);
    const rows = Array.from({ length: m }, () =>
      Array.from({ length: n }, () => (rnd() < 0.2 ? Math.round(rnd() * 18 - 9) : 0)),
    );
    // one that is a sum of two others
    rows[m - 1] = rows[0]!.map((v, i) => v + rows[1]![i]!);
    const { dependent, motions } = rank(rows);
    expect(dependent).toContain(m - 1);
    expect(motions.length).toBe(n - (m - dependent.length));
    for (const motion of motions) {
      expect(Math.hypot(...motion)).toBeCloseTo(1, 6);
      for (const row of rows) expect(Math.abs(row.reduce((s, v, i) => s + v * motion[i]!, 0))).toBeLessThan(1e-5);
    }
  });
});
