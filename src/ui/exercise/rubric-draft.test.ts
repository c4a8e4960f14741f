import { describe, expect, it } from "vitest";
import { defaultRubric, newLine, startRule, type RubricLine } from "@/core/check/exercise/rubric";
import { draftOf, freshDraft, rubricOf, type LineDraft } from "./rubric-draft";

const all: RubricLine[] = [
  ...defaultRubric(),
  { ...newLine("sizes", 3), id: "sizes-2", only: ["a", "b"], scoring: { mode: "share" }, bonus: true },
  { ...newLine("sketches", 2), id: "sketches-2", unused: true, must: true },
  { ...newLine("ways", 2), rule: startRule("wall") },
  newLine("hand", 4),
];

describe("a rubric as it is typed", () => {
  it("read back is the rubric it was made of", () => {
    expect(rubricOf(all.map(draftOf))).toEqual({ ok: true, value: all });
  });
  it("takes commas for points in numbers", () => {
    const r = rubricOf([{ ...draftOf(newLine("mass", 4)), points: "2,5", limit: "7,5" }]);
    expect(r.ok && r.value[0]).toMatchObject({ points: 2.5, scoring: { mode: "falling", limit: 0.075 } });
  });
  it.each<[Partial<LineDraft>, RegExp]>([
    [{ title: " " }, /no title/],
    [{ points: "many" }, /points as a number/],
    [{ points: "-1" }, /points as a number/],
    [{ limit: "" }, /no points left/],
    [{ only: [] }, /at least one size/],
  ])("%j is refused in a sentence", (change, sentence) => {
    const r = rubricOf([{ ...draftOf(newLine("mass", 4)), ...change }]);
    expect(r.ok ? "" : r.refusal.sentence).toMatch(sentence);
  });
  it("gives each new line of a kind an id of its own", () => {
    const lines = [freshDraft("sizes", [])];
    for (let i = 0; i < 3; i++) lines.push(freshDraft("sizes", lines));
    expect(lines.map((l) => l.id)).toEqual(["sizes", "sizes-2", "sizes-3", "sizes-4"]);
  });
});
