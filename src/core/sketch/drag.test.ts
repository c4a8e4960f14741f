import { describe, expect, it } from "vitest";
import { Drag } from "./drag";
import { pointAt } from "./sketch";

import { sketchOf, circle, box, boxRelations, solve } from "./testing/rough-box";

describe("drag", () => {
  it("moves what is loose and keeps every constraint", () => {
    const s = solve(
      sketchOf(box, [...boxRelations, ["coincident", ["a.start", "origin"]], ["length", ["a"], 40]]),
    ).sketch;
    const drag = Drag.begin(s, "mm", { ref: "b.end", at: pointAt(s, "b.end") })!;
    const moved = drag.to([100, 33]);
    const p = pointAt(moved, "b.end");
    expect(p[0]).toBeCloseTo(40, 8);
    expect(p[1]).toBeCloseTo(33, 3);
  });
  it("resizes a circle by its rim", () => {
    const s = sketchOf([circle("o", [3, 4], 2)], []);
    const moved = Drag.begin(s, "mm", { ref: "o", rim: true, at: [5, 4] })!.to([9, 4]);
    expect(moved.curves[0]).toMatchObject({ centre: [3, 4], radius: 6 });
  });
  it("has nothing to move in a pinned sketch", () =>
    expect(
      Drag.begin(sketchOf([circle("o", [3, 4], 2)], [["fixed", ["o"]]]), "mm", { ref: "o.centre", at: [3, 4] }),
    ).toBeUndefined());
});
