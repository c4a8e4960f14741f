import { beforeAll, describe, expect, it } from "vitest";
import { move } from "@/core/geometry/rigid";
import { distance3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { chamfer, circ, cut, edge, extrude, face, hole, part, rect, shell, sketch } from "@/core/part/testing/build";
import { box, top } from "@/core/part/testing/solids/known";
import type { Size } from "@/core/sizes/size";
import { withSketchesDefined } from "@/core/sizes/numbers";
import { openNodeKernel } from "@/worker/kernel";
import { checkSubmission } from "./check";
import { newExercise } from "./exercise/exercise";
import type { Evidence } from "./kinds/kinds";
import type { ShapeEvidence } from "./kinds/shape/kind";
import { References } from "./references";
import { sizeSentence, type SizesEvidence } from "./kinds/sizes/kind";

let kernel: Kernel;
let references: References;
beforeAll(async () => {
  kernel = await openNodeKernel();
  references = new References(kernel, 20);
});

function evidenceOf(reference: PartDocument, submission: PartDocument, own?: Size[]): readonly Evidence[] {
  const exercise = { ...newExercise(), reference: withSketchesDefined(reference), sizes: own };
  const checked = checkSubmission(kernel, exercise, withSketchesDefined(submission), { references });
  if (!checked.ok) throw new Error(checked.refusal.sentence);
  return checked.value.report.evidence;
}
const shapeOf = (reference: PartDocument, submission: PartDocument) =>
  evidenceOf(reference, submission).find((e): e is ShapeEvidence => e.check === "shape")!;

/** Sentences of the sizes that are not met, and how many are. */
function sizes(reference: PartDocument, submission: PartDocument): { met: number; told: string[] } {
  const evidence = evidenceOf(reference, submission).find((e): e is SizesEvidence => e.check === "sizes")!;
  const wrong = evidence.sizes.filter((s) => s.state === "missed" || s.state === "lost");
  return { met: evidence.sizes.length - wrong.length, told: wrong.map((s) => sizeSentence(s, "mm")) };
}

/** A plate with two posts, so high. */
const posts = (left: number, right: number) =>
  part(
    ...box(80, 40, 8),
    sketch("p", { base: "top", offset: 8 }, circ(20, 20, 9, "c1")),
    extrude("l", "p", left),
    sketch("q", { base: "top", offset: 8 }, circ(60, 20, 7, "c1")),
    extrude("r", "q", right),
  );
const row = (many: number): Vec2[] => Array.from({ length: many }, (_, i) => [12 + 14 * i, 15]);
const drilled = (at: readonly Vec2[], diameter = 6.6, more: Parameters<typeof hole>[4] = {}, thick = 10) =>
  part(...box(100, 30, thick), hole("h", top, diameter, at, more));
/** A square tube, with a bore through so much of it. */
const tube = (deep: number) =>
  part(
    ...box(50, 30, 30),
    shell("h", 4, ["b/side/l2", "b/side/l4"]),
    sketch("t", { base: "top", offset: 30 }, circ(25, 15, 5)),
    cut("c", "t", deep, { reverse: true }),
  );

it("posts whose heights were exchanged have neither height", () => {
  const { told } = sizes(posts(20, 12), posts(12, 20));
  expect(told).toEqual([
    expect.stringMatching(/is 12 mm, printed 20 mm$/),
    expect.stringMatching(/is 8 mm the other way, printed 8 mm$/),
  ]);
});

it.each([
  [5, 6, "6 holes ⌀6.6, printed 5"],
  [5, 4, "4 holes ⌀6.6, printed 5"],
  [2, 5, "5 holes ⌀6.6, printed 2"],
])("of %d holes drawn %d are told as such", (drawn, built, sentence) => {
  const { told } = sizes(drilled(row(drawn)), drilled(row(built)));
  expect(told).toContain(sentence);
});

it("holes of another diameter, or across, are no more of them", () => {
  const more = (d: number): PartDocument => ({
    ...drilled(row(5)),
    steps: [...drilled(row(5)).steps, hole("o", top, d, [[90, 6]])],
  });
  expect(sizes(drilled(row(5)), more(8)).told).toEqual([]);
  expect(sizes(drilled(row(5)), more(6.6)).told).toEqual(["6 holes ⌀6.6, printed 5"]);
});

it("a bore that should go through and does not", () => {
  const deep = { extent: { kind: "depth", depth: 6 } } as const;
  expect(sizes(drilled(row(1), 10), drilled(row(1), 10, deep)).told).toEqual(["the hole ⌀10 does not go through"]);
  const both = sizes(drilled(row(2), 10), drilled(row(2), 10, deep)).told;
  expect(both).toEqual(["the 2 holes ⌀10 do not go through"]);
});

it("of two chamfers one that is missing is told as such", () => {
  const bevelled = (...sides: string[]) =>
    part(...box(60, 40, 20), chamfer("k", 2, ...sides.map((side) => edge(`b/side/${side}`, "b/end"))));
  expect(sizes(bevelled("l2", "l4"), bevelled("l2")).told).toEqual([
    "the size of the 2 chamfers, printed 2× 2 × 45°, was not found in 1 of 2 places",
  ]);
});

it("a plate that is too thick, and a chamfered mouth, are no fault of the bore", () => {
  expect(sizes(drilled(row(2), 10), drilled(row(2), 10, {}, 12)).told.join()).not.toContain("go");
  const bevelled: PartDocument = {
    ...drilled(row(1), 10),
    steps: [...drilled(row(1), 10).steps, chamfer("k", 1, edge("h/p1/bore", "b/end"))],
  };
  expect(sizes(drilled(row(1), 10), bevelled).told.join()).not.toContain("go");
});

it("a bore through one wall of a tube, and through both", () => {
  expect(sizes(tube(10), tube(40)).told).toContain("the hole ⌀10 goes through another wall too");
  expect(sizes(tube(40), tube(40)).told).toEqual([]);
  expect(sizes(tube(40), tube(10)).told.join()).toMatch(/1 holes? ⌀10, printed 2|does not go|was not found/);
});

it("a counterbore at the other end is not there", () => {
  const head = { head: { kind: "counterbore", diameter: 16, depth: 5 } } as const;
  // what else is drilled lets the plate lie one way only, and makes it no mirror image
  const others = hole(
    "o",
    top,
    4,
    [
      [90, 5],
      [60, 25],
    ],
    { extent: { kind: "depth", depth: 7 } },
  );
  const right = part(...box(100, 30, 20), others, hole("h", top, 9, [[12, 9]], head)),
    turned = part(...box(100, 30, 20), others, hole("h", face("b/start"), 9, [[12, -9]], head));
  const { told } = sizes(right, turned);
  expect(told.join(". ")).toMatch(/^the counterbore of the hole ⌀9, printed .*was not found$/);
});

it.each([
  [120, 80, 30, 2],
  [100, 60, 25, 3],
  [70, 70, 40, 1.5],
])("a tray %d × %d × %d whose walls of %d stand outside lies on the reference, not beside it", (w, d, h, wall) => {
  const tray = (outward: boolean) => part(...box(w, d, h), shell("s", wall, ["b/end"], outward ? { outward } : {}));
  const shape = shapeOf(tray(false), tray(true));
  const middle: Vec3 = [w / 2, d / 2, h / 2];
  expect(distance3(move(shape.motion, middle), middle)).toBeLessThan(3 * wall);
  expect(shape.verdict).toBe("missed");
});

it("a hole a little off and a little wide, each within what its size allows, is there", () => {
  const off = shapeOf(drilled([[12.7, 12.7]], 6.35), drilled([[12.715, 12.7]], 6.375));
  expect([off.verdict, off.features]).toEqual(["met", []]);
  expect(shapeOf(drilled([[12.7, 12.7]], 6.35), drilled([[12.75, 12.7]], 6.35)).verdict).toBe("missed");
});

describe("a size that can be measured from what is there is measured", () => {
  /** How one distance stands on a part. */
  const distance = (reference: PartDocument, submission: PartDocument, size: Partial<Size>): string => {
    const own = { id: "d", kind: "distance", from: ["b/side/l4"], ...size } as Size;
    const evidence = evidenceOf(reference, submission, [own]);
    const [checked] = evidence.find((e): e is SizesEvidence => e.check === "sizes")!.sizes;
    return `${checked!.state} ${checked!.values[0]!.measured.join()}`;
  };
  const head = { head: { kind: "counterbore", diameter: 16, depth: 5 } } as const;
  const bored = (x: number, more: Parameters<typeof hole>[4]) => drilled([[x, 9]], 9, more, 20);
  const to = [["h/counterbore/p1"]] as unknown as string[];

  it("the place of a hole, printed to the wall of its counterbore that is missing", () => {
    const size = { to: to[0] } as unknown as Partial<Size>;
    expect(distance(bored(12, head), bored(12, head), size)).toBe("met 12");
    expect(distance(bored(12, head), bored(12, {}), size)).toBe("met 12");
    expect(distance(bored(12, head), bored(14, {}), size)).toBe("missed 14");
  });
  it("a distance along the side of a slot that is missing", () => {
    const slotted = (deep: number, x: number): PartDocument => ({
      ...bored(x, {}),
      steps: [
        ...bored(x, {}).steps,
        ...(deep
          ? [sketch("k", { base: "top", offset: 20 }, rect(40, 12, 70, 18)), cut("s", "k", deep, { reverse: true })]
          : []),
      ],
    });
    const size = { to: ["h/bore/p1"], along: "s/side/l4" } as unknown as Partial<Size>;
    expect(distance(slotted(4, 12), slotted(4, 12), size)).toBe("met 12");
    expect(distance(slotted(4, 12), slotted(0, 12), size)).toBe("met 12");
    expect(distance(slotted(4, 12), slotted(0, 15), size)).toBe("missed 15");
  });
  it("the diameter of what is missing is not read off what lies on its axis", () => {
    const size = { kind: "diameter", of: to, from: undefined } as unknown as Partial<Size>;
    expect(distance(bored(12, head), bored(12, {}), size)).toBe("lost ");
  });
});
