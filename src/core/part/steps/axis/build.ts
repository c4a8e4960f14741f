import { COINCIDENT, SAME_WAY } from "@/core/geometry/tolerance";
import { normalOf } from "@/core/geometry/frame";
import type { Line } from "@/core/geometry/line";
import { add3, cross3, distance3, dot3, length3, scale3, sub3, unit3 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { lineOf, placeOf, planeOf } from "../../reference/resolve";
import { type BuildContext, type Build } from "../step";
import type { AxisStep } from "./schema";

function lineBy(context: BuildContext, { by, id }: AxisStep): Outcome<Line> {
  if (by.kind === "of") return lineOf(context, by.of);
  if (by.kind === "square") {
    const plane = planeOf(context, by.plane),
      at = placeOf(context, by.through);
    if (!plane.ok) return plane;
    return at.ok ? done({ at: at.value, along: normalOf(plane.value) }) : at;
  }
  if (by.kind === "points") {
    const a = placeOf(context, by.a),
      b = placeOf(context, by.b);
    if (!a.ok) return a;
    if (!b.ok) return b;
    return distance3(a.value, b.value) > COINCIDENT
      ? done({ at: a.value, along: unit3(sub3(b.value, a.value)) })
      : refuse("bad-points", "The two points are one.", [id]);
  }
  const a = planeOf(context, by.a),
    b = planeOf(context, by.b);
  if (!a.ok) return a;
  if (!b.ok) return b;
  const n = normalOf(a.value),
    m = normalOf(b.value);
  if (length3(cross3(n, m)) < SAME_WAY)
    return refuse("bad-planes", "The two planes are parallel and meet nowhere.", [id]);
  const [p, q] = [dot3(n, a.value.origin), dot3(m, b.value.origin)],
    c = dot3(n, m),
    k = 1 - c * c;
  return done({ at: add3(scale3(n, (p - q * c) / k), scale3(m, (q - p * c) / k)), along: unit3(cross3(n, m)) });
}

export const buildAxis: Build<AxisStep> = (context, step) => {
  const line = lineBy(context, step);
  return line.ok ? done({ datum: { kind: "axis", line: line.value } }) : line;
};
