import { CAUTION, ROUNDING, TINY } from "./tolerance";
import {
  around,
  ellipseAngle,
  isWhole,
  nearestOn,
  segmentAt,
  segmentBox,
  segmentMotion,
  stretch,
  type Segment,
} from "./segment";
import { add2, cross2, distance2, dot2, scale2, sub2, type Vec2 } from "./vector";

/** Where two segments meet: the place and its parameter on each. */
interface Meeting {
  readonly at: Vec2;
  readonly t: number;
  readonly u: number;
}

type Line = Extract<Segment, { kind: "line" }>;
type Arc = Extract<Segment, { kind: "arc" }>;

/**
 * Where two segments meet or touch; of stretches they share, the ends. Closed forms for lines, arcs and a line
 * with an ellipse; otherwise both are halved until boxes part, then Newton's method.
 * @param join how near (mm) counts as meeting
 */
export function meetings(p: Segment, q: Segment, join: number): Meeting[] {
  const found = points(p, q, join);
  const list: Meeting[] = [];
  for (const at of found) {
    const on = nearestOn(p, at),
      off = nearestOn(q, at);
    if (on.distance > join * 4 || off.distance > join * 4) continue;
    if (list.some((m) => distance2(m.at, at) <= join)) continue;
    list.push({ at, t: on.t, u: off.t });
  }
  return list;
}

function points(p: Segment, q: Segment, join: number): Vec2[] {
  if (p.kind === "line" && q.kind === "line") return lineLine(p, q, join);
  if (p.kind === "line" && q.kind === "arc") return lineArc(p, q, join);
  if (p.kind === "arc" && q.kind === "line") return lineArc(q, p, join);
  if (p.kind === "arc" && q.kind === "arc") return arcArc(p, q, join);
  if (p.kind === "line" && q.kind === "ellipse") return lineEllipse(p, q, join);
  if (p.kind === "ellipse" && q.kind === "line") return lineEllipse(q, p, join);
  return [...ends(p, q, join), ...ends(q, p, join), ...byHalving(p, q, join)];
}

/** Ends of one that lie on the other. */
const ends = (p: Segment, q: Segment, join: number): Vec2[] =>
  [segmentAt(p, 0), segmentAt(p, 1)].filter((e) => nearestOn(q, e).distance <= join);

function lineLine(p: Line, q: Line, join: number): Vec2[] {
  const u = sub2(p.b, p.a),
    v = sub2(q.b, q.a),
    w = sub2(q.a, p.a);
  const area = cross2(u, v),
    lu = Math.hypot(...u),
    lv = Math.hypot(...v);
  if (Math.abs(area) <= ROUNDING * lu * lv) return [...ends(p, q, join), ...ends(q, p, join)];
  const t = cross2(w, v) / area,
    s = cross2(w, u) / area;
  if (t < -join / lu || t > 1 + join / lu || s < -join / lv || s > 1 + join / lv) return [];
  return [add2(p.a, scale2(u, t))];
}

const onArc = (c: Arc, p: Vec2, join: number): boolean => {
  const a = Math.atan2(p[1] - c.centre[1], p[0] - c.centre[0]),
    slack = (2 * join) / c.radius;
  const along = c.sweep < 0 ? around(c.from - a + slack) : around(a - c.from + slack);
  return along <= Math.abs(c.sweep) + 2 * slack;
};

function lineArc(l: Line, c: Arc, join: number): Vec2[] {
  const u = sub2(l.b, l.a),
    length = Math.hypot(...u) || TINY,
    w = sub2(c.centre, l.a);
  const along = dot2(u, w) / length,
    off = Math.abs(cross2(u, w)) / length;
  if (off > c.radius + join) return [];
  // nearer to touching than counts as meeting is one point
  const half = off >= c.radius - join * join ? 0 : Math.sqrt(Math.max(0, c.radius * c.radius - off * off));
  return (half ? [along - half, along + half] : [along])
    .filter((t) => t >= -join && t <= length + join)
    .map((t) => add2(l.a, scale2(u, t / length)))
    .filter((p) => onArc(c, p, join));
}

function arcArc(p: Arc, q: Arc, join: number): Vec2[] {
  const dist = distance2(p.centre, q.centre),
    r = p.radius,
    s = q.radius;
  // on one circle: the ends of each that lie on the other
  if (dist < join && Math.abs(r - s) < join)
    return Math.abs(p.sweep) > 6.28 && Math.abs(q.sweep) > 6.28 ? [] : [...ends(p, q, join), ...ends(q, p, join)];
  if (dist < join || dist > r + s + join || dist < Math.abs(r - s) - join) return [];
  const x = (dist * dist + r * r - s * s) / (2 * dist),
    h2 = r * r - x * x;
  const u = scale2(sub2(q.centre, p.centre), 1 / dist),
    foot = add2(p.centre, scale2(u, x));
  const h = h2 <= join * join ? 0 : Math.sqrt(h2),
    n: Vec2 = [-u[1], u[0]];
  return (h ? [add2(foot, scale2(n, h)), sub2(foot, scale2(n, h))] : [foot]).filter(
    (at) => onArc(p, at, join) && onArc(q, at, join),
  );
}

