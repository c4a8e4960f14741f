import { SAME_IMAGE } from "../tolerance";
import { dot2, sub2, type Vec2 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { lineThrough, pointAt, typeOf, type Constraint, type Sketch } from "../sketch";
import { copyOf, placesOf } from "./duplicate";
import { idsFor } from "./rewire";

/** Mirrors curves in a line; the images stay symmetric to them. */
export function mirror(sketch: Sketch, curves: readonly string[], about: string): Outcome<Sketch> {
  if (typeOf(sketch, about) !== "line")
    return refuse("not-a-line", "Mirror needs a line or an axis to mirror in.", [about]);
  const source = curves.filter((id) => id !== about && sketch.curves.some((c) => c.id === id));
  if (!source.length) return refuse("nothing-picked", "Pick the curves to mirror first, then the line.", []);
  const [a, b] = lineThrough(sketch, about),
    u = sub2(b, a),
    uu = dot2(u, u);
  const image = (p: Vec2): Vec2 => {
    const k = (2 * dot2(sub2(p, a), u)) / uu;
    return [2 * a[0] + k * u[0] - p[0], 2 * a[1] + k * u[1] - p[1]];
  };
  const ids = idsFor(sketch),
    copy = copyOf(sketch, source, image, ids, 1, true),
    { points, round } = placesOf(sketch, source);
  const size = Math.sqrt(uu) + Math.max(...points.map((p) => Math.hypot(...pointAt(sketch, p))), 0);
  const ties = points.map((p): Constraint => {
    const at = pointAt(sketch, p),
      to = image(at);
    // a point on the line is its own image
    const same = Math.hypot(to[0] - at[0], to[1] - at[1]) < SAME_IMAGE * size;
    return {
      id: ids("k"),
      kind: same ? "coincident" : "symmetric",
      of: same ? [p, copy.map(p)] : [p, copy.map(p), about],
    };
  });
  const equal = round.map((c): Constraint => ({ id: ids("k"), kind: "equal", of: [c, copy.map(c)] }));
  return done({
    ...sketch,
    curves: [...sketch.curves, ...copy.curves],
    constraints: [...sketch.constraints, ...copy.joints, ...ties, ...equal],
  });
}
