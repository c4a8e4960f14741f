import { expect, it } from "vitest";
import { findRegions } from "./regions";
import { regionCalls } from "./region-words";
import type { Curve } from "./sketch";
import { sketchIn } from "./sketch";

const circle = (id: string, x: number, radius: number): Curve => ({ id, kind: "circle", centre: [x, 0], radius });
const calls = (...curves: Curve[]) => {
  const sketch = { ...sketchIn({ base: "front" }), curves };
  return regionCalls(findRegions(sketch).regions, sketch, "mm").sort();
};

it("a region of one curve is called by it, others by their box, less their holes", () => {
  expect(calls(circle("c1", 0, 20), circle("c2", 0, 10))).toEqual([
    "inside the circle ⌀20",
    "inside the circle ⌀40, less its hole",
  ]);
});
it("what is called alike is counted off", () => {
  const frame: Curve[] = [
    { id: "l1", kind: "line", start: [-50, -20], end: [50, -20] },
    { id: "l2", kind: "line", start: [50, -20], end: [50, 20] },
    { id: "l3", kind: "line", start: [50, 20], end: [-50, 20] },
    { id: "l4", kind: "line", start: [-50, 20], end: [-50, -20] },
    { id: "m", kind: "line", start: [0, -20], end: [0, 20] },
  ];
  expect(calls(...frame)).toEqual(["outline 50 × 40 mm, 1st from the left", "outline 50 × 40 mm, 2nd from the left"]);
  expect(new Set(calls(...frame, circle("c1", -25, 5), circle("c2", 25, 5))).size).toBe(4);
});
