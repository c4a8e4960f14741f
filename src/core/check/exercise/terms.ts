import { z } from "zod";
import { ACCEPTED } from "../given/part-file";
import { STEP_KIND_NAMES } from "../kinds/ways/rule";

/** What happens to work that comes after it was due: it is refused, marked late, or loses points for each day begun. */
export const AFTER_DUE = ["refuse", "late", "points"] as const;

const ShowsSchema = z
  .strictObject({
    /** As soon as it is checked, or when it is returned. */
    when: z.enum(["checked", "returned"]),
    points: z.boolean(),
    verdicts: z.boolean(),
    sentences: z.boolean(),
    /** What was measured on their part. */
    numbers: z.boolean(),
    /** Where on their part something is wrong. */
    places: z.boolean(),
    /** What was wanted, also where the Sheet does not print it. */
    targets: z.boolean(),
  })
  .readonly();
/** What a student may see of a result, and when. */
export type Shows = z.infer<typeof ShowsSchema>;

const PracticeSchema = z
  .strictObject({
    shows: z.enum(["fails", "sentences", "all"]),
    /** How often; left out: as often as they like. */
    most: z.number().int().min(1).max(1000).optional(),
  })
  .readonly();
/** How far a student may check before handing in: that a line fails, also why, or all with points. */
export type Practice = z.infer<typeof PracticeSchema>;

/** On what terms an exercise is given out, but for the dates and whom it is for. What is left out is as usual. */
export const TermsSchema = z.strictObject({
  graceMinutes: z.number().int().min(0).max(10_080).optional(),
  afterDue: z.enum(AFTER_DUE).optional(),
  pointsADay: z.number().min(0).max(1000).optional(),
  /** Students may let the Bench define the rest of a sketch. */
  mayDefine: z.boolean().optional(),
  accepts: z.array(z.enum(ACCEPTED)).min(1).max(ACCEPTED.length).readonly().optional(),
  /** Kinds of steps that may be used; left out: all. */
  mayUse: z.array(z.enum(STEP_KIND_NAMES)).max(STEP_KIND_NAMES.length).readonly().optional(),
  /** Tries; left out: any number. */
  attemptsMost: z.number().int().min(1).max(100).optional(),
  counts: z.enum(["last", "best"]).optional(),
  shows: ShowsSchema.optional(),
  /** Checks before handing in; left out: none. */
  practice: PracticeSchema.optional(),
  /** In the gradebook. */
  weight: z.number().min(0).max(1000).optional(),
  /** Nothing is returned before all were looked at. */
  holdBack: z.boolean().optional(),
});
export type GivenTerms = z.infer<typeof TermsSchema>;

export const SHOWS: Shows = {
  when: "checked",
  points: true,
  verdicts: true,
  sentences: true,
  numbers: true,
  places: true,
  targets: false,
};

/** What holds where an exercise says nothing else. */
export const USUAL_TERMS = {
  graceMinutes: 10,
  afterDue: "late",
  pointsADay: 1,
  mayDefine: true,
  accepts: ["part"],
  counts: "last",
  shows: SHOWS,
  weight: 1,
  holdBack: false,
} as const satisfies GivenTerms;
