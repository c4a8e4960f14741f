import { describe, expect, it } from "vitest";
import { conflictAmong } from "./conflict";

const things = (...ids: string[]) => ids.map((id) => ({ id }));
/** Fits unless all of one of the bad sets is there. */
const unless =
  (...bad: string[][]) =>
  (subset: readonly { id: string }[]) =>
    !bad.some((b) => b.every((id) => subset.some((s) => s.id === id)));

describe("the smallest set that disagrees", () => {
  it("is empty when all fit", () => {
    expect(conflictAmong(things("a", "b"), () => true)).toEqual([]);
  });
  it("is one thing that cannot be on its own", () => {
    expect(conflictAmong(things("a", "b", "c"), unless(["b"]))).toEqual(["b"]);
  });
  it("is a pair far apart", () => {
    expect(conflictAmong(things("a", "b", "c", "d", "e", "f", "g"), unless(["a", "g"])).sort()).toEqual(["a", "g"]);
  });
  it("is three of many", () => {
    const many = Array.from({ length: 50 }, (_, i) => `r${i}`);
    expect(conflictAmong(things(...many), unless(["r3", "r20", "r44"])).sort()).toEqual(["r20", "r3", "r44"]);
  });
  it("is one of two sets, and no more than that", () => {
    const found = conflictAmong(things("a", "b", "c", "d"), unless(["a", "b"], ["c", "d"])).sort();
    expect([
      ["a", "b"],
      ["c", "d"],
    ]).toContainEqual(found);
  });
  it("asks little of a large list", () => {
    let asked = 0;
    const fits = unless(["r100", "r300"]);
    conflictAmong(things(...Array.from({ length: 400 }, (_, i) => `r${i}`)), (s) => {
      asked++;
      return fits(s);
    });
    expect(asked).toBeLessThan(60);
  });
});
