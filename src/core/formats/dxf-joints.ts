import { distance2 } from "@/core/geometry/vector";
import { pointAt, pointsOf, type Constraint, type Curve } from "@/core/sketch/sketch";
import { NOTHING, ONE } from "./tolerance";

/** Ends at one place are made to coincide, each with the first that stood there. */
export function joints(curves: readonly Curve[], id: (letter: string) => string): Constraint[] {
  const ends = curves.flatMap((c) =>
    pointsOf(c)
      .filter((r) => r.endsWith(".start") || r.endsWith(".end"))
      .map((ref) => ({ ref, at: pointAt({ curves: [c] }, ref) })),
  );
  const size = Math.max(NOTHING, ...ends.map((e) => Math.hypot(...e.at))),
    slack = Math.max(ONE * size, NOTHING);
  const grid = new Map<string, typeof ends>();
  const list: Constraint[] = [];
  for (const e of ends) {
    const [x, y] = e.at.map((v) => Math.floor(v / (4 * slack))) as [number, number];
    const around = [-1, 0, 1].flatMap((i) => [-1, 0, 1].flatMap((j) => grid.get(`${x + i},${y + j}`) ?? []));
    const met = around.find((o) => distance2(o.at, e.at) <= slack);
    if (met) list.push({ id: id("k"), kind: "coincident", of: [met.ref, e.ref] });
    else grid.set(`${x},${y}`, [...(grid.get(`${x},${y}`) ?? []), e]);
  }
  return list;
}
