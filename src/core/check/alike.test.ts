import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import {
  arc,
  circ,
  cut,
  extrude,
  face,
  hole,
  line,
  part,
  poly,
  rect,
  revolve,
  ring,
  row,
  sketch,
} from "@/core/part/testing/build";
import { withSketchesDefined } from "@/core/sizes/numbers";
import { studentSentence } from "@/core/grade/sentences";
import { openNodeKernel } from "@/worker/kernel";
import { checkSubmission } from "./check";
import { newExercise } from "./exercise/exercise";
import type { ShapeEvidence } from "./kinds/shape/kind";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

const DEGREE = Math.PI / 180;
/** A flange with five holes, the first at an angle. */
const flange = (angle: number, holes = 5, circle = 44): PartDocument =>
  part(
    sketch("s", "top", circ(0, 0, 30)),
    extrude("b", "s", 8),
    hole("h", face("b/end"), 6, [[(circle / 2) * Math.cos(angle * DEGREE), (circle / 2) * Math.sin(angle * DEGREE)]]),
    ring("r", ["h"], holes),
  );
/** A cover that turns about one axis only: drawn as discs, or turned about another axis of space. */
const coverOfDiscs = (boss = 9): PartDocument =>
  part(
    sketch("s", "top", circ(0, 0, 25)),
    extrude("b", "s", 4),
    sketch("t", { base: "top", offset: 4 }, circ(0, 0, 10)),
    extrude("k", "t", boss - 4),
    hole("h", face("k/end"), 8, [[0, 0]]),
  );
const coverTurned = (): PartDocument =>
  part(
    sketch(
      "s",
      "top",
      poly([
        [0, 4],
        [9, 4],
        [9, 10],
        [4, 10],
        [4, 25],
        [0, 25],
      ]),
    ),
    revolve("r", "s", { about: { sketch: "s", curve: "x-axis" } }),
  );
/** A lid with round ends, its length along x or along y. */
function lid(way: "x" | "y", length = 60): PartDocument {
  const at = (x: number, y: number): [number, number] => (way === "x" ? [x, y] : [-y, x]);
  const [half, r] = [length / 2 - 15, 15];
  return part(
    sketch("s", "top", [
      line("l1", at(-half, -r), at(half, -r)),
      arc("a1", at(half, 0), at(half, -r), at(half, r)),
      line("l2", at(half, r), at(-half, r)),
      arc("a2", at(-half, 0), at(-half, r), at(-half, -r)),
    ]),
    extrude("b", "s", 5),
  );
}
/** A fork with a round end and a pin's hole: cut out of one block, or put together of two cheeks and a bridge. */
const cheek = (plane: object, id: string, thick: number) => [
  sketch(`s${id}`, plane as never, [
    line("l1", [0, -15], [30, -15]),
    arc("a1", [30, 0], [30, -15], [30, 15]),
    line("l2", [30, 15], [0, 15]),
    line("l3", [0, 15], [0, -15]),
  ]),
  extrude(id, `s${id}`, thick),
];
const pin = [sketch("sp", "top", circ(30, 0, 5)), cut("p", "sp", "through")];
const forkCut = (wide = 12): PartDocument =>
  part(
    ...cheek({ base: "top" }, "b", 30),
    sketch("sc", { base: "top", offset: 15 - wide / 2 }, rect(12, -20, 60, 20)),
    cut("c", "sc", wide),
    ...pin,
  );
const forkJoined = (): PartDocument =>
  part(
    ...cheek({ base: "top" }, "b", 9),
    ...cheek({ base: "top", offset: 21 }, "t", 9),
    sketch("sb", { base: "top", offset: 9 }, rect(0, -15, 12, 15)),
    extrude("k", "sb", 12),
    ...pin,
  );
/** A plate with six rows of thirteen holes. */
const sieve = (wide: number): PartDocument =>
  part(
    sketch("s", "top", rect(0, 0, 140, 70)),
    extrude("b", "s", 3),
    hole("h", face("b/end"), wide, [[10, 10]]),
    row("r", ["h"], "x", 13, 10, { second: { axis: "y", count: 6, distance: 10 } }),
  );

const shapeOf = (reference: PartDocument, submission: PartDocument) => {
  const exercise = { ...newExercise(), reference: withSketchesDefined(reference), sizes: [] };
  const r = checkSubmission(kernel, exercise, withSketchesDefined(submission));
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value.report.evidence.find((e) => e.check === "shape") as ShapeEvidence;
};

describe("parts that hardly anything fixes in space", () => {
  const pairs: [string, () => [PartDocument, PartDocument]][] = [
    ["a flange whose ring of holes begins at another angle", () => [flange(0), flange(17)]],
    ["a round cover, turned about another axis of space", () => [coverOfDiscs(), coverTurned()]],
    ["an oval lid drawn along the other axis", () => [lid("x"), lid("y")]],
    ["a fork cut from one block, and put together of cheeks", () => [forkCut(), forkJoined()]],
    ["seventy-eight holes", () => [sieve(5), sieve(5)]],
  ];
  it.each(pairs)("%s: the same", (_, make) => {
    const [a, b] = make();
    expect(shapeOf(a, b)).toMatchObject({ finding: "same", verdict: "met", off: 0 });
    expect(shapeOf(b, a)).toMatchObject({ finding: "same", verdict: "met", off: 0 });
  });
  const wrong: [string, () => [PartDocument, PartDocument], RegExp][] = [
    ["a flange with a hole more", () => [flange(0), flange(17, 6)], /./],
    ["a flange on a wider pitch circle", () => [flange(0), flange(17, 5, 46)], /holes? ⌀6/],
    ["a cover with a lower boss", () => [coverOfDiscs(), coverOfDiscs(8)], /top face lies 1 mm too far down/],
    ["a lid too long", () => [lid("x"), lid("y", 62)], /1 mm|2 mm/],
    ["a fork with a wider gap", () => [forkJoined(), forkCut(13)], /0\.5 mm/],
    ["holes too wide", () => [sieve(5), sieve(5.2)], /The 78 holes ⌀5 are 0\.2 mm too wide\./],
  ];
  it.each(wrong)("%s: is not", (_, make, sentence) => {
    const [a, b] = make();
    const e = shapeOf(a, b);
    expect(e.verdict).toBe("missed");
    expect(e.doubt).toBeUndefined();
    expect(shapeKindText(e)).toMatch(sentence);
  });
});

const shapeKindText = (e: ShapeEvidence) => studentSentence(e, newExercise());
