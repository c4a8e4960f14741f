import { COINCIDENT } from "@/core/geometry/tolerance";
import { headingAt, segmentLength, stretch, type Segment } from "@/core/geometry/segment";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { segmentOf } from "../curves/registry";
import type { Arc, Curve, Line } from "../curves/schema";
import { curveOf, pointAt, typeOf, type Constraint, type Dimension, type Relation, type Sketch } from "../sketch";
import { JOIN } from "../tolerance";
import { idsFor, pieceOf, rewired } from "./rewire";

/** The two curve ends that meet at a corner: references. */
export function cornerEnds(sketch: Sketch, ref: string): [string, string] | undefined {
  const at = pointAt(sketch, ref);
  const ends = sketch.curves
    .filter((c) => (c.kind === "line" || c.kind === "arc") && !c.construction)
    .flatMap((c) => [`${c.id}.start`, `${c.id}.end`])
    .filter((r) => distance2(pointAt(sketch, r), at) <= 10 * JOIN);
  return ends.length === 2 && curveOf(ends[0]!) !== curveOf(ends[1]!) ? (ends as [string, string]) : undefined;
}

const shapeOf = (sketch: Sketch, end: string): Segment => segmentOf(sketch.curves.find((c) => c.id === curveOf(end))!)!;
/** Direction away from the corner along a curve. */
function away(s: Segment, end: string): Vec2 {
  const atEnd = end.endsWith(".end"),
    [h] = headingAt(s, atEnd ? 1 : 0),
    t = atEnd ? h + Math.PI : h;
  return [Math.cos(t), Math.sin(t)];
}

/**
 * Rounds corners, or cuts them off. The theoretical corner stays as a point for dimensions to hang on. Corners done in
 * one go share a value: the first is typed, the others repeat it by name and can be given their own.
 * @param corners references to points where two lines or arcs end @param size radius, or how far along each line, mm
 * @param value the size as typed, for the dimension
 */
export function corner(
  sketch: Sketch,
  kind: "fillet" | "chamfer",
  corners: readonly string[],
  size: number,
  value: number | string,
): Outcome<Sketch> {
  let next = sketch,
    first: string | undefined;
  const seen = new Set<string>();
  for (const ref of corners) {
    if (typeOf(next, ref) !== "point")
      return refuse("not-a-corner", "Pick corners: points where two lines or arcs meet.", [ref]);
    const ends = cornerEnds(next, ref);
    if (!ends) {
      if (seen.has(pointAt(next, ref).join())) continue;
      return refuse("not-a-corner", "A corner is where just two lines or arcs meet.", [ref]);
    }
    const at = pointAt(next, ref);
    seen.add(at.join());
    const r = oneCorner(next, kind, ends, at, size, first === undefined ? value : `=${first}`);
    if (!r.ok) return r;
    next = r.value.sketch;
    first ??= r.value.dimension;
  }
  return done(next);
}

function oneCorner(
  sketch: Sketch,
  kind: "fillet" | "chamfer",
  [p, q]: [string, string],
  at: Vec2,
  size: number,
  value: number | string,
): Outcome<{ sketch: Sketch; dimension: string }> {
  const [sp, sq] = [shapeOf(sketch, p), shapeOf(sketch, q)],
    u = away(sp, p),
    v = away(sq, q);
  const turn = Math.acos(Math.max(-1, Math.min(1, u[0] * v[0] + u[1] * v[1])));
  if (turn > Math.PI - COINCIDENT || turn < COINCIDENT)
    return refuse("no-corner", "The two run on smoothly here; there is no corner to work on.", [p, q]);
  if (kind === "chamfer" && (sp.kind !== "line" || sq.kind !== "line"))
    return refuse("not-lines", "Only a corner of two lines can be cut off.", [p, q]);
  const setback = kind === "fillet" ? size / Math.tan(turn / 2) : size;
  const room = Math.min(segmentLength(sp), segmentLength(sq));
  if (setback >= room)
    return refuse(
      "too-large",
      "There is room for at most " +
        `${Number((kind === "fillet" ? room * Math.tan(turn / 2) : room).toPrecision(4))} mm here.`,
      [p, q],
    );
  const ids = idsFor(sketch),
    point = ids("p");
  const share = (s: Segment, end: string) =>
    end.endsWith(".end") ? stretch(s, 0, 1 - setback / segmentLength(s)) : stretch(s, setback / segmentLength(s), 1);
  const cut = new Map(
    (
      [
        [p, sp],
        [q, sq],
      ] as const
    ).map(([end, s]) => {
      const c = sketch.curves.find((k) => k.id === curveOf(end))!;
      return [c.id, pieceOf(c, share(s, end), c.id)];
    }),
  );
  const kept = withoutCorner(sketch, [p, q], point);
  const curves = sketch.curves.map((c) => cut.get(c.id) ?? c);
  const placed = { ...sketch, curves };
  const between: Between = { ends: [p, q], point, from: pointAt(placed, p), to: pointAt(placed, q), value };
  const onSides = [p, q].map((end): Constraint => ({
    id: ids("k"),
    kind: "point-on-curve",
    of: [point, curveOf(end)],
  }));
  const made = kind === "chamfer" ? bevel(between, ids) : rounding(between, arcCentre(at, u, v, turn, size), ids);
  const mark: Curve = { id: point, kind: "point", at: [at[0], at[1]], construction: true };
  return done({
    sketch: {
      ...kept,
      curves: [...curves, mark, made.curve],
      constraints: [...kept.constraints, ...onSides, ...made.ties],
      dimensions: [...kept.dimensions, ...made.sizes],
    },
    dimension: made.sizes[0]!.id,
  });
}

