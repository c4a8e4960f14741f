import { longPart } from "@/demo/long-part";
import type { PartDocument } from "@/core/part/document";
import { circ, cut, part, poly, rect, revolve, sketch } from "@/core/part/testing/build";
import { openDraft } from "@/core/sheet/views/draft";
import type { Layout } from "@/core/sheet/layout/layout";
import { plansOf } from "@/core/sheet/views/plans";
import { drawSheet, layOut, layoutOf } from "@/core/sheet/sheet";
import { pdfOf } from "@/server/files/sheet-files";
import { sizesOf } from "@/core/sizes/sizes";
import { openNodeKernel } from "@/worker/kernel";
import { demoExercises, solidExercises } from "./demo-parts";
import { figure } from "./figures";
import { quantile, timed, type Bench } from "./measure";

/** A shaft with shoulders, a keyway and a hole across. */
const shaft = (): PartDocument =>
  part(
    sketch(
      "s",
      "front",
      poly([
        [0, 0],
        [8, 0],
        [9, 1],
        [9, 20],
        [14, 20],
        [14, 60],
        [11, 60],
        [11, 63],
        [12, 63],
        [12, 95],
        [11, 96],
        [11, 120],
        [0, 120],
      ]),
    ),
    revolve("r", "s"),
    sketch("k", { base: "right", offset: 10 }, rect(-3, 28, 3, 52)),
    cut("key", "k", 10),
    sketch("c", "front", circ(0, 108, 3)),
    cut("cross", "c", "through"),
  );

const FOUR: Layout["views"] = ["front", "top", "left", "pictorial"].map((name) => ({
  key: name,
  look: { from: "planned" as const, name },
}));
const SECTION: Layout["views"][number] = {
  key: "b",
  letter: "B",
  look: { from: "section", of: "top", line: [[-1000, 1], [1000, 1]] }, // prettier-ignore
};

export const sheetBench: Bench = async (bench) => {
  const kernel = await openNodeKernel();
  const median = async (name: string, metric: string, work: () => unknown, times = 7) =>
    figure(bench, name, metric, quantile(await timed(times, work, 1), 0.5), "ms");
  for (const [name, document] of [
    ["station-frame, 204 faces", longPart()],
    ["shaft with keyway and cross hole", shaft()],
  ] as const) {
    const open = () => {
      const r = openDraft(kernel, document, document.units);
      if (!r.ok) throw new Error(r.refusal.sentence);
      return r.value;
    };
    await median(
      name,
      "four views and a section",
      () => {
        const draft = open();
        draft.views(plansOf(draft.model, [...FOUR, SECTION], []));
        draft.close();
      },
      5,
    );
  }
  for (const [name, e] of [...demoExercises(), ...solidExercises()]) {
    const found = sizesOf(kernel, e.reference);
    const sizes = found.ok ? found.value.sizes : [];
    const first = drawSheet(kernel, { ...e, sizes });
    const draft = openDraft(kernel, e.reference, e.units);
    if (!first.ok || !draft.ok) throw new Error(`${name} cannot be drawn`);
    const { paper } = first.value.composition;
    const sheet = {
      ...e.sheet,
      layout: layoutOf(first.value.composition),
      paper: { name: paper.name, isLying: paper.isLying },
    };
    await median(name, "laid out", () => drawSheet(kernel, { ...e, sizes }), 3);
    layOut(draft.value, { ...e, sizes, sheet });
    await median(name, "an edit", () => layOut(draft.value, { ...e, sizes, sheet }));
    await median(name, "PDF", () => pdfOf([first.value.drawing]));
    draft.value.close();
  }
};
