import { describe, expect, it } from "vitest";
import { drivingNumbers } from "@/core/sizes/numbers";
import { footExercise } from "@/demo/exercises";
import { compareExercises } from "./compare";
import type { Exercise } from "./exercise";

const e = footExercise();
const changed = (what: Partial<Exercise>) => compareExercises(e, { ...e, ...what });

describe("what changed in an exercise", () => {
  it("is nothing where the same data stand in another order", () => {
    const turned = Object.fromEntries(Object.entries(e).reverse()) as unknown as Exercise;
    expect(compareExercises(e, turned)).toEqual([]);
  });
  it("is told of a number of the reference by its step", () => {
    const depth = drivingNumbers(e.reference).find((n) => n.id === "extrude1:extent.depth")!;
    const [sentence, ...rest] = changed({ reference: depth.give(60) });
    expect(rest).toEqual([]);
    expect(sentence).toMatch(/^Reference: step 2, Extrude: .*was 52.*is 60/);
  });
  it.each<[Partial<Exercise>, RegExp]>([
    [{ title: "Foot" }, /The title was “Tripod foot” and is “Foot”/],
    [{ material: { name: "Brass", density: 8.4 } }, /was Steel S235, 7\.85 g\/cm³ and is Brass, 8\.4/],
    [{ tolerances: { ...e.tolerances, mass: 0.01 } }, /tolerance of mass was 0\.5 % and is 1 %/],
    [{ rubric: e.rubric.slice(1) }, /The line “.*” is gone/],
    [{ rubric: e.rubric.map((l, i) => (i ? l : { ...l, points: 1 })) }, /gave \d+ points and gives 1 point\./],
    [{ sheet: { ...e.sheet, notes: "" } }, /Sheet says beside the part/],
    [{ hints: ["Begin with the wall."] }, /there were 0, and are 1/],
    [{ start: { from: "own", number: "WS-04" } }, /start from/],
  ])("%j", (what, sentence) => {
    const list = changed(what);
    expect(list).toHaveLength(1);
    expect(list[0]).toMatch(sentence);
  });
});
