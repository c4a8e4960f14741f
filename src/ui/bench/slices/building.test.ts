import { expect, it, vi } from "vitest";
import { circ, extrude, part, rect, sketch } from "@/core/part/testing/build";
import type { PartDocument } from "@/core/part/document";
import type { Sketch } from "@/core/sketch/sketch";
import { startHistory } from "@/core/units/history";
import type { BuildListener } from "../kernel/client";
import type { Mode } from "../state";
import { building, NOTHING } from "./building";

const onTop: Sketch["plane"] = { base: "top", offset: 10 };
const base = part(
  sketch("sketch1", "top", rect(0, 0, 40, 20)),
  extrude("extrude1", "sketch1", 10),
  sketch("sketch2", onTop, circ(10, 10, 4)),
);

/** A Bench of which only the building is real; the test plays the kernel. */
function bench(mode: Mode) {
  let state = { history: startHistory<PartDocument>(base), mode, upTo: undefined, looking: { fineness: 1 } };
  let listener: BuildListener | undefined;
  const save = vi.fn();
  const rebuild = building({
    get: () => state as never,
    set: (s) => (state = { ...state, ...((typeof s === "function" ? s(state as never) : s) as object) }),
    document: () => state.history.present,
    kernel: { request: (_: unknown, l: BuildListener) => (listener = l) } as never,
    saver: { save } as never,
    remember: () => {},
  });
  rebuild();
  // the face that the second sketch lies on has gone up by five
  const [, , moved] = base.steps;
  const placed = moved?.kind === "sketch" ? { sketch2: { ...moved.sketch, plane: { ...onTop, offset: 15 } } } : {};
  listener!.settle({ ...NOTHING, placed } as never);
  const last = state.history.present.steps[2];
  return { save, plane: last?.kind === "sketch" ? last.sketch.plane : undefined };
}

it("a sketch on the part goes where the part has gone", () => {
  const { save, plane } = bench({ kind: "solid" });
  expect(plane).toEqual({ ...onTop, offset: 15 });
  expect(save).toHaveBeenCalledTimes(1);
});
it("what a card has not been accepted with moves nothing that is saved", () => {
  const draft = extrude("extrude1", "sketch1", 15);
  const { save, plane } = bench({ kind: "step", draft, fresh: false, at: 1, opening: 1, past: [], future: [] } as Mode);
  expect(plane).toEqual(onTop);
  expect(save).not.toHaveBeenCalled();
});
