import { describe, expect, it } from "vitest";
import { slipsOf } from "./slips";

const others = [
  { value: 18, text: "⌀18" },
  { value: 6, text: "R6" },
];

describe("how a hand gets a number wrong", () => {
  it.each<[is: number, right: number, kinds: string[]]>([
    [44, 22, ["twice"]],
    [11, 22, ["half"]],
    [83, 38, ["exchanged"]],
    [121, 112, ["exchanged"]],
    [99, 90, ["digit"]],
    [380, 38, ["tenfold"]],
    [3.8, 38, ["tenth"]],
    [965.2, 38, ["inch"]],
    // nine or eighteen: both make the very same part
    [18, 9, ["twice", "other-size"]],
    [9, 18, ["half"]],
    [46, 40, ["sum"]],
    [34, 40, ["sum"]],
    [57.454, 70, ["value"]],
    [45, 44, ["digit"]],
    [1.25, 2.5, ["half"]],
  ])("%f for %f: %j", (is, right, kinds) => {
    const found = slipsOf(is, right, others).map((s) => s.kind);
    expect([...new Set(found)].slice(0, kinds.length)).toEqual(kinds);
  });

  it("says which other size was taken", () => {
    expect(slipsOf(18, 30, others)).toContainEqual({ kind: "other-size", other: "⌀18" });
    expect(slipsOf(36, 30, others)).toEqual([{ kind: "sum", other: "R6" }]);
  });
});
