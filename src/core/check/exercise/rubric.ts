import { z } from "zod";
import { CHECK_NAMES, checkKind } from "../kinds/kinds";
import { WayRuleSchema, type WayRule } from "../kinds/ways/rule";
import { plainText } from "@/core/units/text";

/** How a line's points follow from what was found. */
const ScoringSchema = z.discriminatedUnion("mode", [
  z.strictObject({ mode: z.literal("all") }),
  /** Falling linearly from the tolerance (all points) to the limit (none). */
  z.strictObject({ mode: z.literal("falling"), limit: z.number().positive() }),
  /** By the share of items that are right: of sizes, sketches, figures. */
  z.strictObject({ mode: z.literal("share") }),
]);

const RubricLineSchema = z.strictObject({
  id: plainText().min(1).max(40),
  check: z.enum(CHECK_NAMES),
  title: plainText().min(1).max(80),
  points: z.number().min(0).max(1000),
  scoring: ScoringSchema,
  /** Only these sizes, by their ids; left out: all that are printed. */
  only: z.array(plainText().max(80)).min(1).max(400).optional(),
  /** Sketches: those that no step uses count as well. */
  unused: z.boolean().optional(),
  /** Earned beside what can be had: it lifts the points, and never what they are out of. */
  bonus: z.boolean().optional(),
  /** Not met, and not overruled to all of its points, nothing of the whole counts. */
  must: z.boolean().optional(),
  /** What a way of building has to keep to. */
  rule: WayRuleSchema.optional(),
});
export type RubricLine = z.infer<typeof RubricLineSchema>;
export const RubricSchema = z.array(RubricLineSchema).max(40);

/** A rubric to start from: 25 points. */
export const defaultRubric = (): RubricLine[] =>
  CHECK_NAMES.filter((check) => checkKind(check).start.points > 0).map((check) => newLine(check));

/** A line of a rubric to start from. */
export function newLine(check: RubricLine["check"], points = checkKind(check).start.points): RubricLine {
  const { title, limit } = checkKind(check).start;
  const scoring = limit === undefined ? { mode: "all" as const } : { mode: "falling" as const, limit };
  return { id: check, check, title, points, scoring, ...(check === "ways" && { rule: startRule("pattern") }) };
}

/** A rule of each way of building to start from. */
export function startRule(way: WayRule["way"]): WayRule {
  switch (way) {
    case "kinds":
      return { way };
    case "most-steps":
      return { way, most: 12 };
    case "pattern":
      return { way };
    case "names":
      return { way, part: "{number} {initials}" };
    case "define":
      return { way, used: false };
    case "wall":
      return { way, least: 2 };
  }
}
