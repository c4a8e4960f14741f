import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import { readStep } from "@/core/kernel/exchange";
import { propertiesOf } from "@/core/kernel/properties";
import { circ, extrude, part, rect, sketch } from "@/core/part/testing/build";
import type { PartDocument } from "@/core/part/document";
import { openNodeKernel } from "@/worker/kernel";
import type { FromWorker, Question } from "./messages";
import { WARM_PART } from "./warm-part";
import { Workshop } from "./workshop";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});
const box = (h: number): PartDocument => part(sketch("s", "top", rect(0, 0, 10, 10)), extrude("b", "s", h));
const disc = part(sketch("s", "top", circ(0, 0, 50)), extrude("b", "s", 10));
const step = (document: PartDocument): Question => ({ ask: "file", format: "step", document, fineness: 1 });

function workshop() {
  const said: FromWorker[] = [];
  const w = new Workshop(
    Promise.resolve(kernel),
    (m) => void said.push(m),
    () => new Promise((go) => setTimeout(go, 0)),
  );
  const answerTo = (id: number) => said.find((m) => "id" in m && m.id === id && !("picture" in m) && !("begun" in m));
  return { w, said, answerTo };
}
const volumeIn = (m: FromWorker | undefined): number => {
  if (!m || !("answer" in m) || !("bytes" in m.answer)) throw new Error("no file");
  const solid = readStep(kernel, new TextDecoder().decode(m.answer.bytes));
  const { volume } = propertiesOf(kernel, solid);
  kernel.release(solid.shape);
  return volume;
};

describe("the Bench's workshop", () => {
  it("an export in the middle of a build is of its own document, and the build of its own too", async () => {
    const { w, answerTo } = workshop();
    const order = { at: undefined, fineness: 1 };
    await Promise.all([
      w.hear({ id: 1, build: { document: box(10), ...order } }),
      w.hear({ id: 2, question: step(box(30)) }),
      w.hear({ id: 3, build: { document: box(20), ...order } }),
    ]);
    expect(volumeIn(answerTo(2))).toBeCloseTo(3000, 6);
    const last = answerTo(3);
    expect(last && "built" in last && last.built.properties?.volume).toBeCloseTo(2000, 6);
    expect(answerTo(1)).toEqual({ id: 1, overtaken: true });
  });
  it("measures only the part it was asked about", async () => {
    const { w, answerTo } = workshop();
    const order = { at: undefined, fineness: 1 };
    await w.hear({ id: 1, build: { document: disc, ...order } });
    await w.hear({ id: 2, question: { ask: "extent", of: 1, along: [1, 2, 0] } });
    // a disc of 100 is 100 whichever way it is measured
    expect(answerTo(2)).toEqual({ id: 2, answer: { extent: 100 } });
    await w.hear({ id: 3, build: { document: box(10), ...order } });
    await w.hear({ id: 4, question: { ask: "extent", of: 1, along: [1, 0, 0] } });
    expect(answerTo(4)).toEqual({ id: 4, failed: "the part has changed since" });
    // writing the same part leaves it standing; writing another does not pass it off for this one
    await w.hear({ id: 5, question: step(box(10)) });
    await w.hear({ id: 6, question: { ask: "extent", of: 3, along: [0, 0, 1] } });
    expect(answerTo(6)).toEqual({ id: 6, answer: { extent: 10 } });
    await w.hear({ id: 7, question: step(box(11)) });
    await w.hear({ id: 8, question: { ask: "extent", of: 3, along: [0, 0, 1] } });
    expect(answerTo(8)).toEqual({ id: 8, failed: "the part has changed since" });
  });
});

it("what a kernel builds to get warm is built whole", async () => {
  const { w, answerTo } = workshop();
  await w.hear({ id: 1, build: { document: WARM_PART, at: undefined, fineness: 1 } });
  const m = answerTo(1);
  if (!m || !("built" in m)) throw new Error("not built");
  expect(m.built.steps.flatMap((s) => s.refusal?.sentence ?? [])).toEqual([]);
  // block less bore and corner; the disc ⌀18 × 16 fills the hole it stands on; its rim loses a ring of 1 × 1
  const bore = Math.PI * (4 * 10 + (3.5 ** 2 - 4) * 3);
  const ring = Math.PI * (81 - (81 + 72 + 64) / 3);
  const corner = (1 - Math.PI / 4) * 9 * 10;
  expect(m.built.properties?.volume).toBeCloseTo(12_000 - corner - bore + Math.PI * 81 * 6 - ring, 6);
});
