import { beforeAll, describe, expect, it } from "vitest";
import { gradeReport } from "@/core/grade/grade";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import type { Curve } from "@/core/sketch/sketch";
import { footExercise } from "@/demo/exercises";
import { Draft } from "@/demo/draft";
import { STEEL, tripodFoot, tripodFootElsewhere } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { circ, cut, extrude, part, rect, sketch } from "@/core/part/testing/build";
import { instructorSentence, studentSentence } from "@/core/grade/sentences";
import { checkSubmission } from "./check";
import { measurePart } from "./given/measured";
import { References } from "./references";
import { newExercise } from "./exercise/exercise";
import { checkKind } from "./kinds/kinds";
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
const propertiesOfFoot = () => {
  const { solid, properties } = measurePart(kernel, tripodFoot());
  kernel.release(solid?.shape);
  return properties!.volume;
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
  it("nearly the same is weighed by its faces, not by cutting: a hole 0.02 mm too large", () => {
    const { shape } = check(tripodFoot({ baseHole: 18.02 }));
    const want = (Math.PI * (9.01 ** 2 - 81) * 14) / propertiesOfFoot();
    expect(Math.abs(shape.off - want) / want).toBeLessThan(1e-2);
    expect(shape).toMatchObject({ finding: "differs", verdict: "met", features: [] });
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

describe("what a mirror leaves alike face by face", () => {
  /** A plate between two S-shaped walls, alike from both ends: its mirror image has its faces in the same places. */
  const wavy = (sway: number): PartDocument => {
    const wave = (y: number): [number, number][] =>
      [0, 15, 30, 45, 60].map((x, i) => [x, y + [0, sway, 0, -sway, 0][i]!]);
    const line = (id: string, start: [number, number], end: [number, number]): Curve => ({
      id,
      kind: "line",
      start,
      end,
    });
    return part(
      sketch("s", "top", [
        { id: "near", kind: "spline", through: wave(0) },
        line("right", [60, 0], [60, 40]),
        { id: "far", kind: "spline", through: wave(40).reverse() },
        line("left", [0, 40], [0, 0]),
      ]),
      extrude("b", "s", 10),
      // a pad on top: without it the image would be the part turned over
      sketch("t", "top", circ(30, 20, 5)),
      extrude("p", "t", 14),
    );
  };
  const shapeOf = (reference: PartDocument, submission: PartDocument) => {
    const r = checkSubmission(kernel, { ...newExercise(), reference }, submission);
    if (!r.ok) throw new Error(r.refusal.sentence);
    return r.value.report.evidence.find((e) => e.check === "shape") as ShapeEvidence;
  };
  it("is told by how its mass lies", () => {
    expect(shapeOf(wavy(6), wavy(6))).toMatchObject({ verdict: "met", finding: "same" });
    expect(shapeOf(wavy(6), wavy(-6))).toMatchObject({ verdict: "missed", finding: "mirrored" });
  });
});

describe("what round faces pierced by others could mislead", () => {
  const pierced = (k: number) =>
    part(
      sketch("s", "top", circ(0, 0, 20 * k)),
      extrude("b", "s", 100 * k),
      sketch("t", "front", circ(0, 40 * k, 6 * k)),
      cut("c", "t", "through"),
    );
  const against = (reference: PartDocument, submission: PartDocument) => {
    const r = checkSubmission(kernel, { ...newExercise(), reference }, submission);
    if (!r.ok) throw new Error(r.refusal.sentence);
    return r.value.report.evidence;
  };
  it("a pierced cylinder 25.4 times too large is recognised", () => {
    const shape = against(pierced(1), pierced(25.4)).find((e) => e.check === "shape") as ShapeEvidence;
    expect(shape.finding).toBe("scaled");
  });
  it("its face has the area of the integral", () => {
    const { faces } = measurePart(kernel, pierced(1));
    // both mouths: the hole's circle rolled out on the cylinder, 4 r ∫ R asin(r sin t / R) … by a fine sum
    const [R, r, n] = [20, 6, 200_000];
    let mouths = 0;
    for (let i = 0; i < n; i++) {
      const z = -r + (2 * r * (i + 0.5)) / n;
      mouths += 2 * 2 * R * Math.asin(Math.sqrt(r * r - z * z) / R) * ((2 * r) / n);
    }
    const side = faces.find((f) => f.key === "b/side/c1")!;
    expect(Math.abs(side.area / (2 * Math.PI * R * 100 - mouths) - 1)).toBeLessThan(1e-8);
  });
  it("two bodies one in another are told so", () => {
    const inside = part(
      sketch("s", "top", rect(0, 0, 40, 40)),
      extrude("b", "s", 40),
      sketch("t", { base: "top", offset: 10 }, rect(10, 10, 20, 20)),
      extrude("c", "t", 5, { operation: "separate" }),
    );
    const solid = against(pierced(1), inside).find((e) => e.check === "solid")!;
    expect(studentSentence(solid, newExercise())).toBe(
      "2 separate bodies instead of one, one in the material of another.",
    );
    const apart = part(
      sketch("s", "top", rect(0, 0, 40, 40)),
      extrude("b", "s", 40),
      sketch("t", "top", rect(50, 10, 60, 20)),
      extrude("c", "t", 5, { operation: "separate" }),
    );
    const other = against(pierced(1), apart).find((e) => e.check === "solid")!;
    expect(studentSentence(other, newExercise())).toBe("2 separate bodies instead of one.");
  });
  it("a right part is not failed by another material of the reference", () => {
    const steel = pierced(1);
    const reference = { ...steel, material: { name: "Brass", density: 8.5 } };
    const mass = against(reference, steel).find((e) => e.check === "mass")!;
    expect(mass.verdict).toBe("met");
    expect(instructorSentence(mass, { ...newExercise(), massUnit: "kg" })).toMatch(/^0\.9\d+ kg, wanted 0\.9\d+ kg/);
  });
  it("every piece of evidence is what its kind says", () => {
    for (const e of against(pierced(1), pierced(2)))
      expect(checkKind(e.check).evidence.safeParse(e).success).toBe(true);
  });
});

describe("the grade", () => {
  const points = (d: PartDocument) => Object.fromEntries(check(d).grade.lines.map((l) => [l.id, l.points]));
  it("gives all points to both right ways", () => {
    const full = { sketches: 5, solid: 2, volume: 3, mass: 4, shape: 6, sizes: 5 };
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

describe("references kept between checks", () => {
  it("are built once, and what is checked by them is the same to the last digit", () => {
    const references = new References(kernel);
    const told: string[] = [];
    const check = (r?: References) => {
      const result = checkSubmission(kernel, footExercise(), tripodFoot({ baseHole: 20 }), {
        progress: (w) => told.push(w),
        ...(r && { references: r }),
      });
      if (!result.ok) throw new Error(result.refusal.sentence);
      return JSON.stringify(result.value.report);
    };
    const alone = check();
    told.length = 0;
    const first = check(references);
    expect(told.some((w) => w.startsWith("the reference: building step 1 of"))).toBe(true);
    told.length = 0;
    const later = [check(references), check(references), check(references)];
    expect(told.filter((w) => w.startsWith("the reference"))).toEqual([]);
    expect(told[0]).toMatch(/^building step 1 of \d+ \(/);
    expect([first, ...later]).toEqual([alone, alone, alone, alone]);
  });
  it("only so many are kept, and one that cannot be built is none", () => {
    const references = new References(kernel, 1);
    const none = { ...footExercise().reference, steps: [] };
    expect(references.take(none, "mm", () => {})).toBeUndefined();
    const told: string[] = [];
    for (const size of [20, 21, 20])
      kernel.release(references.take(tripodFoot({ baseHole: size }), "mm", (w) => told.push(w))!.measured.solid.shape);
    expect(told.filter((w) => w === "measuring")).toHaveLength(3);
  });
});
