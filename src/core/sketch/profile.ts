import type { LengthUnit } from "@/core/units/quantity";
import { wordsFor } from "./words";
import { segmentAt, segmentBox } from "@/core/geometry/segment";
import { cross2, distance2, sub2, type Vec2 } from "@/core/geometry/vector";
import { segmentOf } from "./curves/registry";
import type { Gap, Outline } from "./regions";
import { lineThrough, type Sketch } from "./sketch";
import { JOIN, LEAVES_SQUARE, STUB } from "./tolerance";

/** Two loose ends that are meant to be one. */
export interface Closing {
  readonly ends: readonly [string, string];
  readonly distance: number;
}

/** The reference of the end of a curve that stands at a place. */
function endAt(sketch: Sketch, curve: string, at: Vec2): string | undefined {
  const c = sketch.curves.find((k) => k.id === curve),
    s = c && segmentOf(c);
  if (!s) return undefined;
  return distance2(segmentAt(s, 0), at) <= distance2(segmentAt(s, 1), at) ? `${curve}.start` : `${curve}.end`;
}

/** Pairs of loose ends within a distance (mm), the nearest first; each end is used once. */
export function closings(sketch: Sketch, gaps: readonly Gap[], within: number): Closing[] {
  const ends = gaps.flatMap((g) => {
    const ref = endAt(sketch, g.curve, g.at);
    return ref ? [{ ref, at: g.at }] : [];
  });
  const pairs = ends
    .flatMap((a, i) =>
      ends.slice(i + 1).map((b): Closing => ({ ends: [a.ref, b.ref], distance: distance2(a.at, b.at) })),
    )
    .filter((p) => p.distance <= within)
    .sort((a, b) => a.distance - b.distance);
  const used = new Set<string>();
  return pairs.filter((p) => !p.ends.some((e) => used.has(e)) && p.ends.every((e) => used.add(e)));
}

/** Lines that can be turned about: centre lines first, then the axes of the sketch. */
export const axesOf = (sketch: Sketch): string[] => [
  ...sketch.curves.filter((c) => c.kind === "line" && c.construction === "centre-line").map((c) => c.id),
  "y-axis",
  "x-axis",
];

/** Signed distance from an axis. */
const off = ([a, b]: [Vec2, Vec2], p: Vec2): number => cross2(sub2(b, a), sub2(p, a)) / distance2(a, b);

/** A half profile that is open only along an axis: the segment that closes it, between two loose ends on the axis. */
export function missingAxisSegment(
  sketch: Sketch,
  gaps: readonly Gap[],
): { readonly ends: readonly [string, string]; readonly axis: string } | undefined {
  for (const axis of axesOf(sketch)) {
    const line = lineThrough(sketch, axis),
      on = gaps.filter((g) => Math.abs(off(line, g.at)) <= 10 * JOIN && g.curve !== axis);
    if (on.length !== 2) continue;
    const [a, b] = on.map((g) => endAt(sketch, g.curve, g.at));
    if (a && b) return { ends: [a, b], axis };
  }
  return undefined;
}

/** What stands in the way of turning a region about an axis of its sketch; undefined when nothing does. */
export function turningFault(sketch: Sketch, region: Outline, axis: string, unit: LengthUnit): string | undefined {
  const line = lineThrough(sketch, axis);
  const sides = region.outer.flatMap((s) => Array.from({ length: 33 }, (_, i) => off(line, segmentAt(s, i / 32))));
  const slack = 10 * JOIN;
  if (sides.some((d) => d > slack) && sides.some((d) => d < -slack))
    return "The profile crosses its axis. Draw one half of it only.";
  for (const s of region.outer) {
    if (s.kind === "line") continue;
    for (const t of [0, 1]) {
      if (Math.abs(off(line, segmentAt(s, t))) > slack) continue;
      const [h] = [
        Math.atan2(
          ...(sub2(segmentAt(s, t ? 1 : STUB), segmentAt(s, t ? 1 - STUB : 0))
            .slice()
            .reverse() as [number, number]),
        ),
      ];
      const axisHeading = Math.atan2(line[1][1] - line[0][1], line[1][0] - line[0][0]);
      // a round piece must leave the axis square to it, or a point is left there
      if (Math.abs(Math.cos(h - axisHeading)) > LEAVES_SQUARE)
        return (
          `Where ${wordsFor(sketch, unit)(s.curve)} meets the axis it slants and leaves a point. Make ` +
          "it leave squarely."
        );
    }
  }
  return undefined;
}

/** Corners of the boxes around everything drawn. */
export const cornersOf = (sketch: Pick<Sketch, "curves">): Vec2[] =>
  sketch.curves.flatMap((c) => {
    const s = segmentOf(c);
    return s ? segmentBox(s) : c.kind === "point" ? [c.at] : [];
  });

/** Box around everything drawn; undefined for an empty sketch. */
export function extentOf(sketch: Pick<Sketch, "curves">): [Vec2, Vec2] | undefined {
  const corners = cornersOf(sketch);
  if (!corners.length) return undefined;
  const xs = corners.map((p) => p[0]),
    ys = corners.map((p) => p[1]);
  return [
    [Math.min(...xs), Math.min(...ys)],
    [Math.max(...xs), Math.max(...ys)],
  ];
}
