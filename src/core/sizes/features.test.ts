import { beforeAll, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { cut, extrude, face, hole, part, rect, row, sketch } from "@/core/part/testing/build";
import { SOLIDS } from "@/core/part/testing/solids";
import { box } from "@/core/part/testing/solids/known";
import { openNodeKernel } from "@/worker/kernel";
import { sizedBody } from "./body";
import { featuresOf } from "./features";
import { plural } from "./names";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

function names(d: PartDocument): string[] {
  const built = rebuild(kernel, d);
  const body = sizedBody(kernel, built.body!);
  kernel.release(built.body!.shape);
  return featuresOf(body, { unit: "mm" })
    .map((f) => f.name)
    .sort();
}
const known = (name: string) => SOLIDS.find((s) => s.name === name)!.ways[0]!;
const OUTER = ["the back face", "the front face", "the left end face", "the right end face", "the underside"];
const pocket = (plane: object, outline: ReturnType<typeof rect>, reverse: boolean) =>
  names(part(...box(60, 40, 20), sketch("p", plane as never, outline), cut("k", "p", 6, { reverse })));

it("a pocket has a floor and walls by where they stand, whatever way it opens", () => {
  const walls = ["the floor of the pocket", "the left wall of the pocket", "the right wall of the pocket"];
  expect(pocket({ base: "top", offset: 20 }, rect(10, 10, 40, 30), true)).toEqual(
    [...OUTER, ...walls, "the back wall of the pocket", "the front wall of the pocket", "the top face"].sort(),
  );
  expect(pocket({ base: "front", offset: 0 }, rect(10, 5, 40, 15), true)).toEqual(
    [...OUTER, ...walls, "the lower wall of the pocket", "the upper wall of the pocket", "the top face"].sort(),
  );
});

it("what is open to a side is no pocket, nor is what a boss stands on", () => {
  const step = pocket({ base: "top", offset: 20 }, rect(0, 0, 30, 40), true);
  expect(step.filter((n) => /pocket/.test(n))).toEqual([]);
  const pad = names(
    part(...box(60, 40, 20), sketch("p", { base: "top", offset: 20 }, rect(10, 10, 40, 30)), extrude("k", "p", 5)),
  );
  expect(pad.filter((n) => /pocket/.test(n))).toEqual([]);
});

it("a keyway in a shaft is a pocket; a slot is one thing; a prism has sides and no chamfers", () => {
  expect(names(known("shaft of two halves with a keyway, 10")).filter((n) => /pocket/.test(n))).toHaveLength(5);
  expect(names(known("slotted plate"))).toEqual([...OUTER, "the slot 8 wide", "the top face"].sort());
  expect(names(known("hexagonal prism")).filter((n) => /chamfer/.test(n))).toEqual([]);
  expect(names(known("chamfered edge"))).toContain("the chamfer");
});

it("many holes are counted by rows, and few by where they stand", () => {
  const sieve = (count: number, rows: number, step: number) =>
    names(
      part(
        ...box(140, 70, 3),
        hole("h", face("b/end"), 5, [[10, 10]]),
        row("r", ["h"], "x", count, step, { second: { axis: "y", count: rows, distance: step } }),
      ),
    ).filter((n) => /hole/.test(n));
  const many = sieve(12, 5, 10);
  expect(new Set(many).size).toBe(60);
  expect(many).toContain("the hole ⌀5 in row 4 from the front, 11th from the left");
  expect(sieve(2, 2, 50)).toContain("the hole ⌀5 at the left back");
});

it.each([
  ["hole ⌀9", "holes ⌀9"],
  ["inner fillet R6", "inner fillets R6"],
  ["ring of section R3", "rings of section R3"],
  ["slot 8 wide", "slots 8 wide"],
  ["floor of the pocket", "floors of the pocket"],
  ["chamfer", "chamfers"],
])("several of %s are %s", (one, many) => expect(plural(one)).toBe(many));
