import { beforeAll, expect, it } from "vitest";
import { stlOf } from "@/core/formats/stl";
import { turnedVector } from "@/core/geometry/line";
import { unit3, type Vec3 } from "@/core/geometry/vector";
import { meshOf } from "@/core/kernel/mesh";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { hole, part } from "@/core/part/testing/build";
import { box, disc, top } from "@/core/part/testing/solids/known";
import { openNodeKernel } from "@/worker/kernel";
import { checkMeasured } from "../check";
import { newExercise } from "../exercise/exercise";
import { measureFile } from "../given/file";
import { References } from "../references";

let kernel: Kernel;
let references: References;
beforeAll(async () => {
  kernel = await openNodeKernel();
  references = new References(kernel, 20);
});

/** What is found of the shape of a part that came as a mesh, turned about an axis. */
function shapeOf(reference: PartDocument, built: PartDocument, axis: Vec3, degrees: number): string {
  const body = rebuild(kernel, built).body!,
    { positions, triangles } = meshOf(kernel, body, 0.02, 0.2);
  kernel.release(body.shape);
  const turned = Float32Array.from(positions);
  for (let i = 0; i < turned.length; i += 3)
    turned.set(turnedVector([turned[i]!, turned[i + 1]!, turned[i + 2]!], unit3(axis), (degrees * Math.PI) / 180), i);
  const data = Buffer.from(stlOf({ positions: turned, triangles }, "p")).toString("base64");
  const file = { format: "caliper-file", version: 1, kind: "stl", unit: "mm", name: "p.stl", data } as const;
  const r = checkMeasured(kernel, { ...newExercise(), reference }, () => measureFile(kernel, file), { references });
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value.report.evidence.find((e) => e.check === "shape")!.verdict;
}

const plate = part(...box(100, 60, 8), hole("h", top, 3, [[9, 7]]));
const square = part(...box(60, 60, 9), hole("h", top, 2.5, [[52, 30]]));
const cover = part(...disc(40, 6), hole("h", top, 3, [[31, 0]]));

it.each([
  ["plate", plate, [0, 0, 1], 180],
  ["plate", plate, [1, 0, 0], 180],
  ["plate", plate, [0, 1, 0], 180],
  ["plate", plate, [0.3, -0.8, 0.5], 71],
  ["square plate", square, [0, 0, 1], 90],
  ["square plate", square, [0, 0, 1], 270],
  ["square plate", square, [1, 1, 0], 180],
  ["round cover", cover, [0, 0, 1], 143],
] as const)("a small hole tells which way a %s lies", (_, document, axis, degrees) =>
  expect(shapeOf(document, document, [...axis], degrees)).toBe("met"),
);

it("a plate whose small hole is elsewhere is none, whichever way it lies", () => {
  const other = part(...box(100, 60, 8), hole("h", top, 3, [[14, 7]]));
  expect(shapeOf(plate, other, [0, 0, 1], 180)).toBe("missed");
});
