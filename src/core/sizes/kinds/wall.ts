import { z } from "zod";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import { isCoaxial, type Carriers } from "../anchor";
import { letteredLength } from "../lettering";
import { distanceKind } from "./distance";
import { sizeFields, type SizeKind, type SizeReading } from "./kind";
import { plainText } from "@/core/units/text";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("wall"),
  /** Pairs of faces, outside and inside, between which the material is equally thick. */
  of: z
    .array(z.tuple([plainText(), plainText()]))
    .min(1)
    .max(400),
});
type Wall = z.infer<typeof schema>;

const roundOf = (c: Carrier): number | undefined =>
  c.kind === "cylinder" || c.kind === "sphere" ? c.radius : c.kind === "torus" ? c.minor : undefined;

function thickness(outer: string, inner: string, on: Carriers): number | undefined {
  const [a, b] = [on(outer), on(inner)];
  if (!a || !b) return undefined;
  if (a.kind === "plane") {
    const [gap] = distanceKind.read({ id: "", kind: "distance", from: [outer], to: [inner] }, on);
    return gap?.[0]!.value;
  }
  const [r, s] = [roundOf(a), roundOf(b)],
    [p, q] = [axisOf(a), axisOf(b)];
  if (r === undefined || s === undefined || a.kind !== b.kind) return undefined;
  if (p && q && !isCoaxial(p, q)) return undefined;
  return Math.abs(r - s);
}

/** How thick a wall is. */
export const wallKind: SizeKind<Wall> = {
  schema,
  faces: (s) => s.of.flat(),
  read: (s, on) =>
    s.of.map(([outer, inner]): SizeReading | undefined => {
      const value = thickness(outer, inner, on);
      return value === undefined ? undefined : [{ what: "wall", quantity: "length", value }];
    }),
  text: (_, [v], __, l) => `wall ${letteredLength(v!.value, l)}`,
  noun: "the wall",
};
