import { describe, expect, it } from "vitest";
import type { Report } from "@/core/check/check";
import type { Evidence } from "@/core/check/kinds/kinds";
import type { RubricLine } from "@/core/check/exercise/rubric";
import type { ShapeEvidence } from "@/core/check/kinds/shape/kind";
import { IDENTITY } from "@/core/geometry/rigid";
import { footExercise } from "@/demo/exercises";
import { gradeReport, shareOf } from "./grade";
import { instructorSentence, studentSentence } from "./sentences";

const exercise = footExercise();
const falling = (limit: number): RubricLine => ({
  id: "x",
  check: "mass",
  title: "Mass",
  points: 4,
  scoring: { mode: "falling", limit },
});
const all: RubricLine = { ...falling(1), scoring: { mode: "all" } };
const mass = (off: number, tolerance = 0.01): Evidence => ({
  check: "mass",
  verdict: off <= tolerance ? "met" : "missed",
  wanted: 100,
  measured: 100 * (1 + off),
  tolerance,
  off,
});
const shape = (change: Partial<ShapeEvidence>): ShapeEvidence => ({
  check: "shape",
  verdict: "missed",
  finding: "differs",
  motion: IDENTITY,
  facesMatched: 8,
  facesOfReference: 11,
  scale: 1,
  missing: [],
  extra: [],
  off: 0.02,
  tolerance: 0.001,
  imbalance: 0,
  ...change,
});
const lump = (volume: number) => ({
  volume,
  centre: [1, 2, 3] as const,
  box: { min: [0, 0, 0] as const, max: [2, 4, 6] as const },
});

describe("the share of a line's points", () => {
  it.each([
    [0, 1],
    [0.01, 1],
    [0.03, 0.5],
    [0.05, 0],
    [0.2, 0],
  ])("at %d off, falling from 1 %% to 5 %%, is %d", (off, share) => {
    expect(shareOf(falling(0.05), mass(off), 0.01)).toBeCloseTo(share, 12);
  });
  it("is all or nothing where the rubric says so", () => {
    expect(shareOf(all, mass(0.01), 0.01)).toBe(1);
    expect(shareOf(all, mass(0.0101), 0.01)).toBe(0);
  });
  it("is nothing for what could not be told, and for a limit inside the tolerance", () => {
    expect(shareOf(falling(0.5), { ...mass(0.02), verdict: "unknown" }, 0.01)).toBe(0);
    expect(shareOf(falling(0.005), mass(0.02), 0.01)).toBe(0);
  });
  it("is nothing for a mirrored or wrongly scaled shape, however little is off", () => {
    for (const finding of ["mirrored", "scaled"] as const)
      expect(shareOf(falling(1), shape({ finding }), 0.001)).toBe(0);
  });
});

describe("points", () => {
  const report = (off: number): Report => ({ version: 1, kernel: "k", evidence: [mass(off)] });
  const graded = (off: number, points: number) =>
    gradeReport({ ...exercise, rubric: [{ ...falling(0.05), points }] }, report(off)).lines[0]!;

  it("come in halves", () => {
    for (let off = 0; off < 0.06; off += 0.0013) expect((graded(off, 4).points * 2) % 1).toBe(0);
  });
  it("are never all for less than met, nor less for more wrong", () => {
    expect(graded(0.0101, 4).points).toBe(3.5);
    // a chamfer is missing: little volume, and not as drawn
    const chamfer = shape({ finding: "differs", off: 0.0007 });
    const line: RubricLine = { ...falling(0.1), check: "shape" };
    const r = { ...report(0), evidence: [chamfer] };
    expect(gradeReport({ ...exercise, rubric: [line] }, r).lines[0]!.points).toBe(3.5);
    let last = 4;
    for (let off = 0; off < 0.06; off += 0.001) {
      const { points } = graded(off, 4);
      expect(points).toBeLessThanOrEqual(last);
      last = points;
    }
    expect(last).toBe(0);
  });
  it("are summed over the rubric", () => {
    const g = gradeReport({ ...exercise, rubric: [falling(0.05), { ...all, id: "y", points: 2.5 }] }, report(0));
    expect([g.points, g.of]).toEqual([6.5, 6.5]);
  });
});

