import { UNSEEN } from "../../tolerance";
import { COINCIDENT, TINY } from "@/core/geometry/tolerance";
import type { Vec2 } from "@/core/geometry/vector";
import type { Constraint, Curve, Line } from "@/core/sketch/sketch";
import { asideBy, atSize, beside, gap, heading, own } from "./places";
import type { Shape, Size } from "./shape";

const width: Size = { label: "width", quantity: "length", measure: ([a, b]) => (a && b ? Math.abs(b[0] - a[0]) : 0) };
const height: Size = { label: "height", quantity: "length", measure: ([a, b]) => (a && b ? Math.abs(b[1] - a[1]) : 0) };
const sign = (v: number) => (v < 0 ? -1 : 1);

/** Four lines joined at their corners, the first from corner 0 to 1. */
function outline(
  corners: readonly Vec2[],
  id: (letter: string) => string,
  ties: readonly Constraint["kind"][],
): { lines: Line[]; constraints: Constraint[] } {
  const lines = corners.map((p, i): Line => ({
    id: id("l"),
    kind: "line",
    start: own(p),
    end: own(corners[(i + 1) % 4]!),
  }));
  const constraints = lines.flatMap((curve, i): Constraint[] => [
    { id: id("k"), kind: "coincident", of: [`${curve.id}.end`, `${lines[(i + 1) % 4]!.id}.start`] },
    ...(ties[i]
      ? [
          {
            id: id("k"),
            kind: ties[i],
            of: ties[i] === "perpendicular" ? [lines[i]!.id, lines[(i + 1) % 4]!.id] : [curve.id],
          },
        ]
      : []),
  ]);
  return { lines, constraints };
}
const LEVEL: readonly Constraint["kind"][] = ["horizontal", "vertical", "horizontal", "vertical"];
const thin = (a: Vec2, b: Vec2) =>
  Math.min(Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1])) <
  UNSEEN * Math.max(Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1])) + TINY;

/** From corner to opposite corner. */
export const cornerRectangle: Shape = {
  name: "Rectangle",
  asks: ["click one corner", "click the opposite corner"],
  sizes: [[], [width, height]],
  meet: ([a, b], [w, h]) => [
    w === undefined ? b![0] : a![0] + sign(b![0] - a![0]) * w,
    h === undefined ? b![1] : a![1] + sign(b![1] - a![1]) * h,
  ],
  make([a, b], id) {
    if (!a || !b || thin(a, b)) return undefined;
    const { lines, constraints } = outline([a, [b[0], a[1]], b, [a[0], b[1]]], id, LEVEL);
    return {
      curves: lines,
      constraints,
      anchors: [`${lines[0]!.id}.start`, `${lines[2]!.id}.start`],
      sizes: [
        { kind: "length", of: [lines[0]!.id] },
        { kind: "length", of: [lines[1]!.id] },
      ],
    };
  },
};

/** From its middle to a corner; a diagonal holds the middle. */
export const centreRectangle: Shape = {
  name: "Rectangle about its middle",
  asks: ["click its middle", "click a corner"],
  sizes: [
    [],
    [
      { ...width, measure: (p) => 2 * width.measure(p) },
      { ...height, measure: (p) => 2 * height.measure(p) },
    ],
  ],
  meet: ([a, b], [w, h]) => [
    w === undefined ? b![0] : a![0] + (sign(b![0] - a![0]) * w) / 2,
    h === undefined ? b![1] : a![1] + (sign(b![1] - a![1]) * h) / 2,
  ],
  make([c, b], id) {
    if (!c || !b || thin(c, b)) return undefined;
    const a: Vec2 = [2 * c[0] - b[0], 2 * c[1] - b[1]];
    const { lines, constraints } = outline([a, [b[0], a[1]], b, [a[0], b[1]]], id, LEVEL);
    const diagonal: Line = { id: id("l"), kind: "line", start: own(a), end: own(b), construction: true },
      middle: Curve = { id: id("p"), kind: "point", at: own(c), construction: true };
    const tie = (kind: Constraint["kind"], ...of: string[]): Constraint => ({ id: id("k"), kind, of });
    const ties = [
      tie("coincident", `${diagonal.id}.start`, `${lines[0]!.id}.start`),
      tie("coincident", `${diagonal.id}.end`, `${lines[2]!.id}.start`),
      tie("midpoint", middle.id, diagonal.id),
    ];
    return {
      curves: [...lines, diagonal, middle],
      constraints: [...constraints, ...ties],
      anchors: [middle.id, `${lines[2]!.id}.start`],
      sizes: [
        { kind: "length", of: [lines[0]!.id] },
        { kind: "length", of: [lines[1]!.id] },
      ],
    };
  },
};

/** One side, then how far it reaches. */
export const threePointRectangle: Shape = {
  name: "Slanting rectangle",
  asks: ["click one corner", "click the end of its first side", "click how far it reaches"],
  sizes: [
    [],
    [gap("side", 0, 1)],
    [{ label: "height", quantity: "length", measure: ([a, b, p]) => (a && b && p ? Math.abs(beside(a, b, p)) : 0) }],
  ],
  meet: (p, [d]) =>
    p.length === 2 ? atSize(p[0]!, p[1]!, d, undefined) : d === undefined ? p[2]! : asideBy(p[0]!, p[1]!, p[2]!, d),
  make([a, b, p], id) {
    if (!a || !b || !p) return undefined;
    const d = beside(a, b, p),
      t = heading(a, b),
      n: Vec2 = [-Math.sin(t) * d, Math.cos(t) * d];
    if (Math.abs(d) < COINCIDENT) return undefined;
    const { lines, constraints } = outline([a, b, [b[0] + n[0], b[1] + n[1]], [a[0] + n[0], a[1] + n[1]]], id, [
      "perpendicular",
      "perpendicular",
      "perpendicular",
    ]);
    return {
      curves: lines,
      constraints,
      anchors: [`${lines[0]!.id}.start`, `${lines[0]!.id}.end`, undefined],
      sizes: [
        { kind: "length", of: [lines[0]!.id] },
        { kind: "length", of: [lines[1]!.id] },
      ],
    };
  },
};
