import type { Vec2 } from "@/core/geometry/vector";
import type { Curve, Plane } from "@/core/sketch/sketch";
import { emptyPart, type PartDocument } from "../document";
import type { Parameter } from "../parameters";
import type { EdgeRef, FaceRef } from "@/core/naming/reference";
import type { Step } from "../steps/kinds";

/** Parts for tests, written in few words: sketches stand where they are drawn, with nothing to solve. */
export function part(...steps: Step[]): PartDocument {
  return { ...emptyPart("test part", "mm", { name: "Steel S235", density: 7.85 }), steps };
}
export const withParameters = (d: PartDocument, ...parameters: Parameter[]): PartDocument => ({ ...d, parameters });

type Base = "front" | "top" | "right";
export const sketch = (id: string, plane: Base | Plane, ...curves: Curve[][]): Step => ({
  id,
  kind: "sketch",
  sketch: {
    plane: typeof plane === "string" ? { base: plane } : plane,
    curves: curves.flat(),
    constraints: [],
    dimensions: [],
  },
});

/** A closed chain of lines: names are `name` and numbers from 1. */
export const poly = (points: readonly Vec2[], name = "l"): Curve[] =>
  points.map((p, i): Curve => {
    const q = points[(i + 1) % points.length]!;
    return { id: `${name}${i + 1}`, kind: "line", start: [p[0], p[1]], end: [q[0], q[1]] };
  });
/** l1 below, l2 right, l3 above, l4 left. */
export const rect = (x0: number, y0: number, x1: number, y1: number, name = "l"): Curve[] =>
  poly(
    [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ],
    name,
  );
export const circ = (x: number, y: number, radius: number, id = "c1"): Curve[] => [
  { id, kind: "circle", centre: [x, y], radius },
];
export const arc = (id: string, centre: [number, number], start: [number, number], end: [number, number]): Curve => ({
  id,
  kind: "arc",
  centre,
  start,
  end,
});
export const line = (
  id: string,
  start: [number, number],
  end: [number, number],
  construction?: "centre-line",
): Curve => ({ id, kind: "line", start, end, ...(construction && { construction }) });
export const dot = (id: string, x: number, y: number): Curve => ({ id, kind: "point", at: [x, y] });

type Of<K extends Step["kind"]> = Extract<Step, { kind: K }>;
type Rest<K extends Step["kind"]> = Partial<Omit<Of<K>, "id" | "kind">>;
export const extrude = (id: string, from: string, depth: number | string, more: Rest<"extrude"> = {}): Step => ({
  id,
  kind: "extrude",
  sketch: from,
  operation: "add",
  extent: { kind: "depth", depth },
  ...more,
});
export const cut = (
  id: string,
  from: string,
  depth: number | string | "through",
  more: Rest<"extrude"> = {},
): Step => ({
  id,
  kind: "extrude",
  sketch: from,
  operation: "cut",
  extent: depth === "through" ? { kind: "through" } : { kind: "depth", depth },
  ...more,
});
export const revolve = (id: string, from: string, more: Rest<"revolve"> = {}): Step => ({
  id,
  kind: "revolve",
  sketch: from,
  operation: "add",
  about: { sketch: from, curve: "y-axis" },
  turn: { kind: "whole" },
  ...more,
});
export const hole = (
  id: string,
  on: FaceRef,
  diameter: number | string,
  at: readonly Vec2[],
  more: Rest<"hole"> = {},
): Step => ({
  id,
  kind: "hole",
  on,
  diameter,
  points: at.map((p, i) => ({ id: `p${i + 1}`, at: [p[0], p[1]] })),
  head: { kind: "plain" },
  extent: { kind: "through" },
  ...more,
});
export const face = (key: string): FaceRef => ({ face: key });
export const edge = (a: string, b: string): EdgeRef => ({ edge: `${a}|${b}` });
const named = (list: readonly EdgeRef[]) => list.map((on, i) => ({ id: `e${i + 1}`, on }));
export const fillet = (id: string, radius: number | string, ...edges: EdgeRef[]): Step => ({
  id,
  kind: "fillet",
  groups: [{ radius, edges: named(edges) }],
});
export const chamfer = (
  id: string,
  size: number | Of<"chamfer">["groups"][number]["size"],
  ...edges: EdgeRef[]
): Step => ({
  id,
  kind: "chamfer",
  groups: [{ size: typeof size === "number" ? { kind: "equal", distance: size } : size, edges: named(edges) }],
});
export const shell = (id: string, thickness: number | string, open: string[], more: Rest<"shell"> = {}): Step => ({
  id,
  kind: "shell",
  thickness,
  open: open.map(face),
  ...more,
});
export const mirror = (id: string, about: Of<"mirror">["about"], steps?: string[]): Step => ({
  id,
  kind: "mirror",
  about,
  of: steps ? { steps } : { body: true },
});
export const row = (
  id: string,
  steps: string[],
  axis: "x" | "y" | "z",
  count: number,
  distance: number,
  more: Rest<"pattern"> & { second?: { axis: "x" | "y" | "z"; count: number; distance: number } } = {},
): Step => {
  const { second, ...rest } = more;
  const one = (a: string, n: number, d: number) => ({ along: { axis: a }, count: n, by: "step" as const, distance: d });
  return {
    id,
    kind: "pattern",
    of: { steps },
    way: {
      kind: "rows",
      first: one(axis, count, distance),
      ...(second && { second: one(second.axis, second.count, second.distance) }),
    },
    ...rest,
  };
};
export const ring = (id: string, steps: string[], count: number, more: Rest<"pattern"> = {}): Step => ({
  id,
  kind: "pattern",
  of: { steps },
  way: { kind: "ring", about: { axis: "z" }, count, by: "total", angle: 360 },
  ...more,
});
