import { add2, scale2, sub2, type Vec2 } from "./vector";

/** Four poles of a cubic Bézier curve. */
export type Bezier = readonly [Vec2, Vec2, Vec2, Vec2];

export function bezierAt([a, b, c, d]: Bezier, t: number): Vec2 {
  const u = 1 - t,
    k0 = u * u * u,
    k1 = 3 * u * u * t,
    k2 = 3 * u * t * t,
    k3 = t * t * t;
  return [k0 * a[0] + k1 * b[0] + k2 * c[0] + k3 * d[0], k0 * a[1] + k1 * b[1] + k2 * c[1] + k3 * d[1]];
}

/** First and second derivative by t. */
export function bezierDerivative([a, b, c, d]: Bezier, t: number): [Vec2, Vec2] {
  const u = 1 - t;
  const p = sub2(b, a),
    q = sub2(c, b),
    r = sub2(d, c);
  return [
    scale2(add2(add2(scale2(p, u * u), scale2(q, 2 * u * t)), scale2(r, t * t)), 3),
    scale2(add2(scale2(sub2(q, p), u), scale2(sub2(r, q), t)), 6),
  ];
}

/** De Casteljau: the curve before and after t. */
export function splitBezier([a, b, c, d]: Bezier, t: number): [Bezier, Bezier] {
  const mix = (p: Vec2, q: Vec2): Vec2 => [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t];
  const ab = mix(a, b),
    bc = mix(b, c),
    cd = mix(c, d),
    abc = mix(ab, bc),
    bcd = mix(bc, cd),
    m = mix(abc, bcd);
  return [
    [a, ab, abc, m],
    [m, bcd, cd, d],
  ];
}
