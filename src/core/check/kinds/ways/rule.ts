import { z } from "zod";
import { STEP_KINDS, type Step } from "@/core/part/steps/kinds";
import { plainText } from "@/core/units/text";

/** Kinds of steps, as the part document names them. */
export type StepKindName = Step["kind"];
export const STEP_KIND_NAMES = Object.keys(STEP_KINDS) as [StepKindName, ...StepKindName[]];
const StepKindName = z.enum(STEP_KIND_NAMES);

/** What a line about the way of building asks for. */
export const WayRuleSchema = z.discriminatedUnion("way", [
  /** Kinds of steps: only these may be used; each of these must be. */
  z.strictObject({
    way: z.literal("kinds"),
    allowed: z.array(StepKindName).max(20).optional(),
    asked: z.array(StepKindName).max(20).optional(),
  }),
  z.strictObject({ way: z.literal("most-steps"), most: z.number().int().min(1).max(300) }),
  /** Like things come from a pattern or a mirror, not one by one. */
  z.strictObject({ way: z.literal("pattern") }),
  /** The part's name by a rule in which {number}, {title} and {initials} stand for what they are; steps have names. */
  z.strictObject({
    way: z.literal("names"),
    part: plainText().min(1).max(120).optional(),
    steps: z.boolean().optional(),
  }),
  /** Whether the program was asked to define the rest of a sketch. */
  z.strictObject({ way: z.literal("define"), used: z.boolean() }),
  /** No wall is thinner, mm. */
  z.strictObject({ way: z.literal("wall"), least: z.number().positive().max(10_000) }),
]);
export type WayRule = z.infer<typeof WayRuleSchema>;
