import { expect, it } from "vitest";
import { compareParts } from "./compare";
import { circ, cut, extrude, part, rect, sketch } from "./testing/build";

const plate = (h: number | string, ...more: ReturnType<typeof sketch | typeof cut>[]) =>
  part(sketch("s", "top", rect(0, 0, 40, 20)), extrude("b", "s", h as number), ...more);
const hole = (r: number) => [sketch("t", "top", circ(10, 10, r)), cut("c", "t", "through")] as const;

it("two versions of one part are told apart by steps and numbers", () => {
  expect(compareParts(plate(10), plate(10))).toEqual([]);
  const [changed, ...rest] = compareParts(plate(10), plate("12 mm"));
  expect(rest).toEqual([]);
  expect(changed).toMatchObject({ kind: "changed", called: "step 2, Extrude" });
  expect(changed!.numbers).toEqual([{ name: expect.any(String), first: "10", second: "12 mm" }]);
});
it("steps that stand in one of them only", () => {
  const added = compareParts(plate(10), plate(10, ...hole(4)));
  expect(added.map((d) => [d.kind, d.called.split(",")[0]])).toEqual([
    ["only-second", "step 3"],
    ["only-second", "step 4"],
  ]);
  expect(compareParts(plate(10, ...hole(4)), plate(10)).map((d) => d.kind)).toEqual(["only-first", "only-first"]);
});
it("a sketch drawn otherwise without another number says so", () =>
  expect(compareParts(plate(10, ...hole(4)), plate(10, ...hole(5)))).toMatchObject([
    { kind: "changed", called: expect.stringContaining("step 3"), numbers: [], otherwise: true },
  ]));
