import { z } from "zod";
import { letteredAngle } from "@/core/sizes/lettering";
import { areaText, massText, percentText, volumeText } from "@/core/units/amounts";
import { lengthText } from "@/core/units/quantity";
import type { FigureQuantity } from "../../exercise/question";
import { VerdictSchema, type Asked, type CheckKind, type Verdict } from "../kind";
import { plainText } from "@/core/units/text";

/** One typed figure against the right one. mm, radians, mm², mm³, g. */
export interface CheckedAnswer {
  readonly id: string;
  readonly title: string;
  /** As the student typed it; empty: not answered. */
  readonly typed: string;
  /** What it was read as; left out where it is no such figure. */
  readonly given?: number | undefined;
  readonly wanted: number;
  readonly quantity: FigureQuantity;
  /** Share of the wanted. */
  readonly tolerance: number;
  readonly isRight: boolean;
  /** Why it could not be read. */
  readonly trouble?: string | undefined;
}

export interface AnswersEvidence {
  readonly check: "answers";
  readonly verdict: Verdict;
  /** How many are not right. */
  readonly off: number;
  readonly answers: readonly CheckedAnswer[];
}

export const answersKind: CheckKind<AnswersEvidence> = {
  evidence: z.strictObject({
    check: z.literal("answers"),
    verdict: VerdictSchema,
    off: z.number(),
    answers: z.array(
      z.strictObject({
        id: plainText(),
        title: plainText(),
        typed: plainText(),
        given: z.number().optional(),
        wanted: z.number(),
        quantity: z.enum(["length", "angle", "area", "volume", "mass"]),
        tolerance: z.number(),
        isRight: z.boolean(),
        trouble: plainText().optional(),
      }),
    ),
  }),
  toInstructor: (e, asked) =>
    told(
      e,
      (a) => `${outcome(a, asked)}, wanted ${figureText(a.wanted, a.quantity, asked)} ± ${percentText(a.tolerance)}`,
    ),
  toStudent: (e, asked) => told(e, (a) => outcome(a, asked)),
  earnsNothing: (e) => e.off > 0 && e.off === e.answers.length,
  limit: { unit: "figures wrong", isShare: false },
  start: { title: "Just the figure", points: 0, limit: 3 },
};

function told(e: AnswersEvidence, text: (a: CheckedAnswer) => string): string {
  if (!e.answers.length) return "No figure is asked for.";
  const wrong = e.answers.filter((a) => !a.isRight);
  if (!wrong.length)
    return e.answers.length === 1 ? "The figure is right." : `All ${e.answers.length} figures are right.`;
  const head = `${e.answers.length - wrong.length} of ${e.answers.length} figures are right.`;
  return `${head} ${wrong.map((a) => `“${a.title}”: ${text(a)}.`).join(" ")}`;
}

function outcome(a: CheckedAnswer, asked: Asked): string {
  if (!a.typed) return "not answered";
  if (a.given === undefined) return `“${a.typed}” could not be read${a.trouble ? ` (${a.trouble})` : ""}`;
  return `${figureText(a.given, a.quantity, asked)} is outside the tolerance`;
}

/** A figure in the exercise's units. */
export function figureText(value: number, quantity: FigureQuantity, { units, massUnit }: Asked): string {
  switch (quantity) {
    case "length":
      return lengthText(value, units);
    case "angle":
      return letteredAngle(value, 3);
    case "area":
      return areaText(value, units);
    case "volume":
      return volumeText(value, units);
    case "mass":
      return massText(value, massUnit);
  }
}
