import { COLLAPSED, JOIN, STILL } from "./tolerance";
import { headingAt } from "@/core/geometry/segment";
import { cross2, distance2, sub2, type Vec2 } from "@/core/geometry/vector";
import { plainNumber, inUnit, type LengthUnit } from "@/core/units/quantity";
import { segmentOf } from "./curves/registry";
import { relationText } from "./sentences";
import {
  curveOf,
  isDimension,
  pointAt,
  pointsOf,
  type Constraint,
  type Curve,
  type Dimension,
  type Sketch,
} from "./sketch";
import { quantityOf } from "./sketch";
import { measureDimension, solveSketch, type Diagnosis } from "./solve";
import { referenceFault } from "./reference-fault";

type NewConstraint = Omit<Constraint, "id">;
export type NewDimension = Omit<Dimension, "id">;
export interface Proposal {
  readonly relation: NewConstraint | NewDimension;
  /** How it reads. */
  readonly text: string;
  /** Freedoms it takes. */
  readonly takes: number;
}

/** Directions this near (radians) to level, upright or tangent are meant to be so. */
const NEARLY = (2 * Math.PI) / 180;
/** A corner within this share of the sketch's size of the origin is meant to stand on it. */
const AT_ORIGIN = 0.03;
/** So many solves at most are spent on looking. */
const TRIES = 600;

/**
 * Proposes relations and sizes for what is loose, in the order of a draughtsman: first ends that lie on each other are
 * joined, then what stands on the origin, then level, upright and tangent, what lies on the axes, then sizes of round
 * things, then lengths, then places from the origin, angles last.
 * Each takes at least one freedom from what those before it left. Sizes are those of the sketch, rounded.
 */
export function defineTheRest(sketch: Sketch, unit: LengthUnit): Proposal[] {
  const look = (s: Sketch): Diagnosis | undefined => {
    const r = solveSketch(s, unit);
    return r.ok && r.value.solved ? r.value : undefined;
  };
  let now = look(sketch),
    current = sketch;
  const proposals: Proposal[] = [];
  let tries = 0;
  if (!now) return proposals;
  for (const candidate of candidates(now.sketch, unit)) {
    if (!now.freedoms || tries++ > TRIES) break;
    // what is pinned already needs nothing
    if (!candidate.of.some((ref) => now!.loose.includes(curveOf(ref)))) continue;
    const fresh = { ...candidate, id: "proposed" };
    if (referenceFault(current, [fresh])) continue;
    const id = `proposal-${proposals.length}`;
    const next: Sketch = isDimension(fresh)
      ? { ...current, dimensions: [...current.dimensions, { ...fresh, id }] }
      : { ...current, constraints: [...current.constraints, { ...fresh, id }] };
    const then = look(next);
    if (!then || then.freedoms >= now.freedoms || then.surplus.includes(id)) continue;
    proposals.push({
      relation: { ...candidate, proposed: true },
      text: relationText(fresh, unit, now.sketch),
      takes: now.freedoms - then.freedoms,
    });
    current = { ...next, curves: then.sketch.curves };
    now = then;
  }
  return proposals;
}

const sizeOf = (s: Sketch): number =>
  Math.max(COLLAPSED, ...s.curves.flatMap((c) => pointsOf(c).map((p) => Math.hypot(...pointAt(s, p)))));

