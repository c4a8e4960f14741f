import { expect, it } from "vitest";
import type { AnyRef } from "@/core/naming/reference";
import { refText } from "./text";
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
