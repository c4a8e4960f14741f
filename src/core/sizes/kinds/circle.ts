import { z } from "zod";
import { footOn, type Line } from "@/core/geometry/line";
import { add3, cross3, distance3, dot3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import { isParallel, lineOf, supportAt, type Carriers } from "../anchor";
import { letteredAngle, letteredLength } from "../lettering";
import { sizeFields, type SizeKind, type SizeReading } from "./kind";
import { plainText } from "@/core/units/text";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("circle"),
  /** Faces whose axes stand on the circle, in the order round it. */
  of: z.array(plainText()).min(2).max(500),
  /** A round face whose axis is the middle; left out: their own middle. */
  about: plainText().optional(),
  /** Part of a turn only: the angle from one to the next is lettered too. */
  spaced: z.boolean().optional(),
});
type PitchCircle = z.infer<typeof schema>;

/** The axes on a circle, and the one in its middle. */
function linesOf(s: PitchCircle, on: Carriers): { lines: Line[]; middle: Line } | undefined {
  const lines: Line[] = [];
  for (const f of s.of) {
    const line = lineOf(supportAt([f], on));
    if (!line || !isParallel(line.along, (lines[0] ?? line).along)) return undefined;
    lines.push(line);
  }
  const own = s.about === undefined ? undefined : lineOf(supportAt([s.about], on));
  if (s.about !== undefined && !own) return undefined;
  const along = lines[0]!.along;
  const flat = (p: Vec3) => sub3(p, scale3(along, dot3(p, along)));
  const sum = lines.reduce<Vec3>((t, l) => add3(t, flat(l.at)), [0, 0, 0]);
  return { lines, middle: own ?? { at: scale3(sum, 1 / lines.length), along } };
}

/** A pitch circle: its diameter, how many stand on it and, on part of a turn, how far apart. */
export const circleKind: SizeKind<PitchCircle> = {
  schema,
  faces: (s) => [...s.of, ...(s.about === undefined ? [] : [s.about])],
  read(s, on) {
    const found = linesOf(s, on);
    if (!found) return [undefined];
    const { lines, middle } = found;
    const away = lines.map((l) => sub3(l.at, footOn(l.at, middle)));
    const far = lines.map((l) => distance3(footOn(l.at, middle), l.at));
    const turn = (a: Vec3, b: Vec3) => Math.atan2(Math.abs(dot3(cross3(a, b), middle.along)), dot3(a, b));
    return far
      .slice(s.spaced ? 1 : 0)
      .map((radius, i): SizeReading => [
        { what: "pitch circle", quantity: "length", value: 2 * radius },
        { what: "count", quantity: "count", value: lines.length },
        ...(s.spaced ? [{ what: "angle", quantity: "angle" as const, value: turn(away[i]!, away[i + 1]!) }] : []),
      ]);
  },
  text: (s, [wide, count, angle], _, l) =>
    `${count!.value}× on ⌀${letteredLength(wide!.value, l)}${s.spaced ? `, ${letteredAngle(angle!.value)} apart` : ""}`,
  noun: "the pitch circle",
};
