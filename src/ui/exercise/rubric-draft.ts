import { z } from "zod";
import { newLine, RubricSchema, startRule, type RubricLine } from "@/core/check/exercise/rubric";
import { CHECK_NAMES, checkKind } from "@/core/check/kinds/kinds";
import { WayRuleSchema } from "@/core/check/kinds/ways/rule";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { plainText } from "@/core/units/text";

/** A line of a rubric as it is typed: numbers as text. */
export const LineDraftSchema = z.strictObject({
  id: plainText().min(1).max(40),
  check: z.enum(CHECK_NAMES),
  title: plainText().max(80),
  points: plainText().max(20),
  mode: z.enum(["all", "falling", "share"]),
  limit: plainText().max(20),
  bonus: z.boolean(),
  must: z.boolean(),
  only: z.array(plainText().max(80)).max(400).optional(),
  unused: z.boolean(),
  rule: WayRuleSchema.optional(),
});
export type LineDraft = z.infer<typeof LineDraftSchema>;

const shown = (n: number) => String(Number(n.toPrecision(8)));

export function draftOf(l: RubricLine): LineDraft {
  const isShare = checkKind(l.check).limit?.isShare;
  const limit = l.scoring.mode === "falling" ? l.scoring.limit : checkKind(l.check).start.limit;
  return {
    id: l.id,
    check: l.check,
    title: l.title,
    points: shown(l.points),
    mode: l.scoring.mode,
    limit: limit === undefined ? "" : shown(isShare ? limit * 100 : limit),
    bonus: l.bonus ?? false,
    must: l.must ?? false,
    ...(l.only && { only: l.only }),
    unused: l.unused ?? false,
    ...(l.rule && { rule: l.rule }),
  };
}

/** A new line of a kind; several of one kind are told apart by a number. */
export function freshDraft(check: RubricLine["check"], known: readonly LineDraft[]): LineDraft {
  const ids = new Set(known.map((l) => l.id));
  let id: string = check;
  for (let n = 2; ids.has(id); n++) id = `${check}-${n}`;
  const line = newLine(check, 2);
  return draftOf({ ...line, id, ...(check === "ways" && { rule: startRule("pattern") }) });
}

const numberIn = (text: string) => Number(text.trim().replace(",", ".") || Number.NaN);

/** The rubric of what was typed, or a sentence about what cannot be. */
export function rubricOf(drafts: readonly LineDraft[]): Outcome<RubricLine[]> {
  const lines: unknown[] = [];
  for (const d of drafts) {
    const title = d.title.trim(),
      points = numberIn(d.points);
    if (!title) return refuse("bad-rubric", "A line of the rubric has no title.");
    if (!(points >= 0)) return refuse("bad-rubric", `“${title}”: give its points as a number from 0 up.`);
    const limit = numberIn(d.limit);
    const { isShare } = checkKind(d.check).limit ?? {};
    if (d.mode === "falling" && !(limit > 0))
      return refuse("bad-rubric", `“${title}”: say at what there are no points left, above 0.`);
    const scoring = d.mode === "falling" ? { mode: d.mode, limit: isShare ? limit / 100 : limit } : { mode: d.mode };
    if (d.only?.length === 0) return refuse("bad-rubric", `“${title}”: choose at least one size, or all.`);
    lines.push({
      id: d.id,
      check: d.check,
      title,
      points,
      scoring,
      ...(d.only && { only: d.only }),
      ...(d.unused && { unused: true }),
      ...(d.bonus && { bonus: true }),
      ...(d.must && { must: true }),
      ...(d.check === "ways" && { rule: d.rule ?? startRule("pattern") }),
    });
  }
  const r = RubricSchema.safeParse(lines);
  return r.success
    ? done(r.data)
    : refuse(
        "bad-rubric",
        `The rubric cannot be kept: ${r.error.issues[0]?.path.join(".")} ${r.error.issues[0]?.message}.`,
      );
}
