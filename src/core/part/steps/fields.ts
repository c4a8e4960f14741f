import { z } from "zod";
import { means } from "@/core/naming/field";
import { EdgeRefSchema } from "@/core/naming/reference";
import { lengthText, readQuantity, type LengthUnit } from "@/core/units/quantity";
import { plainText } from "@/core/units/text";

/** A number in the document's unit, or text as a person types it. */
export type Size = number | string;
const size = () => z.union([z.number(), plainText().max(200)]);

/** A length of a step. @param label how it is called in lists of numbers */
export const lengthField = (label: string) => means(size(), "length", label);
/** An angle of a step, degrees. */
export const angleField = (label: string) => means(size(), "angle", label);
/** How many there are in all. */
export const countField = (label: string) => means(z.number().int().min(2).max(500), "count", label);
export const textField = (longest: number) => means(plainText().max(longest), "text");
/** An id of something within the step, which names faces that come of it. */
export const idField = () => means(plainText().regex(/^[A-Za-z0-9_-]{1,20}$/), "id");
export const sketchField = () => means(plainText().max(40), "sketch");
export const regionsField = () => z.array(means(plainText().max(2000), "region")).max(200);
export const bodiesField = () => z.array(means(plainText().max(40), "body")).max(50);

/** What every step has. */
export const stepFields = {
  id: means(plainText().regex(/^[A-Za-z0-9_-]{1,40}$/), "id"),
  name: textField(80).optional(),
  suppressed: z.boolean().optional(),
};

/** An edge a step works on; its id names the face that comes of it and stays when others come and go. */
export const StepEdgeSchema = z.strictObject({ id: idField(), on: EdgeRefSchema });
export type StepEdge = z.infer<typeof StepEdgeSchema>;

/** What is repeated: steps, each doing again what it did, or all there is. */
export const OfSchema = z.union([
  z.strictObject({
    steps: z
      .array(means(plainText().max(40), "step"))
      .min(1)
      .max(100),
  }),
  z.strictObject({ body: z.literal(true) }),
]);
export type Of = z.infer<typeof OfSchema>;

/** How a wall's open end finishes: on the first face it meets, on the one after, or square where it was drawn. */
const WallFinishSchema = z.enum(["first", "next", "square"]);
export type WallFinish = z.infer<typeof WallFinishSchema>;

/**
 * A wall along the outline instead of the full volume: inside it, outside it, or half to each side. Along an open
 * outline inside is to the left of its run; `ends` says how single ends (such as `l1.start`) finish.
 */
export const ThinSchema = z.strictObject({
  thickness: lengthField("wall"),
  side: z.enum(["inside", "outside", "middle"]),
  ends: z.record(plainText().max(80), WallFinishSchema).optional(),
});
export type Thin = z.infer<typeof ThinSchema>;

const OperationSchema = z.enum(["add", "cut", "keep", "separate"]);
export type Operation = z.infer<typeof OperationSchema>;
/** Fields of a step that works on bodies. `bodies` left out: Add joins the first, the others take all. */
export const operationFields = { operation: OperationSchema, bodies: bodiesField().optional() };

export const OPERATION_TEXT: Record<Operation, string> = {
  add: "Add material",
  cut: "Cut material",
  keep: "Keep overlap",
  separate: "Separate body",
};

/** A size as it reads in the list of Steps; an expression that names others stays as it was typed. */
export const sizeText = (size: Size, unit: LengthUnit): string => {
  const r = readQuantity(size, "length", unit);
  return r.ok ? lengthText(r.value, unit) : String(size);
};

/** What is known of a kind of step without building it. */
export interface StepKind<S> {
  readonly schema: z.ZodType<S>;
  /** How it reads in the list of Steps: a name and its figures. */
  read(step: S, unit: LengthUnit): { readonly title: string; readonly detail: string };
}

/** Ties a kind's schema and its sentence together. */
export const stepKind = <Schema extends z.ZodType>(kind: {
  readonly schema: Schema;
  read(step: z.infer<Schema>, unit: LengthUnit): { readonly title: string; readonly detail: string };
}) => kind;
