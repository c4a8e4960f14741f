import { expect, it } from "vitest";
import { circ, extrude, part, sketch } from "@/core/part/testing/build";
import { choiceOf, unusedRegions } from "./regions";

/** Three circles about one place: a disc, a ring about it, a ring about that. */
const rings = sketch("s", "top", circ(0, 0, 30, "c1"), circ(0, 0, 20, "c2"), circ(0, 0, 10, "c3"));
const taken = (d: ReturnType<typeof part>, regions?: readonly string[]) =>
  [...(choiceOf({ sketch: "s", ...(regions && { regions: [...regions] }) }, d)?.taken ?? [])].map((r) =>
    Math.round(r.area / Math.PI),
  );

it("a first step leaves the choice open: what lies in no hole is taken", () => {
  const d = part(rings);
  expect(unusedRegions("s", d.steps, "mm")).toEqual({});
  expect(taken(d).sort((a, b) => a - b)).toEqual([100, 500]);
});
it("a second step begins with what no step before has taken", () => {
  const d = part(rings, extrude("e1", "s", 5));
  expect(taken(d, unusedRegions("s", d.steps, "mm").regions)).toEqual([300]);
});
it("what a step names is used, a suppressed step uses nothing; all used, the choice is open", () => {
  const d = part(rings);
  const [inner] = choiceOf({ sketch: "s" }, d)!.regions.filter((r) => Math.round(r.area / Math.PI) === 100);
  const one = extrude("e1", "s", 5, { regions: [inner!.identity] });
  const left = (...steps: (typeof one)[]) => unusedRegions("s", [rings, ...steps], "mm").regions;
  expect(taken(d, left(one)).sort((a, b) => a - b)).toEqual([300, 500]);
  expect(left({ ...one, suppressed: true })).toBeUndefined();
  const rest = extrude("e2", "s", 5, { regions: [...left(one)!] });
  expect(left(one, rest)).toBeUndefined();
});
