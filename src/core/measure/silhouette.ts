import { add3, anyAcross, cross3, dot3, length3, scale3, sub3, unit3, type Vec3 } from "@/core/geometry/vector";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import type { Scene, SightCurve } from "@/core/kernel/scene";
import { alongCurve } from "./sight-curve";
import { OUTLINE_BESIDE, SEEN_ALONG } from "./tolerance";

const TURN = 2 * Math.PI;
/** A free outline is followed in so many steps a turn. */
const STEPS = 180;

/** Where a surface turns away from the viewer, as whole curves, whether its face reaches there or not. */
export function outlinesOf(c: Carrier, toViewer: Vec3): SightCurve[] {
  if (c.kind === "sphere") {
    const x = anyAcross(toViewer);
    return [ring(c.centre, x, cross3(toViewer, x), c.radius)];
  }
  return c.kind === "torus" ? torusOutlines(c, toViewer) : [];
}

const ring = (centre: Vec3, x: Vec3, y: Vec3, radius: number): Extract<SightCurve, { kind: "circle" }> => ({
  kind: "circle",
  centre,
  x: scale3(x, radius),
  y: scale3(y, radius),
  from: 0,
  to: TURN,
});

/** cos v (e(u)·T) + sin v (a·T) = 0, u about the axis, v about the tube. */
function torusOutlines(c: Extract<Carrier, { kind: "torus" }>, toViewer: Vec3): SightCurve[] {
  const { axis, centre, major, minor } = c;
  const x = anyAcross(axis),
    y = cross3(axis, x),
    rise = dot3(axis, toViewer);
  if (Math.abs(rise) > SEEN_ALONG) return [major + minor, major - minor].map((r) => ring(centre, x, y, r));
  if (Math.abs(rise) < 1 - SEEN_ALONG) {
    // edge on: the two crowns, and the tube where it is cut square to the viewer
    const side = unit3(cross3(axis, toViewer));
    return [
      ...[minor, -minor].map((h) => ring(add3(centre, scale3(axis, h)), x, y, major)),
      // its outer and its inner half: at the crowns one hides what the other shows
      ...[major, -major].flatMap((m) => {
        const whole = ring(add3(centre, scale3(side, m)), side, axis, minor);
        return [-0.5, 0.5].map((q): SightCurve => ({ ...whole, from: q * Math.PI, to: (q + 1) * Math.PI }));
      }),
    ];
  }
  return [0, Math.PI].map((half): SightCurve => {
    const points = Array.from({ length: STEPS + 1 }, (_, i): Vec3 => {
      const u = (i / STEPS) * TURN,
        e = add3(scale3(x, Math.cos(u)), scale3(y, Math.sin(u)));
      const v = Math.atan2(-dot3(e, toViewer), rise) + half;
      return add3(centre, add3(scale3(e, major + minor * Math.cos(v)), scale3(axis, minor * Math.sin(v))));
    });
    return { kind: "free", points };
  });
}

/**
 * The straight outlines of what a circle or an ellipse sweeps, or of a cone, as far as its face reaches: by where its
 * edges cross them. On an ellipse a·x·cos t + b·y·sin t the normal is x·cos t / a + y·sin t / b.
 */
