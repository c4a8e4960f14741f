import { z } from "zod";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { Targets } from "@/core/check/exercise/prepare";
import { leftOf, type Left } from "@/core/sizes/free";
import { lengthText, readQuantity, type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { plainText } from "@/core/units/text";

/** A step or a thing that is left to the student, as it is typed: up to how far off, or empty. */
export const FreeDraftSchema = z.strictObject({
  kind: z.enum(["step", "thing"]),
  /** The step's id, or the names of the thing's faces. */
  of: z.array(plainText().max(300)).min(1).max(400),
  within: plainText().max(20),
});
export type FreeDraft = z.infer<typeof FreeDraftSchema>;

type Free = Exercise["free"];

/** As it would be typed. @param things of the reference; a face that belongs to none stands by itself */
export function freeDraftsOf(free: Free, things: Targets["things"], units: LengthUnit): FreeDraft[] {
  const within = (l: Left) => (typeof l === "string" ? "" : lengthText(l.within, units));
  const faces = new Map((free?.faces ?? []).map((l) => [leftOf(l), l]));
  const known = things.flatMap((t): FreeDraft[] => {
    const [first] = t.faces.flatMap((f) => faces.get(f) ?? []);
    return first === undefined ? [] : [{ kind: "thing", of: [...t.faces], within: within(first) }];
  });
  const named = new Set(known.flatMap((d) => d.of));
  const others = [...faces].flatMap(([name, l]): FreeDraft[] =>
    named.has(name) ? [] : [{ kind: "thing", of: [name], within: within(l) }],
  );
  const steps = (free?.steps ?? []).map((l): FreeDraft => ({ kind: "step", of: [leftOf(l)], within: within(l) }));
  return [...steps, ...known, ...others];
}

/** Reads what was typed, in the unit of the exercise; undefined where nothing is left free. */
export function freeOf(drafts: readonly FreeDraft[], units: LengthUnit): Outcome<Free> {
  const [steps, faces]: [Left[], Left[]] = [[], []];
  for (const { kind, of, within } of drafts) {
    const typed = within.trim() ? readQuantity(within, "length", units) : done(undefined);
    if (!typed.ok) return refuse("bad-number", `Left to the student: ${typed.refusal.sentence}`);
    const mm = typed.value;
    if (mm !== undefined && !(mm > 0))
      return refuse("bad-number", "Left to the student: how far off something may be is more than 0.");
    (kind === "step" ? steps : faces).push(...of.map((name) => (mm === undefined ? name : { of: name, within: mm })));
  }
  return done(drafts.length ? { steps, faces } : undefined);
}
