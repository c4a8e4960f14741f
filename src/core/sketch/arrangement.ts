import { meetings } from "@/core/geometry/meet";
import { isWhole, segmentBox, segmentLength, stretch, type Segment as Shape } from "@/core/geometry/segment";
import { segmentOf } from "./curves/registry";
import type { Curve } from "./sketch";
import { JOIN } from "./tolerance";

export { isWhole, onCircle, reversed, sampled, segmentEnd, segmentStart } from "@/core/geometry/segment";

/** A piece of a curve between two vertices. */
export type Segment = Shape & { readonly curve: string };

/** Where a curve is met by others: parameters along it, sorted, its own ends left out. */
export interface Cuts {
  readonly curve: Curve;
  readonly shape: Shape;
  readonly at: readonly { readonly t: number; readonly by: string }[];
}

/** For every curve with a shape, where the others meet it. */
export function cutsOf(curves: readonly Curve[]): Cuts[] {
  const shapes = curves.flatMap((curve) => {
    const shape = segmentOf(curve);
    return shape
      ? [{ curve, shape, box: segmentBox(shape), length: segmentLength(shape), at: [] as { t: number; by: string }[] }]
      : [];
  });
  // sweep along x: only curves whose boxes overlap can meet
  const order = shapes.map((_, i) => i).sort((i, j) => shapes[i]!.box[0][0] - shapes[j]!.box[0][0]);
  order.forEach((i, k) => {
    const a = shapes[i]!;
    for (let m = k + 1; m < order.length; m++) {
      const b = shapes[order[m]!]!;
      if (b.box[0][0] > a.box[1][0] + JOIN) break;
      if (a.box[0][1] > b.box[1][1] + JOIN || b.box[0][1] > a.box[1][1] + JOIN) continue;
      for (const { t, u } of meetings(a.shape, b.shape, JOIN)) {
        a.at.push({ t, by: b.curve.id });
        b.at.push({ t: u, by: a.curve.id });
      }
    }
  });
  return shapes.map(({ curve, shape, length, at }) => {
    const slack = JOIN / (length || 1),
      whole = isWhole(shape);
    const sorted = at
      .filter(({ t }) => whole || (t > slack && t < 1 - slack))
      .map((c) => (whole && c.t >= 1 - slack ? { ...c, t: 0 } : c))
      .sort((p, q) => p.t - q.t || (p.by < q.by ? -1 : 1));
    return { curve, shape, at: sorted };
  });
}

/** Cuts every curve at every meeting point. Whole circles and ellipses that meet nothing stay whole. */
export function splitAtMeetings(curves: readonly Curve[]): Segment[] {
  return cutsOf(curves).flatMap(({ curve, shape, at }): Segment[] => {
    const slack = JOIN / (segmentLength(shape) || 1);
    const stops = at.map((c) => c.t).filter((t, k, all) => k === 0 || t - all[k - 1]! > slack);
    const named = { ...shape, curve: curve.id } as Segment;
    if (!isWhole(shape)) return [0, ...stops].map((t, k) => stretch(named, t, stops[k] ?? 1));
    if (stops.length > 1 && stops[0]! + 1 - stops[stops.length - 1]! <= slack) stops.pop();
    if (!stops.length) return [named];
    return stops.map((t, k) => stretch(named, t, stops[k + 1] ?? stops[0]! + 1));
  });
}