function lineEllipse(l: Line, e: Extract<Segment, { kind: "ellipse" }>, join: number): Vec2[] {
  // in the ellipse's own axes it is the unit circle
  const k = cross2(e.major, e.minor) || TINY;
  const own = (p: Vec2): Vec2 => {
    const d = sub2(p, e.centre);
    return [cross2(d, e.minor) / k, cross2(e.major, d) / k];
  };
  const a = own(l.a),
    b = own(l.b),
    u = sub2(b, a),
    uu = dot2(u, u) || TINY;
  const foot = -dot2(a, u) / uu,
    off = Math.abs(cross2(u, a)) / Math.sqrt(uu);
  const slack = join / Math.min(Math.hypot(...e.major), Math.hypot(...e.minor));
  if (off > 1 + slack) return [];
  const half = off >= 1 - slack * slack ? 0 : Math.sqrt((1 - off * off) / uu);
  return (half ? [foot - half, foot + half] : [foot])
    .map((t) => segmentAt(l, t))
    .filter((p) => {
      const along = around((ellipseAngle(e.centre, e.major, e.minor, p) - e.from) * Math.sign(e.sweep) + 2 * slack);
      return along <= Math.abs(e.sweep) + 4 * slack;
    });
}

function byHalving(p: Segment, q: Segment, join: number): Vec2[] {
  const found: Vec2[] = [];
  const visit = (a: Segment, b: Segment, t: [number, number], u: [number, number], depth: number): void => {
    if (found.length > 64) return;
    const [al, ah] = segmentBox(a),
      [bl, bh] = segmentBox(b);
    if (al[0] > bh[0] + join || bl[0] > ah[0] + join || al[1] > bh[1] + join || bl[1] > ah[1] + join) return;
    if (depth === 0) {
      const at = polish(p, q, (t[0] + t[1]) / 2, (u[0] + u[1]) / 2, join);
      if (at && !found.some((f) => distance2(f, at) <= join)) found.push(at);
      return;
    }
    const tm = (t[0] + t[1]) / 2,
      um = (u[0] + u[1]) / 2;
    for (const tt of [
      [t[0], tm],
      [tm, t[1]],
    ] as [number, number][])
      for (const uu of [
        [u[0], um],
        [um, u[1]],
      ] as [number, number][])
        visit(stretch(p, ...tt), stretch(q, ...uu), tt, uu, depth - 1);
  };
  visit(p, q, [0, 1], [0, 1], 7);
  return asTouches(p, q, found, join);
}

/**
 * Where curves touch they are nearer than counts as meeting over a stretch: of the places found in it the middle one
 * stays.
 */
function asTouches(p: Segment, q: Segment, found: readonly Vec2[], join: number): Vec2[] {
  const list = found.map((at) => ({ at, t: nearestOn(p, at).t })).sort((a, b) => a.t - b.t);
  const onBoth = (t: number) => nearestOn(q, segmentAt(p, t)).distance <= 2 * join;
  const groups: (typeof list)[] = [];
  for (const m of list) {
    const last = groups[groups.length - 1],
      before = last?.[last.length - 1];
    if (before && onBoth((before.t + m.t) / 2)) last.push(m);
    else groups.push([m]);
  }
  // around the start of a whole circle or ellipse
  const [first, last] = [groups[0], groups[groups.length - 1]];
  if (first && last && first !== last && isWhole(p) && onBoth(((last[last.length - 1]!.t + 1 + first[0]!.t) / 2) % 1))
    groups.splice(0, 1, [...groups.pop()!, ...first]);
  return groups.map((g) => g[g.length >> 1]!.at);
}

/** Newton's method on p(t) = q(u); where they only touch, the nearest place. */
function polish(p: Segment, q: Segment, t: number, u: number, join: number): Vec2 | undefined {
  for (let k = 0; k < 30; k++) {
    const w = sub2(segmentAt(p, t), segmentAt(q, u)),
      [d] = segmentMotion(p, t),
      [e] = segmentMotion(q, u);
    const dd = dot2(d, d),
      ee = dot2(e, e),
      de = dot2(d, e),
      dw = dot2(d, w),
      ew = dot2(e, w);
    // damped: tangent places make the 2 × 2 system singular
    const mu = CAUTION * (dd + ee),
      det = (dd + mu) * (ee + mu) - de * de || TINY;
    const dt = (-(ee + mu) * dw + de * ew) / det,
      du = (-de * dw + (dd + mu) * ew) / det;
    const cap = Math.min(1, 0.1 / Math.max(Math.abs(dt), Math.abs(du), TINY));
    t = Math.max(0, Math.min(1, t + cap * dt));
    u = Math.max(0, Math.min(1, u + cap * du));
  }
  const at = segmentAt(p, t);
  return distance2(at, segmentAt(q, u)) <= join ? at : undefined;
}
