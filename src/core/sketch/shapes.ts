import type { Vec2 } from "@/core/geometry/vector";
import type { SketchCommand } from "./command-schema";
import { idsFor } from "./edit/rewire";
import type { Circle, Constraint, Line, Sketch } from "./sketch";

type Draw = Extract<SketchCommand, { do: "draw" }>;

/** Hands out ids the sketch does not use, one after the other. */
export const idSource = idsFor;

/**
 * A rectangle from corner to corner: four lines (bottom, right, top, left as drawn) held together, level and upright.
 */
export function rectangle(sketch: Sketch, a: Vec2, b: Vec2, id = idSource(sketch)): Draw {
  const corners: Vec2[] = [a, [b[0], a[1]], b, [a[0], b[1]]];
  const names = corners.map(() => id("l"));
  const curves = corners.map((p, i): Line => ({
    id: names[i]!,
    kind: "line",
    start: [...p] as [number, number],
    end: [...corners[(i + 1) % 4]!] as [number, number],
  }));
  const constraints = names.flatMap((n, i): Constraint[] => [
    { id: id("k"), kind: "coincident", of: [`${n}.end`, `${names[(i + 1) % 4]!}.start`] },
    { id: id("k"), kind: i % 2 ? "vertical" : "horizontal", of: [n] },
  ]);
  return { do: "draw", curves, constraints };
}

/** A chain of lines through the points, ends held together; closed when asked. */
export function polyline(sketch: Sketch, points: readonly Vec2[], closed: boolean, id = idSource(sketch)): Draw {
  const n = closed ? points.length : points.length - 1;
  const curves = Array.from({ length: n }, (_, i): Line => ({
    id: id("l"),
    kind: "line",
    start: [...points[i]!] as [number, number],
    end: [...points[(i + 1) % points.length]!] as [number, number],
  }));
  const constraints = curves.flatMap((c, i): Constraint[] => {
    const next = curves[i + 1] ?? (closed ? curves[0] : undefined);
    return next ? [{ id: id("k"), kind: "coincident", of: [`${c.id}.end`, `${next.id}.start`] }] : [];
  });
  return { do: "draw", curves, constraints };
}

export function circle(sketch: Sketch, centre: Vec2, radius: number, id = idSource(sketch)): Draw {
  const c: Circle = { id: id("c"), kind: "circle", centre: [centre[0], centre[1]], radius };
  return { do: "draw", curves: [c], constraints: [] };
}
