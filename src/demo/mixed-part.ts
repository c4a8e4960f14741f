import { emptyPart } from "@/core/part/document";
import { solveSketch } from "@/core/sketch/solve";
import { mixed } from "@/core/sketch/testing/mixed";
import { STEEL } from "./parts";

/**
 * A part that is the mixed sketch alone, its width left out so that an edge can be dragged; printed as JSON for the
 * bench.
 */
const solved = solveSketch(mixed(0, 1, "width"), "mm");
if (!solved.ok) throw new Error(solved.refusal.sentence);
process.stdout.write(
  JSON.stringify({
    ...emptyPart("Mixed sketch", "mm", STEEL),
    steps: [{ id: "sketch1", kind: "sketch", sketch: solved.value.sketch }],
  }),
);
