import {
  angleField,
  bodiesField,
  idField,
  lengthField,
  sizeText,
  sketchField,
  stepFields,
  stepKind,
  textField,
} from "../fields";
import { means } from "@/core/naming/field";
import { z } from "zod";
import type { Curve, Sketch } from "@/core/sketch/sketch";
import { readQuantity } from "@/core/units/quantity";
import { EdgeRefSchema, FaceRefSchema, PlaneRefSchema, PointRefSchema } from "@/core/naming/reference";

const Place = z.number().min(-1e5).max(1e5);

/** How far from an edge or a flat face, counted inwards. */
const DistanceSchema = z.strictObject({
  of: z.union([EdgeRefSchema, FaceRefSchema]),
  distance: lengthField("distance"),
});
export type HoleDistance = z.infer<typeof DistanceSchema>;

/**
 * Where a hole stands: placed freely on the face (its own coordinates, mm), by a reference, or by its distances from
 * two
 * edges or faces.
 */
const HolePointSchema = z.union([
  z.strictObject({ id: idField(), at: means(z.tuple([Place, Place]), "place") }),
  z.strictObject({ id: idField(), on: PointRefSchema }),
  z.strictObject({ id: idField(), from: z.tuple([DistanceSchema, DistanceSchema]) }),
]);

const HoleStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("hole"),
  /** The flat face or plane it is drilled into; left out with a sketch, whose plane it then is. */
  on: PlaneRefSchema.optional(),
  /** All points of a sketch. */
  sketch: sketchField().optional(),
  points: z.array(HolePointSchema).max(300),
  diameter: lengthField("diameter"),
  head: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("plain") }),
    z.strictObject({
      kind: z.literal("counterbore"),
      diameter: lengthField("counterbore diameter"),
      depth: lengthField("counterbore depth"),
    }),
    /** The cone's whole angle. */
    z.strictObject({
      kind: z.literal("countersink"),
      diameter: lengthField("countersink diameter"),
      angle: angleField("countersink angle"),
    }),
  ]),
  extent: z.discriminatedUnion("kind", [
    /** Depth of the full diameter. */
    z.strictObject({ kind: z.literal("depth"), depth: lengthField("depth") }),
    z.strictObject({ kind: z.literal("through") }),
    z.strictObject({ kind: z.literal("face"), face: PlaneRefSchema }),
  ]),
  /** Whole angle of the cone at the bottom; left out: flat. */
  tip: angleField("angle of the tip").optional(),
  /** A note on the hole; the thread is not cut. */
  thread: z.strictObject({ name: textField(40), depth: lengthField("depth of the thread").optional() }).optional(),
  /** Which table its sizes were taken from, and the row. */
  from: z.strictObject({ table: textField(60), row: textField(40), fit: textField(20).optional() }).optional(),
  bodies: bodiesField().optional(),
  /** Against the way into the material. */
  reverse: z.boolean().optional(),
});
export type HoleStep = z.infer<typeof HoleStepSchema>;

/** Whether a sketch has points that holes can stand at: construction carries none. */
export const carriesHoles = (step: { kind: string; sketch?: unknown }): boolean =>
  step.kind === "sketch" && (step.sketch as Sketch).curves.some(isHolePoint);
export const isHolePoint = (c: Curve): c is Extract<Curve, { kind: "point" }> => c.kind === "point" && !c.construction;

export const holeKind = stepKind({
  schema: HoleStepSchema,
  read(step, unit) {
    const head =
      step.head.kind === "plain" ? "" : ` ${step.head.kind === "counterbore" ? "counterbored" : "countersunk"}`;
    const how =
      step.extent.kind === "depth"
        ? `${sizeText(step.extent.depth, unit)} deep`
        : step.extent.kind === "through"
          ? "through"
          : "as far as a face";
    const r = readQuantity(step.diameter, "length", unit);
    const many = step.points.length > 1 ? `${step.points.length}× ` : "";
    return {
      title: `Hole${head}`,
      detail: [
        `${many}⌀${r.ok ? sizeText(step.diameter, unit) : step.diameter}`,
        how,
        ...(step.thread
          ? [
              step.thread.depth === undefined
                ? step.thread.name
                : `${step.thread.name}, ${sizeText(step.thread.depth, unit)} deep`,
            ]
          : []),
      ].join(" · "),
    };
  },
});
