import { meetings } from "@/core/geometry/meet";
import { isWhole, nearestOn, segmentAt, segmentBox, TURN, type Segment } from "@/core/geometry/segment";
import { distance2, sub2, type Vec2 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { curveKind, segmentOf } from "../curves/registry";
import type { Relation, Sketch } from "../sketch";
import { JOIN } from "../tolerance";
import { droppedSentence, idsFor, mentions, ofExtent, pieceOf, rewired, tieTo } from "./rewire";

export interface Extension {
  /** What is added, and the curve it would reach. */
  readonly added: Segment;
  readonly by: string;
  readonly end: "start" | "end";
  readonly whole: Segment;
}

/** How a curve would go on from the end nearer to a place, to the next curve in its way. */
export function extensionAt(sketch: Sketch, id: string, near: Vec2): Extension | undefined {
  const curve = sketch.curves.find((c) => c.id === id),
    shape = curve && segmentOf(curve);
  if (!shape || isWhole(shape) || shape.kind === "spline") return undefined;
  const atEnd = nearestOn(shape, near).t > 0.5;
  const boxes = sketch.curves.flatMap((c) => {
    const s = segmentOf(c);
    return s ? segmentBox(s) : [];
  });
  const reach = 2 * Math.max(...boxes.map((p) => distance2(p, segmentAt(shape, atEnd ? 1 : 0))));
  const ahead = onward(shape, atEnd, reach);
  let best: { t: number; by: string } | undefined;
  for (const c of sketch.curves) {
    const other = c.id !== id && segmentOf(c);
    if (!other) continue;
    for (const m of meetings(ahead, other, JOIN))
      if (distance2(m.at, segmentAt(ahead, 0)) > 10 * JOIN && (!best || m.t < best.t)) best = { t: m.t, by: c.id };
  }
  if (!best) return undefined;
  const stop = best.t;
  const added: Segment =
    ahead.kind === "line"
      ? { ...ahead, b: segmentAt(ahead, stop) }
      : {
          ...(ahead as Extract<Segment, { kind: "arc" }>),
          sweep: (ahead as Extract<Segment, { kind: "arc" }>).sweep * stop,
        };
  return { added, by: best.by, end: atEnd ? "end" : "start", whole: joined(shape, added, atEnd) };
}

function onward(s: Segment, atEnd: boolean, reach: number): Segment {
  if (s.kind === "line") {
    const a = atEnd ? s.b : s.a,
      u = sub2(atEnd ? s.b : s.a, atEnd ? s.a : s.b),
      l = Math.hypot(...u);
    return { kind: "line", a, b: [a[0] + (u[0] / l) * reach, a[1] + (u[1] / l) * reach] };
  }
  const round = s as Extract<Segment, { kind: "arc" | "ellipse" }>,
    rest = (TURN - Math.abs(round.sweep)) * Math.sign(round.sweep) * 0.9999;
  return atEnd ? { ...round, from: round.from + round.sweep, sweep: rest } : { ...round, sweep: -rest };
}

function joined(s: Segment, added: Segment, atEnd: boolean): Segment {
  if (s.kind === "line" && added.kind === "line") return atEnd ? { ...s, b: added.b } : { ...s, a: added.b };
  const [a, b] = [s, added] as Extract<Segment, { kind: "arc" }>[];
  return atEnd
    ? { ...a!, sweep: a!.sweep + b!.sweep }
    : { ...a!, from: a!.from + b!.sweep, sweep: a!.sweep - b!.sweep };
}

/** Lengthens a line or an arc, from the end nearer to a place, to the next curve in its way. */
export function extend(sketch: Sketch, id: string, near: Vec2): Outcome<Sketch> {
  const curve = sketch.curves.find((c) => c.id === id);
  if (!curve) return refuse("not-found", `There is no curve ${id} to extend.`);
  if (curve.kind === "spline")
    return refuse("cannot-extend", "A spline cannot be extended; drag its end or add a point.", [id]);
  const extension = extensionAt(sketch, id, near);
  if (!extension) return refuse("nothing-ahead", "No curve lies ahead of this end.", [id]);
  const piece = pieceOf(curve, extension.whole, id),
    moved = `${id}.${extension.end}`;
  // an arc's ends are those of its own sense
  const r = rewired(sketch, (ref, rel: Relation) =>
    ref === moved ||
    (mentions(rel, id) && ref === id && ofExtent(rel) && !(rel.kind === "equal" && curve.kind !== "line"))
      ? undefined
      : ref,
  );
  const next: Sketch = {
    ...r.sketch,
    curves: sketch.curves.map((c) => (c.id === id ? curveKind(c).withNumbers(c, curveKind(piece).numbers(piece)) : c)),
  };
  const at = segmentAt(extension.added, 1);
  return done(
    { ...next, constraints: [...next.constraints, tieTo(next, moved, at, extension.by, idsFor(sketch)("k"))] },
    droppedSentence(r.dropped),
  );
}
