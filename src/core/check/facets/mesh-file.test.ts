import { strToU8, zipSync } from "fflate";
import { beforeAll, describe, expect, it } from "vitest";
import { demoExercises } from "@/cli/bench/demo-parts";
import { stlOf } from "@/core/formats/stl";
import { threeMfOf } from "@/core/formats/three-mf";
import { turnedVector } from "@/core/geometry/line";
import { unit3, type Vec3 } from "@/core/geometry/vector";
import { gradeReport } from "@/core/grade/grade";
import { meshOf } from "@/core/kernel/mesh";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { footExercise } from "@/demo/exercises";
import { tripodFoot } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { checkMeasured } from "../check";
import type { Exercise } from "../exercise/exercise";
import { measureFile } from "../given/file";
import type { PartFile } from "../given/part-file";
import { References } from "../references";
import { fewer } from "@/core/part/testing/chosen";

let kernel: Kernel;
let references: References;
beforeAll(async () => {
  kernel = await openNodeKernel();
  references = new References(kernel, 20);
});

type Place = (p: Vec3) => Vec3;
const axis = unit3([0.3, -0.8, 0.5]);
const turned: Place = (p) => {
  const [x, y, z] = turnedVector(p, axis, 1.234);
  return [x + 31.7, y - 12.3, z + 8.8];
};
const mesh = (part: PartDocument, deflection: number, angle: number, place: Place) => {
  const body = rebuild(kernel, part).body!;
  const { positions, triangles } = meshOf(kernel, body, deflection, angle);
  kernel.release(body.shape);
  const moved = Float32Array.from(positions);
  for (let i = 0; i < moved.length; i += 3) moved.set(place([moved[i]!, moved[i + 1]!, moved[i + 2]!]), i);
  return { positions: moved, triangles };
};
const head = { format: "caliper-file", version: 1 } as const;
const base64 = (bytes: Uint8Array) => Buffer.from(bytes).toString("base64");
const stl = (bytes: Uint8Array): PartFile => ({ ...head, kind: "stl", unit: "mm", name: "p.stl", data: base64(bytes) });
const threeMf = (bytes: Uint8Array): PartFile => ({ ...head, kind: "3mf", name: "p.3mf", data: base64(bytes) });

const linesOf = (exercise: Exercise, file: PartFile) => {
  const r = checkMeasured(kernel, exercise, () => measureFile(kernel, file), { references });
  if (!r.ok) throw new Error(r.refusal.sentence);
  return gradeReport(exercise, r.value.report).lines;
};
/** Lines that lost points; sketches and sizes cannot be told of facets. */
const lost = (exercise: Exercise, file: PartFile) =>
  linesOf(exercise, file)
    .filter((l) => l.verdict !== "met" && l.id !== "sketches" && l.id !== "sizes")
    .map((l) => `${l.id}: ${l.sentence}`);

describe("a right part as a mesh loses no line that a mesh can be told by", () => {
  it.each(fewer(demoExercises(), 2))("%s: STL, fine and coarse, turned", (_, exercise) => {
    for (const [deflection, angle] of [
      [0.01, 0.1],
      [0.3, 0.5],
    ] as const)
      expect(lost(exercise, stl(stlOf(mesh(exercise.reference, deflection, angle, turned), "part")))).toEqual([]);
  });
  it.each(demoExercises().slice(0, 2))("%s: 3MF", (_, exercise) => {
    expect(lost(exercise, threeMf(threeMfOf(mesh(exercise.reference, 0.05, 0.2, turned), "part")))).toEqual([]);
  });
});

describe("a wrong part as a mesh", () => {
  const foot = footExercise();
  const shape = (part: PartDocument, place = turned) =>
    linesOf(foot, stl(stlOf(mesh(part, 0.05, 0.2, place), "part"))).find((l) => l.id === "shape")!;
  it("is told by the thing that differs, by how much", () => {
    const line = shape(tripodFoot({ baseHole: 20 }));
    expect(line.verdict).toBe("missed");
    expect(line.studentSentence).toMatch(/hole ⌀18.* is up to 1(\.0\d*)? mm off/);
  });
  it("is wrong by a tenth of a millimetre too", () => {
    expect(shape(tripodFoot({ baseHole: 18.2 })).studentSentence).toMatch(/hole ⌀18.* is up to 0\.1\d* mm off/);
  });
  it("mirrored, and in inches", () => {
    const mirrored: Place = ([x, y, z]) => turned([-x, y, z]);
    const inches: Place = (p) => turned(p).map((v) => v / 25.4) as unknown as Vec3;
    // what the Sheet shows has a left and a right
    expect(shape(tripodFoot(), mirrored).studentSentence).toMatch(/mirror image/);
    expect(shape(tripodFoot(), inches).studentSentence).toMatch(/25\.4 times too small: inches and millimetres/);
  });
});

describe("bad mesh files are refused in words", () => {
  const trouble = (file: PartFile) => {
    const r = measureFile(kernel, file);
    return r.ok ? "" : r.refusal.sentence;
  };
  const good = () => stlOf(mesh(tripodFoot(), 0.3, 0.5, turned), "part");
  it.each<[string, () => PartFile, RegExp]>([
    ["cut off", () => stl(good().slice(0, -70)), /cut off/],
    ["no STL", () => stl(strToU8("hello, this is no mesh at all")), /no STL file/],
    ["text without facets", () => stl(strToU8("solid a\nfacet\nendsolid a")), /no facets/],
    ["text with a corner missing", () => stl(strToU8("solid a\nfacet\nvertex 1 2 3\nendsolid")), /three corners/],
    ["no numbers", () => stl(strToU8(`solid a\nfacet ${"vertex 1 x 3\n".repeat(3)}endsolid`)), /numbers that are none/],
    ["no zip", () => threeMf(strToU8("PK nothing")), /cannot be read/],
    ["a zip of something else", () => threeMf(zipSync({ "a.txt": strToU8("a") })), /holds no model/],
    ["no XML", () => threeMf(zipSync({ "3D/a.model": strToU8("<model><object>") })), /no XML/],
    [
      "entities",
      () => threeMf(zipSync({ "3D/a.model": strToU8('<!DOCTYPE a [<!ENTITY b "c">]><model/>') })),
      /document type/,
    ],
    ["nothing placed", () => threeMf(zipSync({ "3D/a.model": strToU8("<model/>") })), /places no object/],
    [
      "an object that stands in itself",
      () =>
        threeMf(
          zipSync({
            "3D/a.model": strToU8(
              '<model><resources><object id="1"><components><component objectid="1"/></components></object>' +
                '</resources><build><item objectid="1"/></build></model>',
            ),
          }),
        ),
      /many parts/,
    ],
  ])("%s", (_, file, sentence) => expect(trouble(file())).toMatch(sentence));
  it("a facet left out leaves it open", () => {
    const { positions, triangles } = mesh(tripodFoot(), 0.3, 0.5, turned);
    expect(trouble(stl(stlOf({ positions, triangles: triangles.slice(3) }, "part")))).toMatch(/not closed: at 3 sides/);
  });
});
