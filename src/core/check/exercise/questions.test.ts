import { beforeAll, describe, expect, it } from "vitest";
import { gradeReport } from "@/core/grade/grade";
import type { Kernel } from "@/core/kernel/opencascade";
import { extrude, face, hole, part, rect, sketch } from "@/core/part/testing/build";
import { drivingNumbers, withSketchesDefined } from "@/core/sizes/numbers";
import { done } from "@/core/units/refusal";
import { openNodeKernel } from "@/worker/kernel";
import { checkMeasured } from "../check";
import { newExercise, type Exercise } from "./exercise";
import { newLine } from "./rubric";
import { readFigure } from "../kinds/answers/read";
import { NO_PART } from "../given/measured";
import { prepareExercise } from "./prepare";
import type { Answers, Question } from "./question";
import { wantedFigures } from "./questions";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

/** A block 40 × 30 × 20 with a hole ⌀10 through it; drawn loosely, as references may be. */
const block = part(
  sketch("s", "top", rect(0, 0, 40, 30)),
  extrude("b", "s", 20),
  hole("h", face("b/end"), 10, [[15, 15]]),
);
const heightId = drivingNumbers(withSketchesDefined(block)).find((n) => n.step === "b")!.id;
const mass: Question = { id: "q1", title: "Mass of the part", asks: { what: "mass" }, tolerance: 0.005 };
const higher: Question = {
  id: "q2",
  title: "Volume when it is 25 high",
  asks: { what: "volume" },
  after: [{ number: heightId, value: 25 }],
  tolerance: 0.001,
};
const bore: Question = {
  id: "q3",
  title: "Diameter of the hole",
  asks: { what: "size", size: { id: "s1", kind: "diameter", of: ["h/1/wall"] } as never },
  tolerance: 0.001,
};
const quiz = (...questions: Question[]): Exercise => ({
  ...newExercise(),
  reference: block,
  sizes: [],
  questions,
  rubric: [newLine("answers", 4)],
});
const floor = 40 * 30 - Math.PI * 25;

describe("what is right is worked out on the reference", () => {
  it("as drawn and after a change, by the closed formulas", () => {
    const r = wantedFigures(kernel, quiz(mass, higher));
    if (!r.ok) throw new Error(r.refusal.sentence);
    expect(r.value.q1!.value).toBeCloseTo((floor * 20 * 7.85) / 1000, 6);
    expect(r.value.q2!.value).toBeCloseTo(floor * 25, 5);
    expect(r.value.q2!.quantity).toBe("volume");
  });
  it("is frozen with the sizes when the exercise is prepared", () => {
    const r = prepareExercise(kernel, quiz(mass, higher));
    if (!r.ok) throw new Error(r.refusal.sentence);
    expect(Object.keys(r.value.wanted)).toEqual(["q1", "q2"]);
  });
  it.each([
    ["a number that is gone", { ...higher, after: [{ number: "gone:1", value: 5 }] }, /no longer has the number/],
    ["numbers that cannot be built", { ...higher, after: [{ number: heightId, value: 0 }] }, /cannot be built/],
    [
      "a size that is not there",
      { ...bore, asks: { what: "size", size: { id: "s", kind: "diameter", of: ["none"] } as never } },
      /not there/,
    ],
  ] as const)("%s is told with the question", (_, q, sentence) => {
    const r = wantedFigures(kernel, quiz(q as Question));
    expect(r.ok ? "" : r.refusal.sentence).toMatch(sentence);
    expect(r.ok ? "" : r.refusal.sentence).toContain(q.title);
  });
});

describe("typed figures", () => {
  const graded = (exercise: Exercise, answers: Answers) => {
    const r = checkMeasured(kernel, exercise, () => done(NO_PART), { answers });
    if (!r.ok) throw new Error(r.refusal.sentence);
    return gradeReport(exercise, r.value.report);
  };
  const grams = (floor * 20 * 7.85) / 1000;
  it("are right within their tolerance, in any unit of their kind", () => {
    const typed = [`${grams.toFixed(1)}`, `${(grams / 1000).toFixed(4)} kg`, `${(grams * 1.004).toFixed(2)} g`];
    for (const q1 of typed) expect(graded(quiz(mass), { q1 }).points).toBe(4);
    expect(graded(quiz(mass), { q1: `${(grams * 1.006).toFixed(2)}` }).points).toBe(0);
  });
  it("earn by how many are right where the line falls, and name each that is not, never what is right", () => {
    const exercise = quiz(mass, higher);
    const grade = graded(exercise, { q1: "170", q2: `${floor * 25} mm³` });
    expect(grade.points).toBeGreaterThan(0);
    const [line] = grade.lines;
    expect(line!.studentSentence).toBe("1 of 2 figures are right. “Mass of the part”: 170 g is outside the tolerance.");
    expect(line!.sentence).toMatch(/wanted 176\.07 g/);
  });
  it("that are missing, or no numbers, are told as such", () => {
    const [line] = graded(quiz(mass, higher), { q2: "two boxes" }).lines;
    expect(line!.studentSentence).toMatch(/“Mass of the part”: not answered/);
    expect(line!.studentSentence).toMatch(/“two boxes” could not be read/);
  });
  it.each([
    ["1 234,5 mm^3", "volume", 1234.5],
    ["1,234.5", "volume", 1234.5],
    ["1.2e4 mm³", "volume", 12_000],
    ["12 cm³", "volume", 12_000],
    ["1 in³", "volume", 16387.064],
    ["3.2 cm2", "area", 320],
    ["0.5 lb", "mass", 226.796185],
    ["3/8 in", "length", 9.525],
    ["30", "angle", Math.PI / 6],
  ] as const)("%s as %s", (text, quantity, value) => {
    const r = readFigure(text, quantity, { units: "mm" });
    expect(r.ok ? r.value : r.refusal.sentence).toBeCloseTo(value, 6);
  });
  it.each([
    ["12 mm", "volume"],
    ["12 mm3", "mass"],
    ["abc", "area"],
    ["", "mass"],
    ["1..2", "mass"],
  ] as const)("%s is no %s", (text, quantity) => expect(readFigure(text, quantity, { units: "mm" }).ok).toBe(false));
});