/**
 * What hung on the corner hangs on the point that keeps its place; a length there is now taken to the corner, and equal
 * lengths, which spoke of whole sides, go.
 */
function withoutCorner(sketch: Sketch, [p, q]: readonly [string, string], point: string): Sketch {
  const touching = [curveOf(p), curveOf(q)];
  const isJoin = (r: Relation) => r.kind === "coincident" && r.of.includes(p) && r.of.includes(q);
  const kept = rewired({ ...sketch, constraints: sketch.constraints.filter((r) => !isJoin(r)) }, (ref) =>
    ref === p || ref === q ? point : ref,
  ).sketch;
  const far = (id: string) => ((curveOf(p) === id ? p : q).endsWith(".end") ? `${id}.start` : `${id}.end`);
  const dimensions = kept.dimensions.map((d): Dimension =>
    d.kind === "length" && touching.includes(d.of[0]!) ? { ...d, kind: "distance", of: [far(d.of[0]!), point] } : d,
  );
  const isOfSide = (r: Relation) =>
    r.kind === "equal" && r.of.some((o) => touching.includes(o) && typeOf(sketch, o) === "line");
  return { ...kept, constraints: kept.constraints.filter((r) => !isOfSide(r)), dimensions };
}

/** Two sides that were cut back, and the point where their corner was. */
interface Between {
  readonly ends: readonly [string, string];
  readonly point: string;
  readonly from: Vec2;
  readonly to: Vec2;
  readonly value: number | string;
}
interface Joined {
  readonly curve: Curve;
  readonly ties: readonly Constraint[];
  readonly sizes: readonly Dimension[];
}
type Ids = ReturnType<typeof idsFor>;

/** Centre of the arc that touches both sides: on the bisector of their directions u and v. */
function arcCentre(at: Vec2, u: Vec2, v: Vec2, turn: number, radius: number): [number, number] {
  const away = radius / Math.sin(turn / 2),
    both = Math.hypot(u[0] + v[0], u[1] + v[1]);
  return [at[0] + ((u[0] + v[0]) / both) * away, at[1] + ((u[1] + v[1]) / both) * away];
}

function rounding({ ends: [p, q], from, to, value }: Between, centre: [number, number], ids: Ids): Joined {
  // the arc runs counter-clockwise the short way
  const ccw = (from[0] - centre[0]) * (to[1] - centre[1]) - (from[1] - centre[1]) * (to[0] - centre[0]) > 0;
  const [start, end] = ccw ? [from, to] : [to, from];
  const arc: Arc = { id: ids("a"), kind: "arc", centre, start: [start[0], start[1]], end: [end[0], end[1]] };
  const tie = (kind: Constraint["kind"], ...of: string[]): Constraint => ({ id: ids("k"), kind, of });
  return {
    curve: arc,
    ties: [
      tie("coincident", p, `${arc.id}.${ccw ? "start" : "end"}`),
      tie("coincident", q, `${arc.id}.${ccw ? "end" : "start"}`),
      tie("tangent", curveOf(p), arc.id),
      tie("tangent", curveOf(q), arc.id),
    ],
    sizes: [{ id: ids("m"), kind: "radius", of: [arc.id], value }],
  };
}

function bevel({ ends: [p, q], point, from, to, value }: Between, ids: Ids): Joined {
  const line: Line = { id: ids("l"), kind: "line", start: [from[0], from[1]], end: [to[0], to[1]] };
  const tie = (end: string, on: string): Constraint => ({ id: ids("k"), kind: "coincident", of: [end, on] });
  const first = ids("m");
  return {
    curve: line,
    ties: [tie(p, `${line.id}.start`), tie(q, `${line.id}.end`)],
    sizes: [
      { id: first, kind: "distance", of: [point, `${line.id}.start`], value },
      { id: ids("m"), kind: "distance", of: [point, `${line.id}.end`], value: `=${first}` },
    ],
  };
}
