import { z } from "zod";
import { means } from "@/core/naming/field";
import { FaceRefSchema } from "@/core/naming/reference";
import type { Vec2 } from "@/core/geometry/vector";
import { CURVES } from "./curves/registry";
import { CurveSchema, type Curve } from "./curves/schema";

export { CurveSchema, type Arc, type Circle, type Curve, type Ellipse, type Line, type Spline } from "./curves/schema";
import { Coordinate, Id } from "./curves/schema";
import type { EntityType } from "./curves/entity";
import { plainText } from "@/core/units/text";

/** A curve (`l1`), a point of one (`l1.start`), or `origin`, `x-axis`, `y-axis`. */
const Ref = means(
  z
    .string()
    .regex(
      /^[A-Za-z][A-Za-z0-9_-]{0,39}(\.(start|end|centre|major|minor|p\d{1,3}|start-handle|end-handle))?$/,
      "a reference reads like l1, l1.start, c1.centre, origin, x-axis or y-axis",
    ),
  "curve",
);

export const CONSTRAINT_KINDS = [
  "coincident",
  "horizontal",
  "vertical",
  "parallel",
  "perpendicular",
  "collinear",
  "tangent",
  "curvature",
  "equal",
  "concentric",
  "midpoint",
  "point-on-curve",
  "symmetric",
  "fixed",
  "spaced",
  "turned",
] as const;
export const DIMENSION_KINDS = [
  "length",
  "distance",
  "horizontal-distance",
  "vertical-distance",
  "point-line",
  "to-side",
  "ring",
  "radius",
  "diameter",
  "across",
  "angle",
  "full-angle",
  "arc-length",
] as const;

const ANGULAR: ReadonlySet<string> = new Set(["angle", "full-angle"]);
/** What the value of a dimension is. */
export const quantityOf = (d: { readonly kind: string }): "length" | "angle" =>
  ANGULAR.has(d.kind) ? "angle" : "length";

export const ConstraintSchema = z.strictObject({
  id: Id,
  kind: z.enum(CONSTRAINT_KINDS),
  of: z.array(Ref).min(1).max(4),
  /** For `spaced`: how many times the step; for `turned`: the angle in degrees. */
  factor: means(z.number().min(-1e6).max(1e6), "ratio").optional(),
  /** Came from Define the rest. */
  proposed: z.boolean().optional(),
});
export const DimensionSchema = z.strictObject({
  id: Id,
  kind: z.enum(DIMENSION_KINDS),
  of: z.array(Ref).min(1).max(2),
  /**
   * As typed: a number in the document's unit, or text such as "2 5/8 in" or "=(94-31)/2" or "=2*width". Angles in
   * degrees.
   */
  value: means(z.union([z.number(), plainText().max(200)]), (d: { kind: string; reference?: boolean }) =>
    d.reference ? undefined : quantityOf(d),
  ),
  /** How other sizes may call it, besides its id. */
  name: means(
    plainText().regex(/^[A-Za-z][A-Za-z0-9_]{0,39}$/, "a name starts with a letter and holds letters, digits and _"),
    "name",
  ).optional(),
  /** A reference dimension is measured and drives nothing. */
  reference: z.boolean().optional(),
  /** Came from Define the rest. */
  proposed: z.boolean().optional(),
  /** Repeats another that is lettered, as along an offset: it drives, and its number is not shown. */
  repeats: z.boolean().optional(),
  /** For an angle: measure to the reversed second line. */
  flip: z.boolean().optional(),
  /** For each round thing it is taken from: its near or its far side. */
  sides: z
    .array(z.enum(["near", "far"]))
    .max(2)
    .optional(),
  /** Where its number stands, in sketch coordinates. */
  at: means(z.tuple([Coordinate, Coordinate]), "layout").optional(),
});

/**
 * Curves made together, whose making can be changed: the numbers it was made with and the curves and relations it
 * made.
 */
export const GroupSchema = z.strictObject({
  id: Id,
  kind: z.enum(["polygon", "linear-pattern", "circular-pattern"]),
  /** Sides, or how many there are in all. */
  count: means(z.number().int().min(2).max(60), "ratio"),
  /** What it was made of: the circle of a polygon, the curves that are repeated. */
  source: z.array(Id).max(200),
  made: z.array(Id).max(4000),
  /** Centre of a circular pattern. */
  about: Ref.optional(),
  /** Degrees over the whole of a circular pattern. */
  angle: means(z.number(), "place").optional(),
  /** A polygon whose sides, not corners, lie on its circle. */
  outside: z.boolean().optional(),
});

/** A named number from outside: mm, or radians. */
const GivenSchema = z.strictObject({ name: plainText().max(40), value: z.number(), kind: z.enum(["length", "angle"]) });
export type Given = z.infer<typeof GivenSchema>;

const Vector = z.tuple([Coordinate, Coordinate, Coordinate]);
const Frame = z.strictObject({ origin: Vector, x: Vector, y: Vector });
/** Where it was found last. */
const foundLast = means(Frame, "memory");
/**
 * Where a sketch lies: a datum plane, moved along its normal and tilted about its own x or y axis; or a flat face of
 * the part by its name.
 */
export const PlaneSchema = z.union([
  z.strictObject({
    base: z.enum(["front", "top", "right"]),
    offset: means(z.number().min(-1e5).max(1e5), "place").optional(),
    /** Degrees, by the right-hand rule. */
    tilt: z
      .strictObject({ about: z.enum(["x", "y"]), angle: means(z.number().min(-360).max(360), "place") })
      .optional(),
  }),
  /** The frame is where the face was found last; a rebuild finds it anew. */
  means(z.strictObject({ ...FaceRefSchema.shape, frame: foundLast }), "face"),
  /** A datum plane step; the frame is where it was last. */
  means(z.strictObject({ datum: plainText().max(40), frame: foundLast }), "plane"),
]);
export type Plane = z.infer<typeof PlaneSchema>;

