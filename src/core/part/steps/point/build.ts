import { vec3, type Vec3 } from "@/core/geometry/vector";
import { readQuantity } from "@/core/units/quantity";
import { done, type Outcome } from "@/core/units/refusal";
import { placeOf } from "../../reference/resolve";
import { type BuildContext, type Build } from "../step";
import type { PointStep } from "./schema";

function placeBy(context: BuildContext, { by }: PointStep): Outcome<Vec3> {
  if (by.kind === "of") return placeOf(context, by.of);
  const at: number[] = [];
  for (const v of by.at) {
    const r = readQuantity(v, "length", context.unit, context.names);
    if (!r.ok) return r;
    at.push(r.value);
  }
  return done(vec3(at[0]!, at[1]!, at[2]!));
}

export const buildPoint: Build<PointStep> = (context, step) => {
  const at = placeBy(context, step);
  return at.ok ? done({ datum: { kind: "point", at: at.value } }) : at;
};
