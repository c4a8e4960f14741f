import { KNOT_GAP } from "../tolerance";
import { z } from "zod";
import { means } from "@/core/naming/field";
import { EdgeRefSchema } from "@/core/naming/reference";
import { plainText } from "@/core/units/text";

export const Id = means(
  plainText().regex(/^[A-Za-z][A-Za-z0-9_-]{0,39}$/, "an id starts with a letter and holds letters, digits, - and _"),
  "id",
);
export const Coordinate = z.number().min(-1e6).max(1e6);
export const Point = means(z.tuple([Coordinate, Coordinate]), "place");
/** Not part of regions: an aid (true), or a centre line that turned sizes can be taken across. */
const construction = z.union([z.boolean(), z.literal("centre-line")]).optional();
/**
 * The edge of the part it is the picture of, by the two faces that meet there; it follows the part and cannot be
 * moved.
 */
const projected = means(plainText().max(700), "picture").optional();
/** For an edge: what tells it apart from others between faces of the same names, when the part has changed. */
const was = EdgeRefSchema.optional();

const PointSchema = z.strictObject({
  id: Id,
  kind: z.literal("point"),
  at: Point,
  construction,
  projected,
  was,
});
const LineSchema = z.strictObject({
  id: Id,
  kind: z.literal("line"),
  start: Point,
  end: Point,
  construction,
  projected,
  was,
});
const CircleSchema = z.strictObject({
  id: Id,
  kind: z.literal("circle"),
  centre: Point,
  radius: means(z.number().positive().max(1e6), "place"),
  construction,
  projected,
  was,
});
/** Counter-clockwise from start to end. Its radius follows from them. */
const ArcSchema = z.strictObject({
  id: Id,
  kind: z.literal("arc"),
  centre: Point,
  start: Point,
  end: Point,
  construction,
  projected,
  was,
});
/** `major` and `minor` are the ends of its two half axes, square to each other. */
const EllipseSchema = z.strictObject({
  id: Id,
  kind: z.literal("ellipse"),
  centre: Point,
  major: Point,
  minor: Point,
  construction,
  projected,
  was,
});
/** Runs from start to end in the sense that goes from the major to the minor axis. */
const EllipseArcSchema = z.strictObject({
  id: Id,
  kind: z.literal("ellipse-arc"),
  centre: Point,
  major: Point,
  minor: Point,
  start: Point,
  end: Point,
  construction,
  projected,
  was,
});
/** A cubic spline through its points; a handle gives the direction at its end. */
const SplineSchema = z
  .strictObject({
    id: Id,
    kind: z.literal("spline"),
    through: z.array(Point).min(2).max(100),
    knots: means(z.array(z.number()), "ratio").optional(),
    startHandle: Point.optional(),
    endHandle: Point.optional(),
    construction,
    projected,
    was,
  })
  .refine(
    (s) =>
      !s.knots ||
      (s.knots.length === s.through.length && s.knots.every((k, i) => i === 0 || k - s.knots![i - 1]! > KNOT_GAP)),
    "knots rise, one for each point",
  );

export const CurveSchema = z.discriminatedUnion("kind", [
  PointSchema,
  LineSchema,
  CircleSchema,
  ArcSchema,
  EllipseSchema,
  EllipseArcSchema,
  SplineSchema,
]);

export type PointCurve = z.infer<typeof PointSchema>;
export type Line = z.infer<typeof LineSchema>;
export type Circle = z.infer<typeof CircleSchema>;
export type Arc = z.infer<typeof ArcSchema>;
export type Ellipse = z.infer<typeof EllipseSchema>;
export type EllipseArc = z.infer<typeof EllipseArcSchema>;
export type Spline = z.infer<typeof SplineSchema>;
export type Curve = z.infer<typeof CurveSchema>;
