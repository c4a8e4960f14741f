import { expect, it } from "vitest";
import type { AnyRef } from "@/core/naming/reference";
import { refText, refTexts } from "./text";
import { begun, withStepsCalled } from "@/core/naming/words";

const steps = [{ id: "sketch1" }, { id: "extrude1" }, { id: "hole1" }, { id: "pattern1" }];
const circle = Array.from({ length: 9 }, (_, i): [number, number, number] => [
  5 * Math.cos((i * Math.PI) / 4),
  5 * Math.sin((i * Math.PI) / 4),
  0,
]);

it.each<[AnyRef, string]>([
  [{ face: "extrude1/end" }, "the end face of step 2"],
  [{ face: "extrude1/side/c1", kind: "cylinder" }, "the round side of step 2"],
  [{ face: "hole1/bottom/p1" }, "the floor of the hole of step 3"],
  [{ face: "pattern1/copy/3/hole1/bore/p1" }, "the copy 3, in step 4, of the wall of the hole of step 3"],
  [
    {
      edge: "extrude1/side/l1|extrude1/side/l2",
      kind: "line",
      at: [
        [0, 0, 0],
        [0, 0, 36],
      ],
    },
    "the upright edge, 36 mm, of step 2",
  ],
  [
    {
      edge: "extrude1/end|extrude1/side/l2",
      kind: "line",
      at: [
        [0, 0, 0],
        [3, 4, 0],
      ],
    },
    "the level edge, 5 mm, of step 2",
  ],
  [{ edge: "extrude1/end|hole1/bore/p1", kind: "circle", at: circle }, "the round edge, ⌀10 mm, of step 2 and step 3"],
  [{ edge: "extrude1/side/l1|extrude1/side/l2" }, "the edge between two sides of step 2"],
  [{ edge: "extrude1/end|gone/side/l1" }, "the edge between the end face of step 2 and the side of an earlier step"],
  [{ vertex: ["extrude1/end", "extrude1/side/l1"] }, "the corner of step 2"],
  [{ datum: "top" }, "the top plane"],
  [{ axis: "z" }, "the z axis"],
])("%j is called %s", (ref, called) => expect(withStepsCalled(refText(ref), steps)).toBe(called));

it("sentences begin with a capital and speak the document's unit", () =>
  expect(
    withStepsCalled(
      begun(
        refText(
          {
            edge: "extrude1/end|extrude1/side/l2",
            kind: "line",
            at: [
              [0, 0, 0],
              [25.4, 0, 0],
            ],
          },
          "in",
        ),
      ),
      steps,
    ),
  ).toBe("The level edge, 1 in, of step 2"));

it("an arc's radius has no digit that its places do not settle", () => {
  // R100 over 6°, its places kept to a micrometre
  const at = [-3, -1, 0, 1, 3].map((deg): [number, number, number] => {
    const a = (deg * Math.PI) / 180;
    return [100 * Math.sin(a), 100 * Math.cos(a), 0].map((v) => Math.round(v * 1000) / 1000) as never;
  });
  expect(refText({ edge: "e1/side/a1|e1/end", kind: "circle", at } as never)).toContain("arc, R 100 mm");
});
it("two rims called alike are told apart by where they lie, and so are three", () => {
  const rim = (z: number) => ({
    edge: `r1/side/l1|r1/side/l${z}`,
    kind: "circle",
    at: [0, 1, 2, 3, 4, 5, 6].map((i) => [30 * Math.cos((i * Math.PI) / 3), 30 * Math.sin((i * Math.PI) / 3), z]),
  });
  const called = (...zs: number[]) => refTexts(zs.map(rim) as never).map((t) => t.split(", ").at(-1));
  expect(called(40, 0)).toEqual(["the upper one", "the lower one"]);
  expect(called(40, 0, 20)).toEqual(["number 3 from below", "number 1 from below", "number 2 from below"]);
});
