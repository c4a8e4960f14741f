import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { newExercise, readExercise, type Exercise } from "@/core/check/exercise/exercise";
import { newLine } from "@/core/check/exercise/rubric";
import { emptyPart } from "@/core/part/document";
import { changeExercise, partOfFile, type ExerciseChange } from "./change";
import { differences } from "./things";
import { anExercise, sample } from "./testing/exercises";

const made = (e: Exercise, ...changes: ExerciseChange[]): Exercise =>
  changes.reduce((now, c) => {
    const r = changeExercise(now, c);
    if (!r.ok) throw new Error(r.refusal.sentence);
    return r.value;
  }, e);
const refusal = (e: Exercise, c: ExerciseChange): string => {
  const r = changeExercise(e, c);
  return r.ok ? "taken" : r.refusal.sentence;
};
const stands = (e: Exercise) => ({ sizes: e.sizes ?? [], sheet: e.sheet });
const brass = { name: "Brass", density: 8.4 };

describe("changes of an exercise", () => {
  it("another unit changes what lengths are lettered in, and nothing else, there and back", () => {
    fc.assert(
      fc.property(anExercise, (e) => {
        const begun = { ...e, reference: { ...e.reference, steps: [imported] } } as Exercise;
        const other = made(begun, { do: "units", units: e.units === "mm" ? "in" : "mm" });
        expect(Object.keys(differences(begun, other))).toEqual(["units"]);
        expect(differences(begun, made(other, { do: "units", units: e.units }))).toEqual({});
      }),
      { numRuns: 60 },
    );
  });
  const imported = { id: "imported1", kind: "imported", file: "a.stp", step: "ISO-10303-21;" };

  it.each<[string, ExerciseChange, string[]]>([
    ["a title", { do: "say", to: { title: "Hub" } }, ["title"]],
    ["a unit of masses, and none", { do: "say", to: { massUnit: "kg" } }, ["massUnit"]],
    ["no hints any more", { do: "say", to: { hints: undefined } }, ["hints"]],
    ["a tolerance", { do: "tolerance", of: "mass", share: 0.02 }, ["tolerances/mass"]],
    ["a general tolerance", { do: "general", to: { by: "iso", class: "f" } }, ["tolerances/sizes"]],
    ["what is free", { do: "free", to: { steps: ["s1"], faces: [] } }, ["free"]],
    ["a line", { do: "line", line: { ...newLine("mass"), points: 9 } }, ["rubric/mass"]],
    ["a line more", { do: "line", line: { ...newLine("mass"), id: "mass-2" } }, ["rubric", "rubric/mass-2"]],
    ["a line less", { do: "drop-line", id: "mass" }, ["rubric", "rubric/mass"]],
    ["a line elsewhere", { do: "move-line", id: "mass", by: 1 }, ["rubric"]],
    ["a number of tries", { do: "terms", to: { attemptsMost: 3 } }, ["terms", "terms/attemptsMost"]],
    ["a figure less", { do: "drop-question", id: "q1" }, ["questions", "questions/q1"]],
    [
      "notes",
      { do: "sheet", change: { change: "settings", to: { notes: "n" } }, stands: stands(sample()) },
      ["sheet/notes"],
    ],
    [
      "a size's own tolerance",
      {
        do: "sheet",
        change: { change: "letter", id: "d1", to: { tolerance: { plus: 1, minus: 0 } } },
        stands: stands(sample()),
      },
      ["sizes/d1"],
    ],
    [
      "a size less",
      { do: "sheet", change: { change: "drop-size", id: "d2" }, stands: stands(sample()) },
      ["sizes", "sizes/d2"],
    ],
  ])("%s writes only that", (_, change, places) => {
    expect(Object.keys(differences(sample(), made(sample(), change))).sort()).toEqual([...places].sort());
  });

  it("settings of the Sheet leave the choice of sizes to the program, arranging them does not", () => {
    const plain = newExercise();
    const [size] = sample().sizes!;
    const shown = { sizes: [size!], sheet: plain.sheet };
    const titled = made(plain, { do: "sheet", change: { change: "settings", to: { owner: "S." } }, stands: shown });
    expect([titled.sizes, titled.sheet.owner]).toEqual([undefined, "S."]);
    const lettered = made(plain, {
      do: "sheet",
      change: { change: "letter", id: "d1", to: { free: true } },
      stands: shown,
    });
    expect(lettered.sizes).toMatchObject([{ id: "d1", free: true }]);
  });

  it.each<[string, ExerciseChange, RegExp]>([
    ["an empty title", { do: "say", to: { title: " " } }, /needs a title/],
    ["no density", { do: "say", to: { material: { name: "Air", density: 0 } } }, /density is more than 0/],
    ["a tolerance of nothing", { do: "tolerance", of: "volume", share: 0 }, /more than 0/],
    ["a tolerance of more than all", { do: "tolerance", of: "volume", share: 2 }, /at most 100/],
    ["a plain tolerance of 0", { do: "general", to: { by: "plain", length: 0, angle: 1 } }, /more than 0/],
    ["a line without a title", { do: "line", line: { ...newLine("mass"), title: "" } }, /needs a title/],
    ["points below 0", { do: "line", line: { ...newLine("mass"), points: -1 } }, /from 0 up/],
    [
      "a figure without words",
      { do: "question", question: { ...sample().questions![0]!, title: "" } },
      /Say what is asked/,
    ],
    ["an own number that is none", { do: "vary", varying: { number: "x", values: { of: [1, 2] } } }, /./],
    ["a title of a book", { do: "say", to: { title: "x".repeat(500) } }, /./],
  ])("%s is refused in a sentence", (_, change, sentence) => {
    expect(refusal(sample(), change)).toMatch(sentence);
    expect(refusal(sample(), change)).not.toBe("taken");
  });

  it("the first part hands its material and unit on, a body from a file does not, a second part neither", () => {
    const part = { ...emptyPart("Foot", "in", brass), steps: [imported] as never };
    const built = { ...emptyPart("Foot", "in", brass) };
    expect(made(newExercise(), { do: "reference", part: built })).toMatchObject({ units: "in", material: brass });
    const filed = made(newExercise(), { do: "reference", part });
    expect(filed).toMatchObject({ units: "mm", reference: { units: "mm", name: "New exercise" } });
    expect(filed.material).not.toEqual(brass);
    expect(made(filed, { do: "reference", part: built })).toMatchObject({ units: "mm" });
  });
  it("a part nobody has begun is begun in the unit and material of its exercise", () => {
    const e = made(newExercise(), { do: "units", units: "in" }, { do: "say", to: { material: brass } });
    expect(e.reference).toMatchObject({ units: "in", material: brass });
  });
  it("reads files, and says what is none", () => {
    expect(partOfFile("part.json", JSON.stringify(emptyPart("Foot", "mm", brass)))).toMatchObject({ ok: true });
    expect(partOfFile("a.stp", "ISO-10303-21;\nDATA;")).toMatchObject({
      ok: true,
      value: { steps: [{ file: "a.stp" }] },
    });
    expect(partOfFile("a.txt", "hello").ok).toBe(false);
    expect(partOfFile("a.stp", `ISO-10303-21;${"x".repeat(1_600_000)}`)).toMatchObject({
      refusal: { code: "too-large" },
    });
    expect(partOfFile("a.json", "x".repeat(2_500_000))).toMatchObject({ refusal: { code: "too-large" } });
  });
  it("what the laws are tried on are exercises", () => {
    fc.assert(
      fc.property(anExercise, (e) => readExercise(e).ok),
      { numRuns: 20 },
    );
  });
});
