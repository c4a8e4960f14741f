import { SAME_WAY } from "@/core/geometry/tolerance";
import { turnedVector } from "@/core/geometry/line";
import { snapRows, type Rigid } from "@/core/geometry/rigid";
import { TURN } from "@/core/geometry/segment";
import { add3, perAxis, scale3, sub3, type Vec3, vec3 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { directionOf, lineOf } from "../../reference/resolve";
import { repeat, type Image } from "../repeat";
import { angleOf, lengthOf, type BuildContext, type Build } from "../step";
import type { PatternStep, Row } from "./schema";

const SHIFT: Rigid["rows"] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

function shiftOf(context: BuildContext, row: Row): Outcome<Vec3> {
  const along = directionOf(context, row.along);
  if (!along.ok) return along;
  const distance = lengthOf(context, row.distance, "The spacing");
  if (!distance.ok) return distance;
  return done(
    scale3(along.value, ((row.reverse ? -1 : 1) * distance.value) / (row.by === "total" ? row.count - 1 : 1)),
  );
}

/** Where the images go, the original left out. */
function imagesOf(context: BuildContext, step: PatternStep): Outcome<Image[]> {
  const { way } = step,
    skip = new Set(step.skip),
    images: Image[] = [];
  if (way.kind === "rows") {
    const a = shiftOf(context, way.first),
      b = way.second ? shiftOf(context, way.second) : done(vec3(0, 0, 0));
    if (!a.ok) return a;
    if (!b.ok) return b;
    for (let j = 0; j < (way.second?.count ?? 1); j++)
      for (let i = 0; i < way.first.count; i++) {
        const place = j ? `${i + 1}.${j + 1}` : `${i + 1}`;
        if ((i || j) && !skip.has(place))
          images.push({
            role: `copy/${place}`,
            motion: { rows: SHIFT, shift: add3(scale3(a.value, i), scale3(b.value, j)) },
          });
      }
  } else {
    const line = lineOf(context, way.about),
      angle = angleOf(context, way.angle);
    if (!line.ok) return line;
    if (!angle.ok) return angle;
    const whole = Math.abs(angle.value - TURN) < SAME_WAY;
    const step1 =
      (way.reverse ? -1 : 1) * (way.by === "step" ? angle.value : angle.value / (whole ? way.count : way.count - 1));
    for (let i = 1; i < way.count; i++) {
      if (skip.has(`${i + 1}`)) continue;
      const column = (v: Vec3) => turnedVector(v, line.value.along, step1 * i);
      const [x, y, z] = [column([1, 0, 0]), column([0, 1, 0]), column([0, 0, 1])];
      const rows = snapRows([
        [x[0], y[0], z[0]],
        [x[1], y[1], z[1]],
        [x[2], y[2], z[2]],
      ]);
      const { at } = line.value,
        turned: Vec3 = perAxis((k) => rows[k][0] * at[0] + rows[k][1] * at[1] + rows[k][2] * at[2]);
      images.push({ role: `copy/${i + 1}`, motion: { rows, shift: sub3(at, turned) } });
    }
  }
  return images.length ? done(images) : refuse("no-places", "All places but the first are left empty.", [step.id]);
}

export const buildPattern: Build<PatternStep> = (context, step) => {
  const images = imagesOf(context, step);
  return images.ok ? repeat(context, step, images.value) : images;
};
