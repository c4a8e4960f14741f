import { z } from "zod";
import type { MassUnit } from "@/core/units/amounts";
import { SizeSchema } from "@/core/sizes/size";
import type { LengthUnit } from "@/core/units/quantity";
import { plainText } from "@/core/units/text";

/** What a typed figure is of: the whole part, or one of its printed sizes. */
const AsksSchema = z.discriminatedUnion("what", [
  z.strictObject({ what: z.literal("mass") }),
  z.strictObject({ what: z.literal("volume") }),
  z.strictObject({ what: z.literal("area") }),
  z.strictObject({ what: z.literal("size"), size: SizeSchema }),
]);

/** A figure that the student types: of the part as drawn, or after stated changes of its numbers. */
export const QuestionSchema = z.strictObject({
  id: plainText().min(1).max(40),
  /** As the student reads it. */
  title: plainText().min(1).max(200),
  asks: AsksSchema,
  /** Numbers of the reference that are changed first, by their ids, to mm or radians. */
  after: z
    .array(z.strictObject({ number: plainText().min(1).max(200), value: z.number() }))
    .max(8)
    .optional(),
  /** A share of what is wanted. */
  tolerance: z.number().positive().max(1),
});
export type Question = z.infer<typeof QuestionSchema>;

/** What a question's answer is measured in: mm, radians, mm², mm³, g. */
export type FigureQuantity = "length" | "angle" | "area" | "volume" | "mass";

/** The right answer to each question by its id. */
export const WantedSchema = z.record(
  plainText().max(40),
  z.strictObject({ value: z.number(), quantity: z.enum(["length", "angle", "area", "volume", "mass"]) }),
);
export type Wanted = z.infer<typeof WantedSchema>;

/** What a student typed, by the id of the question. */
export const AnswersSchema = z
  .record(plainText().min(1).max(40), plainText().trim().max(60))
  .refine((a) => Object.keys(a).length <= 40, "at most 40 answers");
export type Answers = z.infer<typeof AnswersSchema>;

/** What a student is asked for, without what is right. */
export interface AskedFigures {
  /** What plain numbers count in. */
  readonly units: LengthUnit;
  readonly massUnit?: MassUnit | undefined;
  readonly questions: readonly { readonly id: string; readonly title: string; readonly quantity: FigureQuantity }[];
}

/** The unit that a plain number counts in. */
export function unitOfFigure(quantity: FigureQuantity, { units, massUnit }: Omit<AskedFigures, "questions">): string {
  switch (quantity) {
    case "mass":
      return massUnit ?? "g";
    case "angle":
      return "°";
    case "area":
      return `${units}²`;
    case "volume":
      return `${units}³`;
    case "length":
      return units;
  }
}
