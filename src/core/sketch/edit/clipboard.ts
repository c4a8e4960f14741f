import { z } from "zod";
import type { Vec2 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { LengthUnit } from "@/core/units/quantity";
import { mappedCurve } from "../curves/registry";
import {
  ConstraintSchema,
  curveOf,
  CurveSchema,
  DimensionSchema,
  type Dimension,
  type Relation,
  type Sketch,
} from "../sketch";
import { drivingSizes } from "../sizes";
import { quantityOf } from "../sketch";
import { idsFor, LETTER } from "./rewire";

/** Curves taken out of a sketch with everything they say among themselves, to be put into another. */
export const ClipSchema = z.strictObject({
  curves: z.array(CurveSchema).max(2500),
  constraints: z.array(ConstraintSchema).max(10000),
  dimensions: z.array(DimensionSchema).max(5000),
});
export type Clip = z.infer<typeof ClipSchema>;

/** Sizes go along as plain numbers: what they were computed from may not be there. */
export function clipOf(sketch: Sketch, curves: readonly string[], unit: LengthUnit): Clip {
  const inside = (r: Relation) => r.of.every((ref) => curves.includes(curveOf(ref)));
  const sizes = drivingSizes(sketch, unit);
  const plain = ({ name: _, ...d }: Dimension): Dimension => {
    const size = sizes.ok ? sizes.value.get(d.id) : undefined;
    return size === undefined ? d : { ...d, value: quantityOf(d) === "angle" ? `${size} rad` : `${size} mm` };
  };
  return {
    curves: sketch.curves.filter((c) => curves.includes(c.id)),
    constraints: sketch.constraints.filter((k) => inside(k) && k.kind !== "fixed"),
    dimensions: sketch.dimensions.filter(inside).map(plain),
  };
}

/** Puts a clip into a sketch under new ids, moved by so much. */
export function paste(sketch: Sketch, clip: Clip, by: Vec2): Outcome<Sketch> {
  if (!clip.curves.length) return refuse("nothing-picked", "There is nothing to paste: copy some curves first.", []);
  const ids = idsFor(sketch),
    names = new Map(clip.curves.map((c) => [c.id, ids(LETTER[c.kind])]));
  const map = (ref: string) => `${names.get(curveOf(ref)) ?? curveOf(ref)}${ref.slice(curveOf(ref).length)}`;
  const move = (p: Vec2): [number, number] => [p[0] + by[0], p[1] + by[1]];
  const again = <R extends Relation>(list: readonly R[], letter: string): R[] =>
    list
      .filter((r) => r.of.every((ref) => names.has(curveOf(ref))))
      .map((r) => ({ ...r, id: ids(letter), of: r.of.map(map) }));
  return done({
    ...sketch,
    curves: [...sketch.curves, ...clip.curves.map((c) => ({ ...mappedCurve(c, move), id: names.get(c.id)! }))],
    constraints: [...sketch.constraints, ...again(clip.constraints, "k")],
    dimensions: [
      ...sketch.dimensions,
      ...again(clip.dimensions, "m").map((d) => (d.at ? { ...d, at: move(d.at) } : d)),
    ],
  });
}
