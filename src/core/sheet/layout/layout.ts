import { z } from "zod";
import { plainText } from "@/core/units/text";

const Point = z.tuple([z.number(), z.number()]);
const Key = plainText().min(1).max(20);

/** Where a size stands beside its view; `of` tells ways apart that are alike but for their place. mm of paper. */
const PlaceSchema = z.discriminatedUnion("form", [
  z.strictObject({
    form: z.literal("straight"),
    view: Key,
    of: Point,
    side: z.union([z.literal(1), z.literal(-1)]),
    /** From the outline to the dimension line. */
    offset: z.number().min(-2000).max(2000),
    /** From the line's middle to the number's. */
    shift: z.number().min(-2000).max(2000),
    /** As an ordinate: the number at the end of its own extension line, counted from a zero at the other. */
    ordinate: z.boolean().optional(),
  }),
  z.strictObject({
    form: z.literal("angular"),
    view: Key,
    of: Point,
    radius: z.number().positive().max(2000),
    shift: z.number().min(-2000).max(2000),
  }),
  z.strictObject({
    form: z.literal("leader"),
    view: Key,
    /** In the view's own coordinates, mm of the part. */
    tip: Point,
    /** From the tip, mm of paper, y upwards. */
    elbow: Point,
  }),
]);
export type Place = z.infer<typeof PlaceSchema>;

/** How a view came to be. Coordinates are those of the view it is taken from, mm of the part. */
const LookSchema = z.discriminatedUnion("from", [
  /** A view that the program plans; `plain`: without the section it would make of it. */
  z.strictObject({ from: z.literal("planned"), name: plainText().max(20), plain: z.boolean().optional() }),
  /** Along a line that may step; `slice`: only what is cut. `flip`: looked at from the other side. */
  z.strictObject({
    from: z.literal("section"),
    of: Key,
    line: z.array(Point).min(2).max(12),
    flip: z.boolean().optional(),
    slice: z.boolean().optional(),
  }),
  z.strictObject({ from: z.literal("detail"), of: Key, centre: Point, radius: z.number().positive().max(10_000) }),
  /** Square to a slanted flat face of the reference. */
  z.strictObject({ from: z.literal("auxiliary"), of: Key, face: plainText().max(300) }),
]);
export type Look = z.infer<typeof LookSchema>;

const ViewSpecSchema = z.strictObject({
  key: Key,
  look: LookSchema,
  letter: plainText().max(3).optional(),
  /** Its middle, mm from the upper left corner of the paper; left out: the program places it. */
  middle: Point.optional(),
  /** Left out: that of the Sheet. */
  scale: z.number().positive().max(1000).optional(),
  hidden: z.boolean().optional(),
  tangent: z.boolean().optional(),
  /** Partial: only what lies within. */
  only: z.strictObject({ min: Point, max: Point }).optional(),
  /** Interrupted: what lies between is left out. */
  breaks: z
    .array(z.strictObject({ along: z.enum(["x", "y"]), from: z.number(), to: z.number() }))
    .max(4)
    .optional(),
  /** Local sections: outlines in the view, laid open down to a depth below what is nearest; left out: to the middle. */
  local: z
    .array(z.strictObject({ outline: z.array(Point).min(3).max(200), depth: z.number().optional() }))
    .max(6)
    .optional(),
});
export type ViewSpec = z.infer<typeof ViewSpecSchema>;

/** Something said about a place of a view. */
const RemarkSchema = z.strictObject({
  id: plainText().min(1).max(40),
  text: plainText().min(1).max(200),
  view: Key,
  tip: Point,
  elbow: Point,
});
export type Remark = z.infer<typeof RemarkSchema>;

/** A Sheet as somebody has arranged it. What it does not say, the program finds. */
export const LayoutSchema = z.strictObject({
  scale: z.number().positive().max(1000),
  views: z.array(ViewSpecSchema).max(16),
  /** By id of the size, of several at one leader that of the first. */
  places: z.record(plainText().max(40), PlaceSchema),
  remarks: z.array(RemarkSchema).max(60).optional(),
});
export type Layout = z.infer<typeof LayoutSchema>;