describe("sentences", () => {
  it("for the instructor say what was measured against what", () => {
    expect(instructorSentence(mass(-0.02), exercise)).toMatch(/^98 g, wanted 100 g ± 1 %/);
    expect(instructorSentence(mass(0), exercise)).toBe("100 g, wanted 100 g ± 1 %.");
  });
  it("name places and sizes of what differs", () => {
    const text = instructorSentence(shape({ missing: [lump(40), lump(2)] }), exercise);
    expect(text).toBe("Missing 42 mm³ in 2 places at (1, 2, 3) mm, nothing extra. 8 of 11 faces coincide.");
  });
  it("say why a difference is not believed", () => {
    expect(instructorSentence(shape({ verdict: "unknown", doubt: "It does not balance." }), exercise)).toMatch(
      /could not be told: It does not balance/,
    );
  });
  it.each<[Partial<ShapeEvidence>, RegExp]>([
    [{ finding: "same", verdict: "met", facesMatched: 11 }, /Every face is where the drawing puts it \(11 of 11\)/],
    [{ missing: [lump(1)] }, /differs from the drawing: material is missing\.$/],
    [{ extra: [lump(1)] }, /too much material\.$/],
    [{ missing: [lump(1)], extra: [lump(1)] }, /missing and there is too much elsewhere/],
    [{ finding: "mirrored" }, /mirror image/],
    [{ finding: "scaled", scale: 25.4 }, /25\.4 times too large: inches and millimetres were confused/],
    [{ finding: "scaled", scale: 0.5 }, /2 times too small\.$/],
    [{ finding: "unplaced" }, /Nothing of the part lies like/],
    [{ finding: "absent" }, /no solid/],
    [{ verdict: "unknown" }, /your instructor will look/],
  ])("for the student on %j", (change, want) => {
    const text = studentSentence(shape(change), exercise);
    expect(text).toMatch(want);
    // volumes and places of the reference stay with the instructor
    expect(text).not.toMatch(/mm³/);
  });
  it("tell the target mass only where the Sheet prints it", () => {
    const quiet = { ...exercise, sheet: { ...exercise.sheet, printMass: false } };
    expect(studentSentence(mass(0.02), exercise)).toBe("102 g, the Sheet gives 100 g ± 1 %: outside the tolerance.");
    expect(studentSentence(mass(0.02), quiet)).toBe("102 g: outside the tolerance.");
  });
  it("name what is loose in which sketch", () => {
    const e: Evidence = {
      check: "sketches",
      verdict: "missed",
      used: 2,
      defined: 1,
      off: 3,
      sketches: [
        { id: "sketch1", title: "step 1 (Sketch on top)", freedoms: 3, loose: ["l1", "c2"] },
        { id: "sketch2", title: "step 3 (Sketch on front)", freedoms: 0, loose: [] },
      ],
    };
    expect(studentSentence(e, exercise)).toBe(
      "1 of 2 used sketches fully defined: step 1 (Sketch on top) can still move in 3 ways (l1, c2).",
    );
  });
  it("tell bodies apart and steps in trouble", () => {
    const solid: Evidence = {
      check: "solid",
      verdict: "missed",
      bodies: 2,
      closed: true,
      valid: true,
      off: 1,
      troubled: [],
    };
    expect(studentSentence(solid, exercise)).toBe("2 separate bodies instead of one.");
    expect(
      studentSentence(
        { ...solid, bodies: 0, troubled: [{ step: "extrude1", sentence: "The sketch is open." }] },
        exercise,
      ),
    ).toBe("There is no solid; extrude1: The sketch is open.");
  });
});
