import { z } from "zod";
import { VerdictSchema, type CheckKind, type Verdict } from "../kind";
import { plainText } from "@/core/units/text";

interface SketchState {
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
}

export interface SketchesEvidence {
  readonly check: "sketches";
  readonly verdict: Verdict;
  readonly used: number;
  readonly defined: number;
  /** Freedoms left over all used sketches. */
  readonly off: number;
  readonly sketches: readonly SketchState[];
  /** Those that no step uses. */
  readonly others?: readonly SketchState[] | undefined;
  /** What was left lying about: unused sketches, open ends, pieces that do not touch. Told, and no fault. */
  readonly strays?: readonly string[] | undefined;
}

/** Loose curves named at most. */
const MANY = 6;

const SketchStateSchema = z.strictObject({
  id: plainText(),
  title: plainText(),
  freedoms: z.number(),
  free: z.number().optional(),
  loose: z.array(plainText()),
  trouble: plainText().optional(),
  surplus: z.number().optional(),
});

/** Freedoms that count: those that only move what is left free do not. */
const held = (s: SketchState): number => s.freedoms - (s.free ?? 0);

/** What is to be said of some sketches together. */
export function judgedSketches(sketches: readonly SketchState[]) {
  const defined = sketches.filter((s) => held(s) === 0 && s.trouble === undefined).length;
  const isTroubled = !sketches.length || sketches.some((s) => s.trouble !== undefined);
  const verdict: Verdict = sketches.length > 0 && defined === sketches.length ? "met" : "missed";
  const off = isTroubled ? 1e6 : sketches.reduce((sum, s) => sum + held(s), 0);
  return { verdict, used: sketches.length, defined, off, sketches };
}

export const sketchesKind: CheckKind<SketchesEvidence> = {
  evidence: z.strictObject({
    check: z.literal("sketches"),
    verdict: VerdictSchema,
    used: z.number(),
    defined: z.number(),
    off: z.number(),
    sketches: z.array(SketchStateSchema),
    others: z.array(SketchStateSchema).optional(),
    strays: z.array(plainText()).optional(),
  }),
  toInstructor: (e) => told(e),
  toStudent: (e) => told(e),
  forLine: (e, { unused }) => (unused && e.others ? { ...e, ...judgedSketches([...e.sketches, ...e.others]) } : e),
  items: (e) => ({ right: e.defined, of: e.used }),
  limit: { unit: "freedoms left", isShare: false },
  start: { title: "Sketches fully defined", points: 5, limit: 6 },
};

function told(evidence: SketchesEvidence): string {
  if (evidence.verdict === "unknown") return "No part built on the Bench was handed in, so there are no sketches.";
  if (!evidence.used) return "No sketch is used by a step.";
  const loose = evidence.sketches
    .filter((s) => held(s) > 0)
    .map((s) => {
      const curves = `${s.loose.slice(0, MANY).join(", ")}${s.loose.length > MANY ? " …" : ""}`;
      return `${s.title} can still move in ${held(s)} way${held(s) > 1 ? "s" : ""} (${curves})`;
    });
  const trouble = evidence.sketches.filter((s) => s.trouble).map((s) => `${s.title} cannot be solved`);
  const rest = [...loose, ...trouble];
  const head = `${evidence.defined} of ${evidence.used} used sketch${evidence.used > 1 ? "es" : ""} fully defined`;
  const surplus = evidence.sketches.reduce((s, k) => s + (k.surplus ?? 0), 0);
  const free = evidence.sketches.reduce((s, k) => s + (k.free ?? 0), 0);
  const notes = [
    ...(free ? [`${free} freedom${free > 1 ? "s" : ""} only move${free > 1 ? "" : "s"} what is left free.`] : []),
    ...(surplus ? [`${surplus} dimension${surplus > 1 ? "s say" : " says"} what others settle already.`] : []),
    ...(evidence.strays ?? []).slice(0, MANY),
  ];
  const also = notes.length ? ` Beside that: ${notes.join(" ")}` : "";
  return rest.length ? `${head}: ${rest.join("; ")}.${also}` : `${head}, nothing loose.${also}`;
}
