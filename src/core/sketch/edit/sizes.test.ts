import { beforeEach, describe, expect, it } from "vitest";
import { circle } from "../shapes";
import { curveById, type Circle } from "../sketch";
import { clean, s, run, refusal, pin, plate, near } from "../testing/workpiece";

beforeEach(() => clean());

describe("sizes", () => {
  beforeEach(plate);
  it("follow each other by name", () => {
    run({ do: "name", id: "m1", name: "width" });
    run({ do: "resize", id: "m2", value: "=width/4" });
    run({ do: "resize", id: "m1", value: 60 });
    near("l2.end", [60, 15]);
    run({ do: "name", id: "m1", name: "long" });
    expect(s.dimensions[1]!.value).toBe("=long/4");
  });
  it.each([
    ["=m2", "bad-number"],
    ["=30 deg", "bad-number"],
    ["=m9", "bad-number"],
    ["=m1", "bad-number"],
  ])("%s is refused", (value, code) => {
    run({ do: "resize", id: "m2", value: "=m1/2" });
    expect(refusal({ do: "resize", id: "m1", value })).toBe(code);
  });
  it("several change at once, where one after the other could not", () => {
    run(circle(s, [20, 10], 5));
    pin("to-side", ["l1", "c1"], 5);
    run({
      do: "resize-all",
      sizes: [
        { id: "m1", value: 90 },
        { id: "m2", value: 70 },
      ],
    });
    near("l2.end", [90, 70]);
  });
  it("a radius turns into a diameter", () => {
    run(circle(s, [20, 10], 5));
    pin("radius", ["c1"], 5);
    run({ do: "retype", id: "m3", kind: "diameter" });
    expect(s.dimensions[2]).toMatchObject({ kind: "diameter", value: 10 });
    expect((curveById(s, "c1") as Circle).radius).toBeCloseTo(5, 12);
  });
  it("one that others name keeps them at their value when it goes", () => {
    run({ do: "resize", id: "m2", value: "=m1/2" });
    run({ do: "delete", ids: ["m1"] });
    expect(s.dimensions).toHaveLength(1);
    expect(s.dimensions[0]!.value).toBe("20 mm");
  });
});