const unique = (list: { id: string }[][]) => {
  const ids = list.flat().map((e) => e.id);
  return new Set(ids).size === ids.length;
};

export const SketchSchema = z
  .strictObject({
    plane: PlaneSchema,
    curves: z.array(CurveSchema).max(2500),
    constraints: z.array(ConstraintSchema).max(10000),
    dimensions: z.array(DimensionSchema).max(5000),
    groups: z.array(GroupSchema).max(200).optional(),
    /**
     * The part's named parameters as this sketch knows them, so that it can be solved by itself: kept up by the part.
     */
    given: means(z.array(GivenSchema).max(200), "memory").optional(),
  })
  .refine(
    (s) => unique([s.curves, s.constraints, s.dimensions, s.groups ?? []]),
    "every id in a sketch must be used once",
  );

export type Constraint = z.infer<typeof ConstraintSchema>;
export type Dimension = z.infer<typeof DimensionSchema>;
export type Group = z.infer<typeof GroupSchema>;
export type Sketch = z.infer<typeof SketchSchema>;
export type Relation = Constraint | Dimension;
/** What a reference may mean. A circle's place is also taken by an arc, an ellipse's by a stretch of one. */
export type { EntityType };

export const isDimension = (r: Relation): r is Dimension => "value" in r;
export const sketchIn = (plane: Plane): Sketch => ({ plane, curves: [], constraints: [], dimensions: [] });
export const emptySketch = (base: "front" | "top" | "right", offset = 0): Sketch =>
  sketchIn(offset ? { base, offset } : { base });

/** Whether a thing can stand where another kind is wanted. */
export const fits = (want: EntityType, is: EntityType | undefined): boolean =>
  is === want || (want === "circle" && is === "arc");

/** References are taken apart again and again, by every solve: what was found is kept. */
const taken = new Map<string, readonly [curve: string, part: string | undefined]>();
const KEPT = 50_000;
export function takenApart(ref: string): readonly [curve: string, part: string | undefined] {
  let found = taken.get(ref);
  if (!found) {
    const dot = ref.indexOf(".");
    found = dot < 0 ? [ref, undefined] : [ref.slice(0, dot), ref.slice(dot + 1)];
    if (taken.size > KEPT) taken.clear();
    taken.set(ref, found);
  }
  return found;
}

/** The curve a reference belongs to; origin and axes are their own. */
export const curveOf = (ref: string): string => takenApart(ref)[0];
/** Which point of its curve a reference is; undefined for the curve itself. */
export const partOf = (ref: string): string | undefined => takenApart(ref)[1];

const lookup = new WeakMap<readonly Curve[], Map<string, Curve>>();
/** The curve of an id. */
export function curveById(sketch: Pick<Sketch, "curves">, id: string): Curve | undefined {
  let map = lookup.get(sketch.curves);
  if (!map || map.size !== sketch.curves.length)
    lookup.set(sketch.curves, (map = new Map(sketch.curves.map((c) => [c.id, c]))));
  return map.get(id);
}

export const entityOf = (c: Curve): EntityType => (c.kind === "ellipse-arc" ? "ellipse" : c.kind);

/** What a reference means in this sketch, or undefined when it means nothing. */
export function typeOf(sketch: Pick<Sketch, "curves">, ref: string): EntityType | undefined {
  if (ref === "origin") return "point";
  if (ref === "x-axis" || ref === "y-axis") return "line";
  const [id, part] = takenApart(ref),
    curve = curveById(sketch, id);
  if (!curve) return undefined;
  if (part === undefined) return entityOf(curve);
  return CURVES[curve.kind].points(curve as never).includes(part) ? "point" : undefined;
}

/** Coordinates of a point reference, in sketch millimetres. */
export function pointAt(sketch: Pick<Sketch, "curves">, ref: string): Vec2 {
  if (ref === "origin") return [0, 0];
  const curve = curveById(sketch, curveOf(ref));
  if (!curve) throw new Error(`no point ${ref}`);
  const kind = CURVES[curve.kind],
    k = curve.kind === "point" ? 0 : kind.points(curve as never).indexOf(partOf(ref) ?? "");
  if (k < 0) throw new Error(`no point ${ref}`);
  const v = kind.numbers(curve as never);
  return [v[2 * k]!, v[2 * k + 1]!];
}

/** Two points of a line or an axis. */
export function lineThrough(sketch: Pick<Sketch, "curves">, ref: string): [Vec2, Vec2] {
  if (ref === "x-axis")
    return [
      [0, 0],
      [1, 0],
    ];
  if (ref === "y-axis")
    return [
      [0, 0],
      [0, 1],
    ];
  return [pointAt(sketch, `${ref}.start`), pointAt(sketch, `${ref}.end`)];
}

const PARTS: Record<string, string> = {
  centre: "centre",
  start: "start",
  end: "end",
  major: "end of the long axis",
  minor: "end of the short axis",
  "start-handle": "start handle",
  "end-handle": "end handle",
};

/** How a person knows a reference: "line l1", "start of l1", "the origin". */
export function nameOf(ref: string): string {
  if (ref === "origin") return "the origin";
  if (ref === "x-axis") return "the horizontal axis";
  if (ref === "y-axis") return "the vertical axis";
  const part = partOf(ref);
  return part ? `the ${PARTS[part] ?? `point ${part.slice(1)}`} of ${curveOf(ref)}` : ref;
}

/** Every point reference of a curve. */
export const pointsOf = (c: Curve): string[] =>
  c.kind === "point" ? [c.id] : CURVES[c.kind].points(c as never).map((p) => `${c.id}.${p}`);
