import { beforeAll, describe, expect, it } from "vitest";
import { gradeReport } from "@/core/grade/grade";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { footExercise } from "@/demo/exercises";
import { Draft } from "@/demo/draft";
import { STEEL, tripodFoot, tripodFootElsewhere } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { checkSubmission } from "./check";
import type { ShapeEvidence } from "./kinds/shape/kind";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});
const check = (submission: PartDocument) => {
  const r = checkSubmission(kernel, footExercise(), submission);
  if (!r.ok) throw new Error(r.refusal.sentence);
  const { report } = r.value;
  return {
    report,
    shape: report.evidence.find((e) => e.check === "shape") as ShapeEvidence,
    grade: gradeReport(footExercise(), report),
  };
};
const sum = (l: readonly { volume: number }[]) => l.reduce((s, x) => s + x.volume, 0);

describe("the shape check", () => {
  it("finds the right part the same", () =>
    expect(check(tripodFoot()).shape).toMatchObject({ verdict: "met", finding: "same", off: 0 }));
  it("finds it elsewhere, turned, and built another way", () =>
    expect(check(tripodFootElsewhere()).shape).toMatchObject({ verdict: "met", finding: "same" }));
  it("weighs a hole too large and says where", () => {
    const { shape } = check(tripodFoot({ baseHole: 20 }));
    const want = Math.PI * (100 - 81) * 14;
    expect(shape.finding).toBe("differs");
    expect(shape.extra).toEqual([]);
    expect(Math.abs(sum(shape.missing) - want) / want).toBeLessThan(1e-6);
    expect(shape.missing[0]!.centre[0]).toBeCloseTo(62, 4);
    expect(shape.missing[0]!.centre[1]).toBeCloseTo(-18, 4);
  });
  it("tells the mirror image", () => expect(check(tripodFoot({ mirrored: true })).shape.finding).toBe("mirrored"));
  it("tells a part 25.4 times too large", () => {
    const { shape } = check(tripodFoot({ units: "in" }));
    expect(shape.finding).toBe("scaled");
    expect(shape.scale).toBeCloseTo(25.4, 6);
  });
  it("a hole left out is missing nothing and extra material", () => {
    const d = tripodFoot();
    const { shape } = check({ ...d, steps: d.steps.slice(0, 4) });
    expect(shape.missing).toEqual([]);
    expect(shape.extra).toHaveLength(2);
    expect(sum(shape.extra)).toBeCloseTo(2 * Math.PI * 4.5 ** 2 * 14, 4);
  });
  it("nearly the same is either weighed rightly or not believed: a hole 0.02 mm too large", () => {
    const { shape } = check(tripodFoot({ baseHole: 18.02 }));
    const want = Math.PI * (9.01 ** 2 - 81) * 14;
    if (shape.verdict !== "unknown") expect(Math.abs(sum(shape.missing) - want) / want).toBeLessThan(1e-3);
    expect(shape.finding).toBe("differs");
  });
  it("an empty document has no solid and earns nothing for it", () => {
    const { shape, grade } = check(new Draft("empty", "mm", STEEL).document);
    expect(shape.finding).toBe("absent");
    expect(grade.points).toBe(0);
  });
  it("a plain block of other sizes is not mistaken for the part", () => {
    const d = new Draft("block", "mm", STEEL).sketch("top");
    d.rectangle([0, 0], [30, 30]);
    const { shape } = check(d.extrude("add", { kind: "depth", depth: 30 }).document);
    expect(shape.verdict).toBe("missed");
    expect(shape.off).toBeGreaterThan(0.3);
  });
});

describe("the grade", () => {
  const points = (d: PartDocument) => Object.fromEntries(check(d).grade.lines.map((l) => [l.id, l.points]));
  it("gives all points to both right ways", () => {
    const full = { sketches: 5, solid: 2, volume: 3, mass: 4, shape: 6 };
    expect(points(tripodFoot())).toEqual(full);
    expect(points(tripodFootElsewhere())).toEqual(full);
  });
  it("takes points for a loose sketch only there", () => {
    const p = points(tripodFoot({ leaveLoose: true }));
    expect(p["sketches"]).toBeLessThan(5);
    expect(p["sketches"]).toBeGreaterThan(0);
  });
  it("a student never reads the target unless the Sheet prints it", () => {
    const { grade } = check(tripodFoot({ baseHole: 20 }));
    const volume = grade.lines.find((l) => l.id === "volume")!;
    expect(volume.sentence).toContain("wanted");
    expect(volume.studentSentence).not.toContain("wanted");
    expect(volume.studentSentence).not.toMatch(/gives/);
    expect(grade.lines.find((l) => l.id === "mass")!.studentSentence).toMatch(/the Sheet gives/);
  });
});
