import { ROUNDING } from "@/core/geometry/tolerance";
import type { Segment } from "@/core/geometry/segment";
import { segmentAt } from "@/core/geometry/segment";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import type { Curve } from "../curves/schema";
import { curveOf, isDimension, pointAt, pointsOf, type Constraint, type Relation, type Sketch } from "../sketch";
import { JOIN } from "../tolerance";

/** A sketch with ids to spare: hands out ones it does not use. */
export function idsFor(sketch: Sketch): (letter: string) => string {
  const used = new Set(
    [...sketch.curves, ...sketch.constraints, ...sketch.dimensions, ...(sketch.groups ?? [])].map((e) => e.id),
  );
  const next = new Map<string, number>();
  return (letter) => {
    let n = next.get(letter) ?? 1;
    while (used.has(`${letter}${n}`)) n++;
    next.set(letter, n + 1);
    used.add(`${letter}${n}`);
    return `${letter}${n}`;
  };
}

export const LETTER: Record<Curve["kind"], string> = {
  point: "p",
  line: "l",
  circle: "c",
  arc: "a",
  ellipse: "e",
  "ellipse-arc": "e",
  spline: "s",
};

/** Relations with other references; those for which `map` finds none are dropped. */
export function rewired(
  sketch: Sketch,
  map: (ref: string, r: Relation) => string | undefined,
): { sketch: Sketch; dropped: Relation[] } {
  const dropped: Relation[] = [];
  const pass = <R extends Relation>(list: readonly R[]): R[] =>
    list.flatMap((r) => {
      const of = r.of.map((ref) => map(ref, r));
      if (of.some((o) => o === undefined) || (of.length > 1 && of[0] === of[1])) {
        dropped.push(r);
        return [];
      }
      return of.every((o, i) => o === r.of[i]) ? [r] : [{ ...r, of: of as string[] }];
    });
  return { sketch: { ...sketch, constraints: pass(sketch.constraints), dimensions: pass(sketch.dimensions) }, dropped };
}

/** The stretch of a curve as a curve of its own; the exact same shape. */
export function pieceOf(template: Curve, s: Segment, id: string): Curve {
  const base = { id, ...(template.construction && { construction: template.construction }) };
  const own = (p: Vec2): [number, number] => [p[0], p[1]];
  switch (s.kind) {
    case "line":
      return { ...base, kind: "line", start: own(s.a), end: own(s.b) };
    case "arc": {
      const [from, to] = s.sweep > 0 ? [0, 1] : [1, 0];
      return {
        ...base,
        kind: "arc",
        centre: own(s.centre),
        start: own(segmentAt(s, from)),
        end: own(segmentAt(s, to)),
      };
    }
    case "ellipse":
      return {
        ...base,
        kind: "ellipse-arc",
        centre: own(s.centre),
        major: [s.centre[0] + s.major[0], s.centre[1] + s.major[1]],
        minor: [s.centre[0] + s.minor[0], s.centre[1] + s.minor[1]],
        start: own(segmentAt(s, 0)),
        end: own(segmentAt(s, 1)),
      };
    case "spline": {
      const { beziers } = s,
        knots = [0, 1];
      // spans follow from the slopes at the joints
      for (let i = 1; i < beziers.length; i++)
        knots.push(
          knots[i]! +
            ((knots[i]! - knots[i - 1]!) * distance2(beziers[i]![0], beziers[i]![1])) /
              (distance2(beziers[i - 1]![2], beziers[i - 1]![3]) || ROUNDING),
        );
      return {
        ...base,
        kind: "spline",
        through: [own(beziers[0]![0]), ...beziers.map((b) => own(b[3]))],
        knots,
        startHandle: own(beziers[0]![1]),
        endHandle: own(beziers[beziers.length - 1]![2]),
      };
    }
  }
}

/** What ties a new end to the curve it was made at: one point with an end there, or on the curve. */
export function tieTo(sketch: Sketch, point: string, at: Vec2, by: string, id: string): Constraint {
  const curve = sketch.curves.find((c) => c.id === by)!;
  const end = pointsOf(curve)
    .filter((ref) => /\.(start|end)$/.test(ref))
    .find((ref) => distance2(pointAt(sketch, ref), at) <= JOIN);
  return end ? { id, kind: "coincident", of: [point, end] } : { id, kind: "point-on-curve", of: [point, by] };
}

/** Relations that keep the two parts of one curve on it. */
export function sameCarrier(a: Curve, b: Curve, id: () => string): Constraint[] {
  const tie = (kind: Constraint["kind"], ...of: string[]): Constraint => ({ id: id(), kind, of });
  switch (a.kind) {
    case "line":
      return [tie("collinear", a.id, b.id)];
    case "arc":
      return [tie("concentric", a.id, b.id), tie("equal", a.id, b.id)];
    case "ellipse-arc":
      return ["centre", "major", "minor"].map((p) => tie("coincident", `${a.id}.${p}`, `${b.id}.${p}`));
    default:
      return [];
  }
}

/** Which relations hold of the whole extent of a curve, and lose their meaning when it is cut. */
export const ofExtent = (r: Relation): boolean =>
  ["length", "arc-length", "midpoint", "symmetric"].includes(r.kind) || r.kind === "equal";

/** Relations that mention a curve. */
export const mentions = (r: Relation, id: string): boolean => r.of.some((ref) => curveOf(ref) === id);

const WORDS: Partial<Record<Relation["kind"], string>> = { "point-on-curve": "on curve" };
/** "It dropped 2 relations: length, coincident." */
export function droppedSentence(dropped: readonly Relation[]): string | undefined {
  if (!dropped.length) return undefined;
  const named = dropped.slice(0, 4).map((r) => `${WORDS[r.kind] ?? r.kind.replaceAll("-", " ")}`);
  const what = dropped.every(isDimension) ? "dimension" : dropped.some(isDimension) ? "relation" : "constraint";
  const more = dropped.length > 4 ? ` and ${dropped.length - 4} more` : "";
  const many = dropped.length > 1 ? "s" : "";
  return `Dropped ${dropped.length} ${what}${many} that no longer made sense: ${named.join(", ")}${more}.`;
}

/** Without some curves and everything that speaks of them. */
export function without(sketch: Sketch, ids: ReadonlySet<string>): { sketch: Sketch; dropped: Relation[] } {
  const r = rewired(sketch, (ref) => (ids.has(curveOf(ref)) ? undefined : ref));
  const groups = sketch.groups
    ?.filter((g) => !g.source.some((c) => ids.has(c)))
    .map((g) => ({ ...g, made: g.made.filter((c) => !ids.has(c)) }))
    .filter((g) => g.made.length);
  const { groups: _, ...rest } = r.sketch;
  return {
    sketch: { ...rest, curves: sketch.curves.filter((c) => !ids.has(c.id)), ...(groups?.length && { groups }) },
    dropped: r.dropped,
  };
}
