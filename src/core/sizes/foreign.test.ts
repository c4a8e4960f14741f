import { beforeAll, describe, expect, it } from "vitest";
import { writeStep } from "@/core/kernel/exchange";
import type { Kernel } from "@/core/kernel/opencascade";
import { rebuild } from "@/core/part/rebuild";
import type { PartDocument } from "@/core/part/document";
import { tripodFoot } from "@/demo/parts";
import { anemometerHub, bearingSpacer, mastBracket } from "@/demo/solid-parts";
import { openNodeKernel } from "@/worker/kernel";
import { sizesOf } from "./sizes";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

/** The same body without its story: as a file brings it. */
function asFile(d: PartDocument): PartDocument {
  const { body } = rebuild(kernel, d);
  const step = writeStep(kernel, body!, d.name);
  kernel.release(body!.shape);
  return { ...d, steps: [{ id: "imported1", kind: "imported", file: "part.step", step }] };
}

describe("sizes of a body from a file", () => {
  it.each<[string, PartDocument, number]>([
    ["the foot", tripodFoot(), 12],
    ["the spacer", bearingSpacer(), 10],
    ["the bracket", mastBracket(), 14],
    ["the hub", anemometerHub(), 14],
  ])("of %s tell all ways it can change, nothing twice, and are few", (_, part, most) => {
    const r = sizesOf(kernel, asFile(part));
    if (!r.ok) throw new Error(r.refusal.sentence);
    const { table, sizes } = r.value;
    expect(table.told).toBe(table.ways);
    expect([table.repeating, table.hidden, table.lost]).toEqual([[], [], []]);
    expect(sizes.length).toBeLessThanOrEqual(most);
  });
});
