import { normalOf } from "@/core/geometry/frame";
import type { Rigid } from "@/core/geometry/rigid";
import { dot3, perAxis, scale3, type Vec3 } from "@/core/geometry/vector";
import { planeOf } from "../../reference/resolve";
import { repeat } from "../repeat";
import { type Build } from "../step";
import type { MirrorStep } from "./schema";

/** The reflection in a plane through a point: x − 2 n (n·(x − o)). */
export function reflection(origin: Vec3, n: Vec3): Rigid {
  const row = (i: 0 | 1 | 2): Vec3 => perAxis((j) => (i === j ? 1 : 0) - 2 * n[i] * n[j]);
  return { rows: [row(0), row(1), row(2)], shift: scale3(n, 2 * dot3(n, origin)) };
}

export const buildMirror: Build<MirrorStep> = (context, step) => {
  const plane = planeOf(context, step.about);
  if (!plane.ok) return plane;
  return repeat(context, step, [{ role: "image", motion: reflection(plane.value.origin, normalOf(plane.value)) }]);
};
