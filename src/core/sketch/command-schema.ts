import { z } from "zod";
import { ClipSchema } from "./edit/clipboard";
import { ConstraintSchema, CurveSchema, DimensionSchema, GroupSchema, PlaneSchema } from "./sketch";
import { plainText } from "@/core/units/text";

const Place = z.tuple([z.number(), z.number()]);
const Value = DimensionSchema.shape.value;
const Curves = z.array(plainText()).max(2500);

/** Every change a sketch can undergo. */
export const SketchCommandSchema = z.discriminatedUnion("do", [
  z.strictObject({
    do: z.literal("draw"),
    curves: z.array(CurveSchema),
    constraints: z.array(ConstraintSchema),
    dimensions: z.array(DimensionSchema).optional(),
    groups: z.array(GroupSchema).optional(),
  }),
  z.strictObject({ do: z.literal("constrain"), kind: ConstraintSchema.shape.kind, of: ConstraintSchema.shape.of }),
  /** Several at once: what a program proposed and a person took. */
  z.strictObject({
    do: z.literal("pin"),
    constraints: z.array(ConstraintSchema.omit({ id: true })),
    dimensions: z.array(DimensionSchema.omit({ id: true })),
  }),
  z.strictObject({
    do: z.literal("dimension"),
    kind: DimensionSchema.shape.kind,
    of: DimensionSchema.shape.of,
    value: DimensionSchema.shape.value.optional(),
    at: DimensionSchema.shape.at,
    flip: z.boolean().optional(),
    sides: DimensionSchema.shape.sides,
  }),
  z.strictObject({ do: z.literal("resize"), id: plainText(), value: Value }),
  /** Several values changed first and solved at once. */
  z.strictObject({
    do: z.literal("resize-all"),
    sizes: z
      .array(z.strictObject({ id: plainText(), value: Value }))
      .min(1)
      .max(5000),
  }),
  z.strictObject({ do: z.literal("name"), id: plainText(), name: plainText().max(40) }),
  /** Another kind of dimension over the same things: radius, diameter, distance across. */
  z.strictObject({
    do: z.literal("retype"),
    id: plainText(),
    kind: DimensionSchema.shape.kind,
    of: DimensionSchema.shape.of.optional(),
    sides: DimensionSchema.shape.sides,
  }),
  z.strictObject({ do: z.literal("place"), id: plainText(), at: z.tuple([z.number(), z.number()]) }),
  z.strictObject({ do: z.literal("drive"), id: plainText(), reference: z.boolean() }),
  z.strictObject({
    do: z.literal("construction"),
    ids: z.array(plainText()),
    on: z.union([z.boolean(), z.literal("centre-line")]),
  }),
  z.strictObject({ do: z.literal("drag"), curves: z.array(CurveSchema) }),
  z.strictObject({ do: z.literal("delete"), ids: z.array(plainText()) }),
  z.strictObject({ do: z.literal("trim"), id: plainText(), near: Place }),
  z.strictObject({ do: z.literal("extend"), id: plainText(), near: Place }),
  z.strictObject({ do: z.literal("split"), id: plainText(), near: Place }),
  z.strictObject({
    do: z.literal("corner"),
    kind: z.enum(["fillet", "chamfer"]),
    corners: z.array(plainText()).min(1).max(200),
    value: Value,
  }),
  z.strictObject({ do: z.literal("offset"), id: plainText(), value: Value, left: z.boolean() }),
  z.strictObject({ do: z.literal("mirror"), curves: Curves, about: plainText() }),
  z.strictObject({
    do: z.literal("linear-pattern"),
    curves: Curves,
    count: z.number().int().min(2).max(60),
    step: Place,
  }),
  z.strictObject({
    do: z.literal("circular-pattern"),
    curves: Curves,
    count: z.number().int().min(2).max(60),
    about: plainText(),
    angle: z.number(),
  }),
  z.strictObject({
    do: z.literal("polygon"),
    circle: plainText(),
    count: z.number().int().min(3).max(60),
    outside: z.boolean(),
    turn: z.number(),
  }),
  z.strictObject({
    do: z.literal("regroup"),
    id: plainText(),
    count: z.number().int().min(2).max(60),
    angle: z.number().optional(),
  }),
  /** Turn in degrees. */
  z.strictObject({
    do: z.literal("transform"),
    curves: Curves,
    about: Place.optional(),
    turn: z.number().optional(),
    scale: z.number().optional(),
    by: Place.optional(),
    copy: z.boolean().optional(),
  }),
  z.strictObject({ do: z.literal("paste"), clip: ClipSchema, by: Place }),
  z.strictObject({ do: z.literal("move-plane"), plane: PlaneSchema }),
]);
export type SketchCommand = z.infer<typeof SketchCommandSchema>;
