import { IN_LINE, NOTHING, SAME_WEIGHT } from "./tolerance";
import { bezierAt, type Bezier } from "@/core/geometry/bezier";
import { cross2, distance2, dot2, mid2, scale2, sub2, add2, type Vec2 } from "@/core/geometry/vector";

/** A pole with its weight: (x w, y w, w). */
type Heavy = readonly [number, number, number];

/** A piece of a B-spline as a curve of the sketch. */
export type Piece =
  | { readonly kind: "line"; readonly a: Vec2; readonly b: Vec2 }
  | { readonly kind: "bezier"; readonly poles: Bezier }
  | {
      readonly kind: "ellipse";
      readonly centre: Vec2;
      readonly major: Vec2;
      readonly minor: Vec2;
      readonly start: Vec2;
      readonly end: Vec2;
    };

/**
 * The pieces of a B-spline of degree 1 to 3, span by span, exactly: polynomial ones as Bézier curves, rational ones of
 * degree 2 as stretches of circles and ellipses. Undefined where a sketch's curves cannot hold them.
 * Poles of a span by its polar form (de Boor's algorithm with different arguments at each level).
 */
export function splinePieces(
  degree: number,
  knots: readonly number[],
  poles: readonly Vec2[],
  weights: readonly number[],
): Piece[] | undefined {
  if (degree < 1 || degree > 3 || poles.length < degree + 1 || knots.length !== poles.length + degree + 1)
    return undefined;
  const isRising = knots.every((k, i) => !i || k >= knots[i - 1]!);
  if (!isRising || (weights.length && weights.length !== poles.length)) return undefined;
  const heavy = poles.map(([x, y], i): Heavy => {
    const w = weights[i] ?? 1;
    return [x * w, y * w, w];
  });
  const pieces: Piece[] = [];
  for (let k = degree; k < poles.length; k++) {
    const [from, to] = [knots[k]!, knots[k + 1]!];
    if (to - from <= 0) continue;
    const span = Array.from({ length: degree + 1 }, (_, j) => {
      const args = [...Array<number>(degree - j).fill(from), ...Array<number>(j).fill(to)];
      return polar(degree, knots, heavy, k, args);
    });
    const piece = pieceOf(span);
    if (!piece) return undefined;
    pieces.push(piece);
  }
  return pieces;
}

function polar(degree: number, knots: readonly number[], poles: readonly Heavy[], k: number, args: number[]): Heavy {
  let heavies = Array.from({ length: degree + 1 }, (_, j) => poles[k - degree + j]!);
  for (let r = 1; r <= degree; r++)
    heavies = Array.from({ length: degree - r + 1 }, (_, j): Heavy => {
      const low = knots[k - degree + r + j]!,
        high = knots[k + 1 + j]!;
      const share = (args[r - 1]! - low) / (high - low || 1);
      const mixed = (i: 0 | 1 | 2) => heavies[j]![i] * (1 - share) + heavies[j + 1]![i] * share;
      return [mixed(0), mixed(1), mixed(2)];
    });
  return heavies[0]!;
}

const light = ([x, y, w]: Heavy): Vec2 => [x / w, y / w];

function pieceOf(span: readonly Heavy[]): Piece | undefined {
  const [w0 = 1] = span.map((p) => p[2]);
  if (span.some((p) => !(p[2] > 0))) return undefined;
  const isPlain = span.every((p) => Math.abs(p[2] / w0 - 1) < SAME_WEIGHT);
  const poles = span.map(light);
  const [a, b, c, d] = poles as [Vec2, Vec2, Vec2 | undefined, Vec2 | undefined];
  if (!c) return { kind: "line", a, b };
  if (!d) {
    const shape = span[1]![2] / Math.sqrt(w0 * span[2]![2]);
    if (!isPlain && Math.abs(shape - 1) > SAME_WEIGHT) return conic(a, b, c, shape);
    // raised by one degree
    const third = (p: Vec2, q: Vec2): Vec2 => add2(scale2(p, 1 / 3), scale2(q, 2 / 3));
    return { kind: "bezier", poles: [a, third(a, b), third(c, b), c] };
  }
  return isPlain ? { kind: "bezier", poles: [a, b, c, d] } : undefined;
}

/**
 * A rational Bézier curve of degree 2 in standard form (middle weight w) as a stretch of an ellipse: its centre lies
 * on the line from the chord's middle to the middle pole; conjugate half diameters give the axes (Rytz).
 */
function conic(a: Vec2, b: Vec2, c: Vec2, w: number): Piece | undefined {
  // one is a parabola, more a hyperbola
  if (w >= 1) return undefined;
  const middle = mid2(a, c),
    toPole = sub2(b, middle);
  const centre = add2(middle, scale2(toPole, (w * w) / (w * w - 1)));
  const shoulder = add2(middle, scale2(toPole, w / (1 + w)));
  const v = sub2(shoulder, centre),
    half = sub2(c, middle);
  const cosine = dot2(sub2(middle, centre), v) / dot2(v, v),
    sine = Math.sqrt(Math.max(0, 1 - cosine * cosine));
  if (sine < IN_LINE || Math.abs(cross2(half, v)) < IN_LINE) return undefined;
  const u = scale2(half, 1 / sine);
  const turn = Math.atan2(2 * dot2(u, v), dot2(v, v) - dot2(u, u)) / 2;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const p = add2(scale2(v, cos), scale2(u, sin)),
    q = sub2(scale2(u, cos), scale2(v, sin));
  const [long, short] = Math.hypot(...p) >= Math.hypot(...q) ? [p, q] : [q, p];
  // it runs in the sense that goes from the major to the minor axis
  const sense = Math.sign(cross2(sub2(a, centre), v)) || 1;
  const minor = Math.sign(cross2(long, short)) === sense ? short : scale2(short, -1);
  return { kind: "ellipse", centre, major: add2(centre, long), minor: add2(centre, minor), start: a, end: c };
}

/** Whether two pieces have one tangent where they meet is not asked: each is a curve of its own. */
export const isDegenerate = (p: Piece): boolean =>
  p.kind === "bezier" && p.poles.every((q) => distance2(q, bezierAt(p.poles, 0)) < NOTHING);
