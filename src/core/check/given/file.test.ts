import { beforeAll, describe, expect, it } from "vitest";
import { gradeReport } from "@/core/grade/grade";
import { rotationBetween, type Rigid } from "@/core/geometry/rigid";
import { writeStep } from "@/core/kernel/exchange";
import { placed } from "@/core/kernel/place";
import { FREE } from "@/core/part/testing/solids/free";
import { WALLS } from "@/core/part/testing/solids/walls";
import type { Kernel } from "@/core/kernel/opencascade";
import { rebuild } from "@/core/part/rebuild";
import { footExercise } from "@/demo/exercises";
import { tripodFoot } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { checkMeasured } from "../check";
import { newExercise } from "../exercise/exercise";
import { triad } from "../placing/whole";
import { measureFile } from "./file";
import type { PartFile } from "./part-file";

/** Turned by no simple angle about no simple axis, and moved. */
const ELSEWHERE: Rigid = {
  rows: rotationBetween(triad([0.48, 0.6, 0.64], [0, 0.8, -0.6]), triad([1, 0, 0], [0, 1, 0])),
  shift: [13.7, -41.3, 7.1],
};

let kernel: Kernel;
let good: string;
beforeAll(async () => {
  kernel = await openNodeKernel();
  const body = rebuild(kernel, tripodFoot()).body!;
  good = writeStep(kernel, body, "foot");
  kernel.release(body.shape);
});
const file = (text: string): PartFile => ({
  format: "caliper-file",
  version: 1,
  kind: "step",
  name: "foot.step",
  text,
});
const trouble = (text: string): string => {
  const r = measureFile(kernel, file(text));
  if (r.ok) kernel.release(r.value.solid?.shape);
  return r.ok ? "" : r.refusal.sentence;
};

describe("a STEP file in place of a document", () => {
  it("gets every line but the sketches", () => {
    const r = checkMeasured(kernel, footExercise(), () => measureFile(kernel, file(good)));
    if (!r.ok) throw new Error(r.refusal.sentence);
    const lines = gradeReport(footExercise(), r.value.report).lines;
    expect(lines.map((l) => `${l.id} ${l.verdict}`)).toEqual([
      "sketches unknown",
      "solid met",
      "volume met",
      "mass met",
      "shape met",
      "sizes met",
    ]);
    expect(lines[0]!.studentSentence).toBe("No part built on the Bench was handed in, so there are no sketches.");
  });

  it.each([...FREE, ...WALLS.slice(0, 6), ...WALLS.slice(12, 14)].map((known) => [known.name, known] as const))(
    "a right part turned and elsewhere is right: %s",
    (_, { ways: [reference] }) => {
      const body = rebuild(kernel, reference!).body!,
        turned = placed(kernel, body, ELSEWHERE),
        text = writeStep(kernel, turned, "part");
      kernel.release(turned.shape, body.shape);
      const r = checkMeasured(kernel, { ...newExercise(), reference: reference! }, () =>
        measureFile(kernel, file(text)),
      );
      if (!r.ok) throw new Error(r.refusal.sentence);
      const verdict = (check: string) => r.value.report.evidence.find((e) => e.check === check)!.verdict;
      expect([verdict("volume"), verdict("shape")]).toEqual(["met", "met"]);
    },
  );

  const nested = () => good.replace(/DATA;/, `DATA;\n#9=X(${"(".repeat(200)}1${")".repeat(200)});`);
  it.each([
    ["another kind of file", () => "PK\u0003\u0004", /no STEP file/],
    ["one cut off", () => good.slice(0, good.length / 2), /cut off/],
    ["lists a hundred deep", nested, /deeper/],
    ["numbers that are none", () => good.replace(/\(-?\d+\.,/, "(NAN,"), /numbers that are none/],
    [
      "nothing in it",
      () => good.replace(/DATA;[^]*ENDSEC;\s*END-ISO/, "DATA;\nENDSEC;\nEND-ISO"),
      /no shape|cannot be/,
    ],
    [
      "an assembly",
      () => good.replace(/DATA;/, `DATA;\n${"#8=NEXT_ASSEMBLY_USAGE_OCCURRENCE('');\n".repeat(60)}`),
      /assembly/,
    ],
    ["faces without end", () => good.replace(/DATA;/, `DATA;\n${"#8=ADVANCED_FACE ('');\n".repeat(7000)}`), /faces/],
    ["a solid whose shell is gone", () => good.replace(/CLOSED_SHELL\('',\([^)]*\)\)/, "CLOSED_SHELL('',())"), /./],
  ])("%s is refused with a sentence", (_, text, sentence) => {
    expect(trouble(text())).toMatch(sentence);
    // and the kernel is none the worse
    expect(trouble(good)).toBe("");
  });
});
