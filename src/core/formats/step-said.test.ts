import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import { stepString, writeStep } from "@/core/kernel/exchange";
import type { Kernel } from "@/core/kernel/opencascade";
import { box } from "@/core/part/testing/solids/known";
import { part } from "@/core/part/testing/build";
import { rebuild } from "@/core/part/rebuild";
import { printable } from "@/core/units/text";
import { openNodeKernel } from "@/worker/kernel";
import { fromStepString, saidInStep } from "./step-said";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

describe("what a STEP file says beside the shape", () => {
  it("is what was written: the name, and each colour once", () => {
    const body = rebuild(kernel, part(...box(30, 20, 10))).body!;
    const paint = {
      body: "#aa3322",
      faces: new Map([
        [0, "#22aa33"],
        [1, "#22aa33"],
      ]),
    };
    expect(saidInStep(writeStep(kernel, body, "Klemme ⌀12 – d’Alembert's", paint))).toEqual({
      name: "Klemme ⌀12 – d’Alembert's",
      colours: 2,
    });
    expect(saidInStep(writeStep(kernel, body, ""))).toEqual({ colours: 0 });
    kernel.release(body.shape);
  });
  it.each([
    [
      "the first of two names that says something",
      "#1=PRODUCT('','Unnamed',$);#2=PRODUCT('Arm','',$);",
      { name: "Arm", colours: 0 },
    ],
    ["names of colours", "#1=DRAUGHTING_PRE_DEFINED_COLOUR('red');#2=COLOUR_RGB('',0.1,0.2,0.3);", { colours: 2 }],
    ["nothing", "", { colours: 0 }],
  ])("%s", (_, text, said) => expect(saidInStep(text)).toEqual(said));
  it("any text comes back as it was", () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ unit: "grapheme" }),
          fc.string({ unit: fc.constantFrom("\\", "X", "S", "2", "0", "4", "'", "é") }),
        ),
        (text) => {
          expect(fromStepString(stepString(text))).toBe(printable(text));
        },
      ),
    );
  });
});
