import { z } from "zod";
import { footOn, type Line } from "@/core/geometry/line";
import { cross3, dot3, length3, sub3, type Vec3 } from "@/core/geometry/vector";
import { isParallel, lineOf, supportAt, wayOf, type Carriers } from "../anchor";
import { letteredAngle } from "../lettering";
import { TOUCHING } from "../tolerance";
import { sizeFields, type SizeKind } from "./kind";
import { plainText } from "@/core/units/text";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("turn"),
  /** A round face about whose axis is turned. */
  about: plainText(),
  from: plainText(),
  to: plainText(),
});
type Turn = z.infer<typeof schema>;

/** The way from an axis to a face: to where its own axis stands, or as a flat one looks. */
function directionTo(face: string, axis: Line, on: Carriers): Vec3 | undefined {
  const support = supportAt([face], on);
  const line = lineOf(support);
  if (line) {
    if (!isParallel(line.along, axis.along)) return undefined;
    const away = sub3(line.at, footOn(line.at, axis));
    return length3(away) > TOUCHING ? away : undefined;
  }
  const way = wayOf(support);
  if (!way || Math.abs(dot3(way, axis.along)) > TOUCHING) return undefined;
  return way;
}

/** How far round one thing stands from another, 0 to a half turn. */
export const turnKind: SizeKind<Turn> = {
  schema,
  faces: (s) => [s.about, s.from, s.to],
  read(s, on) {
    const axis = lineOf(supportAt([s.about], on));
    const a = axis && directionTo(s.from, axis, on),
      b = axis && directionTo(s.to, axis, on);
    if (!axis || !a || !b) return [undefined];
    return [[{ what: "angle", quantity: "angle", value: Math.atan2(length3(cross3(a, b)), dot3(a, b)) }]];
  },
  text: (_, [v]) => letteredAngle(v!.value),
  noun: "the angle",
};
