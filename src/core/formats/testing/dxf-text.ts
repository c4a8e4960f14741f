import { idsFor } from "@/core/sketch/edit/rewire";
import { emptySketch, type Curve, type Sketch } from "@/core/sketch/sketch";
import { readDxf } from "../dxf-read";

export const empty = emptySketch("top");
export const read = (text: string) => {
  const r = readDxf(text, idsFor(empty));
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};
export const CURVES: Curve[] = [
  { id: "p1", kind: "point", at: [3, 4] },
  { id: "l1", kind: "line", start: [0, 0], end: [10, 2] },
  { id: "c1", kind: "circle", centre: [5, 5], radius: 3 },
  { id: "a1", kind: "arc", centre: [0, 0], start: [0, 10], end: [-10, 0] },
  { id: "e1", kind: "ellipse", centre: [1, 2], major: [9, 2], minor: [1, 7] },
  { id: "e2", kind: "ellipse-arc", centre: [1, 2], major: [5, 2], minor: [1, 10], start: [5, 2], end: [1, 10] },
  {
    id: "s1",
    kind: "spline",
    through: [
      [0, 0],
      [10, 5],
      [20, 0],
      [25, 8],
    ],
    knots: [0, 1, 2.5, 3],
  },
];
export const sketch: Sketch = { ...empty, curves: CURVES };
export const pairs = (...rows: (string | number)[]) => `${rows.join("\n")}\n`;
export const wrapped = (...rows: (string | number)[]) =>
  pairs(0, "SECTION", 2, "ENTITIES", ...rows, 0, "ENDSEC", 0, "EOF");
