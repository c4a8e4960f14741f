import { beforeAll, describe, expect, it } from "vitest";
import { newExercise } from "@/core/check/exercise/exercise";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { cut, part, poly, rect, revolve, sketch } from "@/core/part/testing/build";
import { withSketchesDefined } from "@/core/sizes/numbers";
import { sizesOf } from "@/core/sizes/sizes";
import { openNodeKernel } from "@/worker/kernel";
import { layOut, layoutOf, type DrawnSheet } from "../sheet";
import { openDraft } from "./draft";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

type Step = PartDocument["steps"][number];
/** A shaft ⌀30 × 30, then ⌀20 up to 80. */
const shaft = (...more: Step[]): PartDocument => {
  const profile = [
    [0, 0],
    [15, 0],
    [15, 30],
    [10, 30],
    [10, 80],
    [0, 80],
  ] as const;
  return part(sketch("s", "front", poly(profile.map(([x, y]) => [x, y]))), revolve("r", "s"), ...more);
};
/** A keyway, its floor so far from the axis, from one height to another. */
const keyway = (id: string, floor: number, from: number, to: number, wide = 6): Step[] => [
  sketch(`${id}s`, { base: "right", offset: floor }, rect(-wide / 2, from, wide / 2, to)),
  cut(id, `${id}s`, 30),
];

/** Twice: as the program chooses, and again from the arrangement that was kept of it. */
function drawnTwice(document: PartDocument): DrawnSheet[] {
  const defined = withSketchesDefined(document),
    found = sizesOf(kernel, defined),
    draft = openDraft(kernel, defined, "mm");
  if (!found.ok || !draft.ok) throw new Error("this cannot be drawn");
  const subject = { ...newExercise(), sizes: found.value.sizes };
  const first = layOut(draft.value, subject);
  const layout = layoutOf(first.composition);
  const again = layOut(draft.value, { ...subject, sheet: { ...subject.sheet, layout } });
  draft.value.close();
  return [first, again];
}

/** What stands in each view, by its letter or else its name. */
const toldIn = ({ composition }: DrawnSheet): Record<string, string[]> =>
  Object.fromEntries(
    composition.views
      .filter((s) => s.placed.length)
      .map(({ view, placed }) => [
        view.letter ?? view.name,
        placed.flatMap((p) => p.item.lines.map((l) => l.text)).sort(),
      ]),
  );

describe("a shaft with a keyway", () => {
  it.each<[string, Step[], Record<string, string[]>]>([
    [
      "that reaches neither end: a section across shows it",
      keyway("k", 6, 45, 65),
      { long: ["20", "45", "50", "80", "⌀20", "⌀30"], A: ["3", "6", "6"] },
    ],
    [
      "that reaches the end: the view along the axis shows it",
      keyway("k", 6, 60, 80),
      { long: ["50", "60", "80", "⌀20", "⌀30"], start: ["3", "6", "6"] },
    ],
    [
      "and another of another depth: a section through each",
      [...keyway("k", 6, 35, 50), ...keyway("l", 7, 55, 70, 4)],
      {
        long: ["15", "15", "35", "50", "55", "80", "⌀20", "⌀30"],
        A: ["3", "6", "6"],
        B: ["2", "4", "7"],
      },
    ],
  ])("%s", (_, steps, want) => {
    expect(drawnTwice(shaft(...steps)).map(toldIn)).toEqual([want, want]);
  });
});
