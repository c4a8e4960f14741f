import { z } from "zod";
import type { Vec2 } from "@/core/geometry/vector";

const Id = z.string().regex(/^[A-Za-z][A-Za-z0-9_-]{0,39}$/, "an id starts with a letter and holds letters, digits, - and _");
const Coordinate = z.number().min(-1e6).max(1e6);
const Point = z.tuple([Coordinate, Coordinate]);
/** A curve (`l1`), a point of one (`l1.start`), or `origin`, `x-axis`, `y-axis`. */
const Ref = z.string().regex(/^[A-Za-z][A-Za-z0-9_-]{0,39}(\.(start|end|centre))?$/, "a reference reads like l1, l1.start, c1.centre, origin, x-axis or y-axis");

export const LineSchema = z.strictObject({ id: Id, kind: z.literal("line"), start: Point, end: Point, construction: z.boolean().optional() });
export const CircleSchema = z.strictObject({ id: Id, kind: z.literal("circle"), centre: Point, radius: z.number().positive().max(1e6), construction: z.boolean().optional() });
export const CurveSchema = z.discriminatedUnion("kind", [LineSchema, CircleSchema]);

export const CONSTRAINT_KINDS = ["coincident", "horizontal", "vertical", "parallel", "perpendicular", "equal", "concentric", "midpoint", "point-on-curve", "fixed"] as const;
export const DIMENSION_KINDS = ["length", "distance", "horizontal-distance", "vertical-distance", "point-line", "radius", "diameter", "angle"] as const;

export const ConstraintSchema = z.strictObject({ id: Id, kind: z.enum(CONSTRAINT_KINDS), of: z.array(Ref).min(1).max(2) });
export const DimensionSchema = z.strictObject({
  id: Id,
  kind: z.enum(DIMENSION_KINDS),
  of: z.array(Ref).min(1).max(2),
  /** As typed: a number in the document's unit, or text such as "2 5/8 in" or "=(94-31)/2". Angles in degrees. */
  value: z.union([z.number(), z.string().max(200)]),
  /** A reference dimension is measured and drives nothing. */
  reference: z.boolean().optional(),
  /** For an angle: measure to the reversed second line. */
  flip: z.boolean().optional(),
  /** Where its number stands, in sketch coordinates. */
  at: Point.optional(),
});

const unique = (list: { id: string }[][]) => {
  const ids = list.flat().map((e) => e.id);
  return new Set(ids).size === ids.length;
};

export const SketchSchema = z
  .strictObject({
    plane: z.strictObject({ base: z.enum(["front", "top", "right"]), offset: z.number().min(-1e5).max(1e5).optional() }),
    curves: z.array(CurveSchema).max(2500),
    constraints: z.array(ConstraintSchema).max(10000),
    dimensions: z.array(DimensionSchema).max(5000),
  })
  .refine((s) => unique([s.curves, s.constraints, s.dimensions]), "every id in a sketch must be used once");

export type Line = z.infer<typeof LineSchema>;
export type Circle = z.infer<typeof CircleSchema>;
export type Curve = z.infer<typeof CurveSchema>;
export type Constraint = z.infer<typeof ConstraintSchema>;
export type Dimension = z.infer<typeof DimensionSchema>;
export type Sketch = z.infer<typeof SketchSchema>;
export type Relation = Constraint | Dimension;
export type EntityType = "point" | "line" | "circle";

export const isDimension = (r: Relation): r is Dimension => "value" in r;
export const emptySketch = (base: Sketch["plane"]["base"], offset = 0): Sketch => ({ plane: offset ? { base, offset } : { base }, curves: [], constraints: [], dimensions: [] });

/** The curve a reference belongs to; origin and axes are their own. */
export const curveOf = (ref: string): string => ref.split(".")[0]!;

/** What a reference means in this sketch, or undefined when it means nothing. */
export function typeOf(sketch: Sketch, ref: string): EntityType | undefined {
  if (ref === "origin") return "point";
  if (ref === "x-axis" || ref === "y-axis") return "line";
  const [id, part] = ref.split(".");
  const curve = sketch.curves.find((c) => c.id === id);
  if (!curve) return undefined;
  if (part === undefined) return curve.kind;
  if (curve.kind === "line") return part === "centre" ? undefined : "point";
  return part === "centre" ? "point" : undefined;
}

/** Coordinates of a point reference, in sketch millimetres. */
export function pointAt(sketch: Sketch, ref: string): Vec2 {
  if (ref === "origin") return [0, 0];
  const [id, part] = ref.split(".");
  const curve = sketch.curves.find((c) => c.id === id);
  if (curve?.kind === "line" && part === "start") return curve.start;
  if (curve?.kind === "line" && part === "end") return curve.end;
  if (curve?.kind === "circle" && part === "centre") return curve.centre;
  throw new Error(`no point ${ref}`);
}

/** How a person knows a reference: "line l1", "start of l1", "the origin". */
export function nameOf(ref: string): string {
  if (ref === "origin") return "the origin";
  if (ref === "x-axis") return "the horizontal axis";
  if (ref === "y-axis") return "the vertical axis";
  const [id, part] = ref.split(".");
  return part ? `the ${part} of ${id}` : id!;
}

/** Every point reference of a curve. */
export const pointsOf = (c: Curve): string[] => (c.kind === "line" ? [`${c.id}.start`, `${c.id}.end`] : [`${c.id}.centre`]);
