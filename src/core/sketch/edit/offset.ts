import { isWhole, segmentAt, segmentMotion, type Segment } from "@/core/geometry/segment";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { segmentOf } from "../curves/registry";
import type { Constraint, Curve, Dimension, Sketch } from "../sketch";
import { COLLAPSED, JOIN } from "../tolerance";
import { idsFor, LETTER } from "./rewire";

/**
 * The curves joined end to end with one, itself included, in order along the chain; each with whether it is run
 * backwards.
 */
export function chainOf(sketch: Sketch, id: string): { curve: Curve; back: boolean }[] {
  const open = sketch.curves.filter((c) => {
    const s = segmentOf(c);
    return s && !isWhole(s) && !c.construction;
  });
  const start = open.find((c) => c.id === id);
  if (!start) {
    const whole = sketch.curves.find((c) => c.id === id);
    return whole ? [{ curve: whole, back: false }] : [];
  }
  const end = (c: Curve, back: boolean): Vec2 => segmentAt(segmentOf(c)!, back ? 0 : 1);
  const used = new Set([id]);
  const grow = (from: { curve: Curve; back: boolean }): { curve: Curve; back: boolean } | undefined => {
    const at = end(from.curve, from.back);
    for (const c of open)
      if (!used.has(c.id))
        for (const back of [false, true])
          if (distance2(end(c, !back), at) <= 10 * JOIN) {
            used.add(c.id);
            return { curve: c, back };
          }
    return undefined;
  };
  const list = [{ curve: start, back: false }];
  for (let n = grow(list[0]!); n; n = grow(n)) list.push(n);
  const before: typeof list = [];
  for (let n = grow({ curve: start, back: true }); n; n = grow(n)) before.unshift({ curve: n.curve, back: !n.back });
  return [...before, ...list];
}

/** A chain moved sideways. @param by to the left of its run, mm: negative to the right @param value as typed */
export function offset(sketch: Sketch, id: string, by: number, value: number | string): Outcome<Sketch> {
  const chain = chainOf(sketch, id);
  if (!chain.length) return refuse("not-found", `There is no curve ${id} to offset.`);
  const other = chain.find(({ curve }) => !["line", "arc", "circle"].includes(curve.kind));
  if (other)
    return refuse("cannot-offset", "Lines, arcs and circles can be offset; ellipses and splines cannot.", [
      other.curve.id,
    ]);
  const ids = idsFor(sketch),
    curves: Curve[] = [],
    constraints: Constraint[] = [],
    dimensions: Dimension[] = [];
  const tie = (kind: Constraint["kind"], ...of: string[]) => constraints.push({ id: ids("k"), kind, of });
  // every curve states the distance; all but the first repeat it by name
  const size = (kind: Dimension["kind"], ...of: string[]) => {
    const [lettered] = dimensions;
    const own = lettered ? { value: `=${lettered.id}`, repeats: true } : { value };
    dimensions.push({ id: ids("m"), kind, of, ...own });
  };
  const starts: string[] = [],
    ends: string[] = [];
  for (const { curve, back } of chain) {
    const side = back ? -by : by,
      s = segmentOf(curve)!,
      fresh = ids(LETTER[curve.kind]);
    const moved = aside(curve, s, side, fresh);
    if (!moved) return refuse("too-far", "An arc would shrink to nothing at this distance.", [curve.id]);
    curves.push(moved);
    starts.push(`${fresh}.${back ? "end" : "start"}`);
    ends.push(`${fresh}.${back ? "start" : "end"}`);
    if (curve.kind === "line") {
      tie("parallel", curve.id, fresh);
      size("point-line", `${fresh}.start`, curve.id);
    } else {
      tie("concentric", curve.id, fresh);
      size("ring", curve.id, fresh);
    }
  }
  const closed = chain.length > 1 && distance2(endOf(chain[chain.length - 1]!), startOf(chain[0]!)) <= 10 * JOIN;
  chain.forEach((_, i) => {
    if (i + 1 < chain.length || closed) tie("coincident", ends[i]!, starts[(i + 1) % chain.length]!);
  });
  // free ends stay square to the ends they come from
  if (!closed)
    for (const [k, list] of [
      [0, starts],
      [chain.length - 1, ends],
    ] as const) {
      const { curve, back } = chain[k]!;
      if (curve.kind !== "line") continue;
      const own = `${curve.id}.${(k === 0) !== back ? "start" : "end"}`,
        g = ids("l");
      curves.push({
        id: g,
        kind: "line",
        start: [...segmentAt(segmentOf(curve)!, (k === 0) !== back ? 0 : 1)] as [number, number],
        end: [
          ...segmentAt(
            segmentOf(curves.find((c) => list[k]!.startsWith(`${c.id}.`))!)!,
            list[k]!.endsWith("start") ? 0 : 1,
          ),
        ] as [number, number],
        construction: true,
      });
      tie("coincident", `${g}.start`, own);
      tie("coincident", `${g}.end`, list[k]!);
      tie("perpendicular", curve.id, g);
    }
  return done({
    ...sketch,
    curves: [...sketch.curves, ...curves],
    constraints: [...sketch.constraints, ...constraints],
    dimensions: [...sketch.dimensions, ...dimensions],
  });
}

const startOf = ({ curve, back }: { curve: Curve; back: boolean }): Vec2 => segmentAt(segmentOf(curve)!, back ? 1 : 0);
const endOf = ({ curve, back }: { curve: Curve; back: boolean }): Vec2 => segmentAt(segmentOf(curve)!, back ? 0 : 1);

/** A curve moved to its left. */
function aside(curve: Curve, s: Segment, by: number, id: string): Curve | undefined {
  const base = { ...(curve.construction && { construction: curve.construction }) };
  if (s.kind === "line") {
    const [d] = segmentMotion(s, 0),
      l = Math.hypot(...d),
      n: Vec2 = [(-d[1] / l) * by, (d[0] / l) * by];
    return { ...base, id, kind: "line", start: [s.a[0] + n[0], s.a[1] + n[1]], end: [s.b[0] + n[0], s.b[1] + n[1]] };
  }
  if (s.kind !== "arc") return undefined;
  // the left of a counter-clockwise arc is inside
  const r = s.radius - by;
  if (r <= COLLAPSED) return undefined;
  if (curve.kind === "circle") return { ...base, id, kind: "circle", centre: curve.centre, radius: r };
  const k = r / s.radius,
    c = s.centre,
    near = (p: Vec2): [number, number] => [c[0] + (p[0] - c[0]) * k, c[1] + (p[1] - c[1]) * k];
  return { ...base, id, kind: "arc", centre: [c[0], c[1]], start: near(segmentAt(s, 0)), end: near(segmentAt(s, 1)) };
}