function* candidates(s: Sketch, unit: LengthUnit): Generator<NewConstraint | NewDimension> {
  const size = sizeOf(s),
    real = s.curves.filter((c) => !c.construction),
    all = [...real, ...s.curves.filter((c) => c.construction)];
  const lines = all.filter((c): c is Extract<Curve, { kind: "line" }> => c.kind === "line");
  const round = all.filter((c) => c.kind === "circle" || c.kind === "arc");
  const points = all.flatMap(pointsOf).sort((a, b) => Math.hypot(...pointAt(s, a)) - Math.hypot(...pointAt(s, b)));
  const tie = (kind: Constraint["kind"], ...of: string[]): NewConstraint => ({ kind, of });
  const measure = (kind: Dimension["kind"], ...of: string[]): NewDimension[] => {
    const m = measureDimension(s, { kind, of });
    if (!(m > STILL * (quantityOf({ kind }) === "angle" ? 1 : size))) return [];
    const value =
      quantityOf({ kind }) === "angle"
        ? Number(((m * 180) / Math.PI).toFixed(2))
        : Number(plainNumber(inUnit(m, unit), unit === "mm" ? 2 : 3).replace(/\s/g, ""));
    return value > 0 ? [{ kind, of, value }] : [];
  };
  const ends = points.filter((p) => /\.(start|end)$/.test(p));
  for (const [i, p] of ends.entries())
    for (const q of ends.slice(i + 1)) {
      const isCorner = curveOf(p) !== curveOf(q) && distance2(pointAt(s, p), pointAt(s, q)) <= JOIN;
      if (isCorner) yield tie("coincident", p, q);
    }
  const first = points[0];
  if (first !== undefined && Math.hypot(...pointAt(s, first)) < AT_ORIGIN * size)
    yield tie("coincident", first, "origin");
  for (const p of points) {
    const [x, y] = pointAt(s, p);
    if (/\.centre$/.test(p) && Math.abs(y) < (AT_ORIGIN / 2) * size) yield tie("point-on-curve", p, "x-axis");
    if (/\.centre$/.test(p) && Math.abs(x) < (AT_ORIGIN / 2) * size) yield tie("point-on-curve", p, "y-axis");
  }
  for (const l of lines) {
    const u = sub2(l.end, l.start),
      t = Math.abs(Math.atan2(u[1], u[0]));
    if (Math.min(t, Math.PI - t) < NEARLY) yield tie("horizontal", l.id);
    else if (Math.abs(t - Math.PI / 2) < NEARLY) yield tie("vertical", l.id);
  }
  // ends that meet smoothly
  for (const [i, a] of all.entries())
    for (const b of all.slice(i + 1)) {
      const pair = a.kind === "line" ? [a, b] : [b, a];
      if (pair[1]!.kind !== "arc" || (pair[0]!.kind !== "line" && pair[0]!.kind !== "arc")) continue;
      for (const p of pointsOf(a))
        for (const q of pointsOf(b)) {
          if (
            !/\.(start|end)$/.test(p) ||
            !/\.(start|end)$/.test(q) ||
            distance2(pointAt(s, p), pointAt(s, q)) > STILL * size
          )
            continue;
          const direction = (c: Curve, ref: string): Vec2 => {
            const [h] = headingAt(segmentOf(c)!, ref.endsWith(".end") ? 1 : 0);
            return [Math.cos(h), Math.sin(h)];
          };
          if (Math.abs(cross2(direction(a, p), direction(b, q))) < Math.sin(NEARLY * 1.5))
            yield tie("tangent", pair[0]!.id, pair[1]!.id);
        }
    }
  // what lies on an axis is meant to
  for (const p of points)
    for (const [axis, at] of [
      ["y-axis", 0],
      ["x-axis", 1],
    ] as const)
      if (Math.abs(pointAt(s, p)[at]) <= STILL * size) yield tie("point-on-curve", p, axis);
  for (const c of round) yield* measure(c.kind === "circle" ? "diameter" : "radius", c.id);
  const byLength = [...lines].sort((a, b) => distance2(b.start, b.end) - distance2(a.start, a.end));
  for (const l of byLength) {
    const u = sub2(l.end, l.start),
      square = Math.min(Math.abs(u[0]), Math.abs(u[1])) < STILL * size;
    if (square) yield* measure("length", l.id);
  }
  for (const l of byLength) {
    yield* measure("horizontal-distance", `${l.id}.start`, `${l.id}.end`);
    yield* measure("vertical-distance", `${l.id}.start`, `${l.id}.end`);
  }
  for (const p of points) {
    yield* measure("horizontal-distance", "origin", p);
    yield* measure("vertical-distance", "origin", p);
  }
  for (const l of lines) yield* measure("angle", "x-axis", l.id);
  for (const c of all)
    if (c.kind === "ellipse" || c.kind === "ellipse-arc")
      for (const p of ["major", "minor"]) yield* measure("distance", `${c.id}.centre`, `${c.id}.${p}`);
}
