import { z } from "zod";
import { VerdictSchema, type CheckKind, type Verdict } from "../kind";

export interface SketchesEvidence {
  readonly check: "sketches";
  readonly verdict: Verdict;
  readonly used: number;
  readonly defined: number;
  /** Freedoms left over all used sketches. */
  readonly off: number;
  readonly sketches: readonly {
    readonly id: string;
    /** How the list of Steps shows it. */
    readonly title: string;
    readonly freedoms: number;
    /** How many of them only move what the exercise leaves free: they cost nothing. */
    readonly free?: number | undefined;
    readonly loose: readonly string[];
    readonly trouble?: string | undefined;
    /** Dimensions that others settle already. */
    readonly surplus?: number | undefined;
  }[];
  /** What was left lying about: unused sketches, open ends, pieces that do not touch. Told, and no fault. */
  readonly strays?: readonly string[] | undefined;
}

/** Loose curves named at most. */
const MANY = 6;

export const sketchesKind: CheckKind<SketchesEvidence> = {
  evidence: z.strictObject({
    check: z.literal("sketches"),
    verdict: VerdictSchema,
    used: z.number(),
    defined: z.number(),
    off: z.number(),
    sketches: z.array(
      z.strictObject({
        id: z.string(),
        title: z.string(),
        freedoms: z.number(),
        free: z.number().optional(),
        loose: z.array(z.string()),
        trouble: z.string().optional(),
        surplus: z.number().optional(),
      }),
    ),
    strays: z.array(z.string()).optional(),
  }),
  toInstructor: (e) => told(e),
  toStudent: (e) => told(e),
  limit: { unit: "freedoms left", isShare: false },
  start: { title: "Sketches fully defined", points: 5, limit: 6 },
};

function told(e: SketchesEvidence): string {
  if (e.verdict === "unknown") return "No part built on the Bench was handed in, so there are no sketches.";
  if (!e.used) return "No sketch is used by a step.";
  const ways = (s: SketchesEvidence["sketches"][number]) => s.freedoms - (s.free ?? 0);
  const loose = e.sketches
    .filter((s) => ways(s) > 0)
    .map((s) => {
      const curves = `${s.loose.slice(0, MANY).join(", ")}${s.loose.length > MANY ? " …" : ""}`;
      return `${s.title} can still move in ${ways(s)} way${ways(s) > 1 ? "s" : ""} (${curves})`;
    });
  const trouble = e.sketches.filter((s) => s.trouble).map((s) => `${s.title} cannot be solved`);
  const rest = [...loose, ...trouble];
  const head = `${e.defined} of ${e.used} used sketch${e.used > 1 ? "es" : ""} fully defined`;
  const surplus = e.sketches.reduce((s, k) => s + (k.surplus ?? 0), 0);
  const free = e.sketches.reduce((s, k) => s + (k.free ?? 0), 0);
  const notes = [
    ...(free ? [`${free} freedom${free > 1 ? "s" : ""} only move${free > 1 ? "" : "s"} what is left free.`] : []),
    ...(surplus ? [`${surplus} dimension${surplus > 1 ? "s say" : " says"} what others settle already.`] : []),
    ...(e.strays ?? []).slice(0, MANY),
  ];
  const also = notes.length ? ` Beside that: ${notes.join(" ")}` : "";
  return rest.length ? `${head}: ${rest.join("; ")}.${also}` : `${head}, nothing loose.${also}`;
}
