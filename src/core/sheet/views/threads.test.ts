import { beforeAll, describe, expect, it } from "vitest";
import { newExercise } from "@/core/check/exercise/exercise";
import type { Kernel } from "@/core/kernel/opencascade";
import { extrude, face, hole, part, rect, sketch } from "@/core/part/testing/build";
import { withSketchesDefined } from "@/core/sizes/numbers";
import { sizesOf } from "@/core/sizes/sizes";
import { openNodeKernel } from "@/worker/kernel";
import { openDraft } from "./draft";
import { layOut, type DrawnSheet } from "../sheet";
import { threadMarks } from "./threads";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

/** A block with two holes for M8, 12 of 15 deep; what its Sheet says, and the thread's lines in a view. */
function block(name: string, depth: number | undefined) {
  const reference = withSketchesDefined(
    part(
      sketch("s", "top", rect(0, 0, 60, 40)),
      extrude("b", "s", 20),
      hole("h", face("b/end"), 6.8, [[15, 20], [45, 20]], {
        extent: { kind: "depth", depth: 15 },
        thread: { name, ...(depth !== undefined && { depth }) },
      }),
    ),
  ); // prettier-ignore
  const found = sizesOf(kernel, reference),
    draft = openDraft(kernel, reference, "mm");
  if (!found.ok || !draft.ok) throw new Error("the block cannot be drawn");
  const { sizes } = found.value;
  const drawn = layOut(draft.value, { ...newExercise(), reference, sizes } as never);
  draft.value.close();
  const marks = (view: string) => {
    const s = drawn.composition.views.find((v) => v.view.key === view)!;
    return threadMarks(draft.value.model, sizes, s.view, 1, (p) => p);
  };
  return { drawn, marks };
}
const texts = (d: DrawnSheet) => d.sheet.dimensions.map((x) => x.text);

describe("a thread", () => {
  it("is noted with its depth beside the hole, and drawn as three quarters of a circle", () => {
    const { drawn, marks } = block("M8", 12);
    expect(texts(drawn)).toContain("2× M8 12 deep");
    const round = marks("top");
    expect(round).toHaveLength(2);
    for (const m of round) {
      if (m.mark !== "arc") throw new Error("no arc");
      expect(m.radius).toBe(4);
      expect(m.to - m.from).toBeGreaterThan(4.3);
      expect(m.to - m.from).toBeLessThan(4.72);
    }
  });
  it("from the side is as long as it is cut, from the outer end on, and hidden where its bore is", () => {
    const lines = block("M8", 12).marks("front");
    expect(lines).toHaveLength(4);
    for (const m of lines) {
      if (m.mark !== "line") throw new Error("no line");
      expect(m.pen).toBe("hidden");
      expect(Math.abs(m.a[1] - m.b[1])).toBeCloseTo(12, 9);
      expect(Math.max(m.a[1], m.b[1])).toBeCloseTo(20, 9);
    }
  });
  it("of a quarter inch is a quarter inch wide, and goes all the way where nothing else is said", () => {
    const { drawn, marks } = block("1/4 UNC", undefined);
    expect(texts(drawn)).toContain("2× 1/4 UNC");
    const [line] = marks("front");
    expect(line!.mark === "line" && Math.abs(line!.a[1] - line!.b[1])).toBeCloseTo(15, 9);
    const [arc] = marks("top");
    expect(arc!.mark === "arc" && arc!.radius).toBeCloseTo(3.175, 9);
  });
});
