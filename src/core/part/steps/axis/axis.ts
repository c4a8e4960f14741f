import { z } from "zod";
import { normalOf } from "@/core/geometry/frame";
import type { Line } from "@/core/geometry/line";
import { add3, cross3, distance3, dot3, length3, scale3, sub3, unit3 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { lineOf, placeOf, planeOf } from "../../reference/resolve";
import { AxisRefSchema, PlaneRefSchema, PointRefSchema, stepsOf, type AnyRef } from "../../reference/schema";
import { stepFields, type BuildContext, type StepKind } from "../step";

export const AxisStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("axis"),
  by: z.discriminatedUnion("kind", [
    /** Of a round face or edge, along a straight edge, or a line of a sketch. */
    z.strictObject({ kind: z.literal("of"), of: AxisRefSchema }),
    z.strictObject({ kind: z.literal("points"), a: PointRefSchema, b: PointRefSchema }),
    z.strictObject({ kind: z.literal("planes"), a: PlaneRefSchema, b: PlaneRefSchema }),
    /** Square to a plane, through a point. */
    z.strictObject({ kind: z.literal("square"), plane: PlaneRefSchema, through: PointRefSchema }),
  ]),
});
export type AxisStep = z.infer<typeof AxisStepSchema>;

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
    return distance3(a.value, b.value) > 1e-9
      ? done({ at: a.value, along: unit3(sub3(b.value, a.value)) })
      : refuse("bad-points", "The two points are one.", [id]);
  }
  const a = planeOf(context, by.a),
    b = planeOf(context, by.b);
  if (!a.ok) return a;
  if (!b.ok) return b;
  const n = normalOf(a.value),
    m = normalOf(b.value);
  if (length3(cross3(n, m)) < 1e-9) return refuse("bad-planes", "The two planes are parallel and meet nowhere.", [id]);
  const [p, q] = [dot3(n, a.value.origin), dot3(m, b.value.origin)],
    c = dot3(n, m),
    k = 1 - c * c;
  return done({ at: add3(scale3(n, (p - q * c) / k), scale3(m, (q - p * c) / k)), along: unit3(cross3(n, m)) });
}

export const axisStep: StepKind<AxisStep> = {
  schema: AxisStepSchema,
  uses: ({ by }) => [...new Set((Object.values(by).filter((v) => typeof v === "object") as AnyRef[]).flatMap(stepsOf))],
  build(context, step) {
    const line = lineBy(context, step);
    return line.ok ? done({ datum: { kind: "axis", line: line.value } }) : line;
  },
  read: ({ by }) => ({
    title: "Datum axis",
    detail: {
      of: "of an edge or face",
      points: "through two points",
      planes: "where two planes meet",
      square: "square to a plane",
    }[by.kind],
  }),
};
