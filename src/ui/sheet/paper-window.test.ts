import { describe, expect, it } from "vitest";
import { placeFor, scaleIn, windowOn } from "./paper-window";

const A3 = { width: 420, height: 297 };

describe("what of the paper is looked at", () => {
  it.each([
    ["a tall pane, by the width", { x: 20, y: 30, width: 200, height: 100 }, { width: 400, height: 700 }, 400 / 210],
    ["a tall pane, by the height", { x: 0, y: 0, width: 90, height: 250 }, { width: 400, height: 520 }, 520 / 260],
    ["a wide pane", { x: 10, y: 10, width: 300, height: 130 }, { width: 1200, height: 280 }, 280 / 140],
  ])("is as large as there is room in %s", (_, box, pane, scale) => {
    const w = windowOn(box, pane, A3, 5);
    expect(scaleIn(w, pane)).toBeCloseTo(scale, 9);
    expect(w[2] / w[3]).toBeCloseTo(A3.width / A3.height, 9);
    expect([w[0] + w[2] / 2, w[1] + w[3] / 2]).toEqual([
      expect.closeTo(box.x + box.width / 2, 9) as number,
      expect.closeTo(box.y + box.height / 2, 9) as number,
    ]);
  });
  it.each([
    ["a usual Sheet", { width: 320, height: 220 }, "left"],
    ["a tall one", { width: 120, height: 260 }, "left"],
    ["a long one", { width: 380, height: 70 }, "top"],
  ] as const)("%s stands where it is larger", (_, drawn, place) =>
    expect(placeFor(drawn, { width: 1600, height: 950 })).toBe(place),
  );
  it("a small screen keeps its height for the model", () =>
    expect(placeFor({ width: 380, height: 70 }, { width: 1280, height: 755 })).toBe("left"));
});
