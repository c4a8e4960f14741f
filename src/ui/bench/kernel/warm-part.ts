import { emptyPart, type PartDocument } from "@/core/part/document";
import type { Curve } from "@/core/sketch/sketch";

const corners = [
  [0, 0],
  [40, 0],
  [40, 30],
  [0, 30],
] as const;
const outline = corners.map((start, i): Curve => {
  const end = corners[(i + 1) % corners.length]!;
  return { id: `l${i + 1}`, kind: "line", start: [...start], end: [...end] };
});
const sketch = (curves: Curve[]) => ({ plane: { base: "top" as const }, curves, constraints: [], dimensions: [] });

/**
 * A part that nobody sees: a kernel that has built it once has compiled what most parts need, and builds the next in a
 * fraction of the time.
 */
export const WARM_PART: PartDocument = {
  ...emptyPart("", "mm", { name: "Steel", density: 7.85 }),
  steps: [
    {
      id: "s1",
      kind: "sketch",
      sketch: sketch([...outline, { id: "c1", kind: "circle", centre: [20, 15], radius: 6 }]),
    },
    { id: "e1", kind: "extrude", sketch: "s1", operation: "add", extent: { kind: "depth", depth: 10 } },
    {
      id: "f1",
      kind: "fillet",
      groups: [{ radius: 3, edges: [{ id: "e1", on: { edge: "e1/side/l1|e1/side/l2" } }] }],
    },
    {
      id: "h1",
      kind: "hole",
      on: { face: "e1/end" },
      points: [{ id: "p1", at: [8, 8] }],
      diameter: 4,
      head: { kind: "counterbore", diameter: 7, depth: 3 },
      extent: { kind: "through" },
    },
    { id: "s2", kind: "sketch", sketch: sketch([{ id: "c1", kind: "circle", centre: [20, 15], radius: 9 }]) },
    {
      id: "r1",
      kind: "extrude",
      sketch: "s2",
      operation: "add",
      extent: { kind: "depth", depth: 16 },
    },
    {
      id: "g1",
      kind: "chamfer",
      groups: [{ size: { kind: "equal", distance: 1 }, edges: [{ id: "e1", on: { edge: "r1/end|r1/side/c1" } }] }],
    },
  ],
};
