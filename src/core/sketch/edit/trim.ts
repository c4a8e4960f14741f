import { isWhole, nearestOn, segmentAt, segmentLength, stretch, type Segment } from "@/core/geometry/segment";
import type { Vec2 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { cutsOf, type Cuts } from "../arrangement";
import type { Curve, Relation, Sketch } from "../sketch";
import { JOIN } from "../tolerance";
import {
  droppedSentence,
  idsFor,
  LETTER,
  mentions,
  ofExtent,
  pieceOf,
  rewired,
  sameCarrier,
  tieTo,
  without,
} from "./rewire";

/**
 * The stretch between two meetings that a pointer means, with what meets it at either end; undefined where it is an
 * end of the curve.
 */
export interface Stretch {
  readonly from: Cuts["at"][number] | undefined;
  readonly to: Cuts["at"][number] | undefined;
  readonly cuts: Cuts;
}

/** What trimming at a place would take away. */
export function stretchAt(sketch: Sketch, id: string, near: Vec2): Stretch | undefined {
  const cuts = cutsOf(sketch.curves.filter((c) => c.id === id || !c.construction || c.kind === "line")).find(
    (c) => c.curve.id === id,
  );
  if (!cuts) return undefined;
  const { t } = nearestOn(cuts.shape, near),
    { at } = cuts;
  let from = [...at].reverse().find((c) => c.t <= t),
    to = at.find((c) => c.t > t);
  if (isWhole(cuts.shape) && at.length) {
    from ??= at[at.length - 1];
    to ??= at[0];
  }
  return { from, to, cuts };
}

/** The shape of a stretch, to be shown before it goes. */
export function stretchShape({ from, to, cuts }: Stretch): Segment {
  const a = from?.t ?? 0,
    b = to?.t ?? 1;
  return from && to && (b < a || (isWhole(cuts.shape) && b === a))
    ? stretch(cuts.shape, a, b + 1)
    : stretch(cuts.shape, a, b);
}

/**
 * Takes away the stretch of a curve between the nearest meetings at either side of a place; with no meeting, the
 * whole curve.
 */
export function trim(sketch: Sketch, id: string, near: Vec2): Outcome<Sketch> {
  const s = stretchAt(sketch, id, near);
  if (!s) return refuse("not-found", `There is no curve ${id} to trim.`);
  const { from, to, cuts } = s,
    { curve, shape } = cuts,
    whole = isWhole(shape);
  const slack = JOIN / (segmentLength(shape) || 1);
  if ((!from && !to) || (whole && from && to && Math.abs(from.t - to.t) <= slack)) {
    const gone = without(sketch, new Set([id]));
    return done(gone.sketch, droppedSentence(gone.dropped));
  }
  const ids = idsFor(sketch);
  const keep: { piece: Curve; ends: [Cuts["at"][number] | undefined, Cuts["at"][number] | undefined] }[] = [];
  if (whole) {
    const a = to!.t,
      b = from!.t > a ? from!.t : from!.t + 1;
    keep.push({ piece: pieceOf(curve, stretch(shape, a, b), id), ends: [to, from] });
  } else {
    if (from) keep.push({ piece: pieceOf(curve, stretch(shape, 0, from.t), id), ends: [undefined, from] });
    if (to)
      keep.push({
        piece: pieceOf(curve, stretch(shape, to.t, 1), keep.length ? ids(LETTER[curve.kind]) : id),
        ends: [to, undefined],
      });
  }
  return done(...replaced(sketch, curve, keep, shape, ids));
}

/** A curve's place taken by its pieces: what spoke of an end follows it, what spoke of the whole extent goes. */
export function replaced(
  sketch: Sketch,
  curve: Curve,
  keep: readonly { piece: Curve; ends: readonly [Cuts["at"][number] | undefined, Cuts["at"][number] | undefined] }[],
  shape: Segment,
  ids: (letter: string) => string,
): [Sketch, string | undefined] {
  const first = keep[0]!,
    last = keep[keep.length - 1]!,
    { id } = curve;
  const map = (ref: string, r: Relation): string | undefined => {
    if (!mentions(r, id)) return ref;
    if (ref === id) return ofExtent(r) && !(r.kind === "equal" && curve.kind !== "line") ? undefined : first.piece.id;
    if (ref === `${id}.start`) return first.ends[0] ? undefined : `${first.piece.id}.start`;
    if (ref === `${id}.end`) return last.ends[1] ? undefined : `${last.piece.id}.end`;
    // inner points and handles of a spline are made anew
    return ref.startsWith(`${id}.`) && curve.kind === "spline"
      ? undefined
      : ref.startsWith(`${id}.`)
        ? `${first.piece.id}${ref.slice(id.length)}`
        : ref;
  };
  const r = rewired(sketch, map);
  const place = sketch.curves.indexOf(curve);
  const curves = [...sketch.curves.slice(0, place), ...keep.map((k) => k.piece), ...sketch.curves.slice(place + 1)];
  const next: Sketch = { ...r.sketch, curves };
  const constraints = [...next.constraints];
  if (keep.length > 1) constraints.push(...sameCarrier(first.piece, last.piece, () => ids("k")));
  for (const { piece, ends } of keep)
    ends.forEach((cut, k) => {
      if (!cut) return;
      constraints.push(
        tieTo(
          next,
          `${piece.id}.${k ? "end" : "start"}`,
          segmentAt(shape, cut.t % 1 === cut.t ? cut.t : cut.t - 1),
          cut.by,
          ids("k"),
        ),
      );
    });
  return [{ ...next, constraints }, droppedSentence(r.dropped)];
}