export function straightOutlines(scene: Scene, face: number, toViewer: Vec3): SightCurve[] {
  const c = scene.faces[face]!;
  if (c.kind !== "cylinder" && c.kind !== "cone" && c.kind !== "elliptic") return [];
  const axis = axisOf(c)!,
    along = axis.along;
  const x = c.kind === "elliptic" ? c.long : anyAcross(along),
    y = cross3(along, x);
  const [a, b] = halvesOf(c);
  const [tx, ty, ta] = [dot3(toViewer, x) / a, dot3(toViewer, y) / b, dot3(toViewer, along)];
  const across = Math.hypot(tx, ty);
  // of a cone: u·T = tan(half) a·T, where u is the way from the axis
  const share = c.kind === "cone" ? (Math.tan(c.half) * ta) / across : 0;
  if (across * a < 1 - SEEN_ALONG || Math.abs(share) >= 1) return [];
  const towards = Math.atan2(ty, tx),
    turn = Math.acos(share);
  const rims = scene.edges.filter((e) => e.faces.includes(face)).map((e) => pointsOf(e.curve));
  const angleOf = (p: Vec3) => {
    const w = sub3(p, axis.at);
    return Math.atan2(dot3(w, y) / b, dot3(w, x) / a);
  };
  const heightOf = (p: Vec3) => dot3(sub3(p, axis.at), along);
  return [towards + turn, towards - turn].flatMap((angle): SightCurve[] => {
    const u = add3(scale3(x, a * Math.cos(angle)), scale3(y, b * Math.sin(angle)));
    const at = (h: number): Vec3 => {
      const grown = c.kind === "cone" ? Math.abs(h) * Math.tan(c.half) : 1;
      return add3(axis.at, add3(scale3(along, h), scale3(u, grown)));
    };
    // a rim may run along the outline itself: then one side of it tells
    return [OUTLINE_BESIDE, -OUTLINE_BESIDE].flatMap((off): SightCurve[] => {
      const heights = rims.flatMap((points) => crossings(points, angle + off, angleOf, heightOf));
      // the tip of a whole cone is no rim
      if (c.kind === "cone" && heights.length % 2 === 1) heights.push(0);
      heights.sort((p, q) => p - q);
      const spans: SightCurve[] = [];
      for (let i = 0; i + 1 < heights.length; i += 2)
        spans.push({ kind: "line", a: at(heights[i]!), b: at(heights[i + 1]!) });
      return spans;
    });
  });
}

/** Half axes of what is swept; of a cone where it is 1 mm wide. */
function halvesOf(c: Extract<Carrier, { kind: "cylinder" | "cone" | "elliptic" }>): readonly [number, number] {
  if (c.kind === "elliptic") return c.halves;
  return c.kind === "cylinder" ? [c.radius, c.radius] : [1, 1];
}

const pointsOf = (c: SightCurve): Vec3[] => {
  const n = c.kind === "line" ? 24 : c.kind === "circle" ? 96 : c.points.length - 1;
  return Array.from({ length: n + 1 }, (_, i) => alongCurve(c, i / n));
};

/** Heights at which a line of points goes past an angle. */
function crossings(
  points: readonly Vec3[],
  angle: number,
  angleOf: (p: Vec3) => number,
  heightOf: (p: Vec3) => number,
): number[] {
  const list: number[] = [];
  const near = (v: number) => v - TURN * Math.round(v / TURN);
  for (let i = 1; i < points.length; i++) {
    const a = near(angleOf(points[i - 1]!) - angle),
      step = near(angleOf(points[i]!) - angle - a),
      b = a + step;
    if (a < 0 === b < 0) continue;
    const t = a / (a - b);
    list.push(heightOf(points[i - 1]!) * (1 - t) + heightOf(points[i]!) * t);
  }
  return list;
}

/** Outlines of surfaces of no elementary kind: where facets of one face turn from the viewer to away from them. */
export function facetOutlines(scene: Scene, toViewer: Vec3): SightCurve[] {
  const { positions: p, triangles: t } = scene.net;
  const free = scene.faces.map((f) => f.kind === "other");
  if (!free.includes(true)) return [];
  const at = (i: number): Vec3 => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!];
  const sides = new Map<string, { a: Vec3; b: Vec3; looks: boolean }>(),
    out: SightCurve[] = [];
  for (let k = 0; k < t.length / 3; k++) {
    const face = scene.faceOf[k]!;
    if (!free[face]) continue;
    const [a, b, c] = [0, 1, 2].map((i) => t[3 * k + i]!) as [number, number, number];
    const normal = cross3(sub3(at(b), at(a)), sub3(at(c), at(a)));
    if (length3(normal) === 0) continue;
    const looks = dot3(normal, toViewer) > 0;
    for (const [i, j] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      const key = `${face} ${Math.min(i, j)} ${Math.max(i, j)}`,
        other = sides.get(key);
      if (!other) sides.set(key, { a: at(i), b: at(j), looks });
      else if (other.looks !== looks) out.push({ kind: "line", a: other.a, b: other.b });
    }
  }
  return out;
}
