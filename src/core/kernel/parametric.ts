import type { BRepGProp_Face, TopoDS_Edge, TopoDS_Face } from "replicad-opencascadejs";
import { add3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import type { Kernel } from "./opencascade";
import { surfaceType } from "./solid";

/**
 * The surface of a face over its two parameters. `at` writes the place and Su × Sv, turned to point out of the
 * material, into the first six numbers of `into`. What a surface of a known form needs is read off it once: asking the
 * library for each point costs more than the sum that it is asked for.
 */
export interface Parametric {
  readonly type: string;
  readonly at: (u: number, v: number, into: Float64Array) => void;
  readonly release: () => void;
}

/** The surface of a face laid open for sums. The caller releases it. */
export function parametric(kernel: Kernel, face: TopoDS_Face, asked: BRepGProp_Face): Parametric {
  const oc = kernel.library,
    type = surfaceType(kernel, face);
  const place = new oc.gp_Pnt(),
    normal = new oc.gp_Vec();
  const at = (u: number, v: number, into: Float64Array): void => {
    asked.Normal(u, v, place, normal);
    into[0] = place.X();
    into[1] = place.Y();
    into[2] = place.Z();
    into[3] = normal.X();
    into[4] = normal.Y();
    into[5] = normal.Z();
  };
  const release = () => kernel.release(place, normal);
  const known = knownForm(type, at);
  if (!known) return { type, at, release };
  release();
  return { type, at: known, release: () => {} };
}

type At = Parametric["at"];

function knownForm(type: string, at: At): At | undefined {
  const row = new Float64Array(6);
  const point = (u: number, v: number): Vec3 => {
    at(u, v, row);
    return [row[0]!, row[1]!, row[2]!];
  };
  if (type === "GeomAbs_Plane") return plane(point, at);
  const straight = type === "GeomAbs_Cylinder" || type === "GeomAbs_Cone";
  if (straight || type === "GeomAbs_Sphere" || type === "GeomAbs_Torus") return turned(point, at, straight);
  return undefined;
}

function plane(point: (u: number, v: number) => Vec3, at: At): At {
  const origin = point(0, 0),
    alongU = sub3(point(1, 0), origin),
    alongV = sub3(point(0, 1), origin),
    row = new Float64Array(6);
  at(0, 0, row);
  const [nx, ny, nz] = [row[3]!, row[4]!, row[5]!];
  return (u, v, into) => {
    for (let i = 0; i < 3; i++) into[i] = origin[i]! + u * alongU[i]! + v * alongV[i]!;
    into[3] = nx;
    into[4] = ny;
    into[5] = nz;
  };
}

/**
 * A surface of revolution whose meridian is a line or a circle: at each v the place is middle + c cos u + s sin u, and
 * each of the three is a + b g(v) + d h(v), with g, h = v, 0 for a line and cos v, sin v for a circle.
 */
function turned(point: (u: number, v: number) => Vec3, at: At, straight: boolean): At {
  const harmonics = (v: number): readonly [Vec3, Vec3, Vec3] => {
    const front = point(0, v),
      back = point(Math.PI, v),
      middle = scale3(add3(front, back), 0.5);
    return [middle, sub3(front, middle), sub3(point(Math.PI / 2, v), middle)];
  };
  const part = (k: 0 | 1 | 2): readonly [Vec3, Vec3, Vec3] => {
    if (straight) return [low[k], sub3(high[k], low[k]), [0, 0, 0]];
    const mean = scale3(add3(low[k], far[k]), 0.5);
    return [mean, sub3(low[k], mean), sub3(high[k], mean)];
  };
  const low = harmonics(0),
    high = harmonics(straight ? 1 : Math.PI / 2),
    far = straight ? low : harmonics(Math.PI);
  const parts = [part(0), part(1), part(2)] as const;
  const form = (u: number, v: number, into: Float64Array, sense: number): void => {
    const cosU = Math.cos(u),
      sinU = Math.sin(u);
    const g = straight ? v : Math.cos(v),
      h = straight ? 0 : Math.sin(v),
      dg = straight ? 1 : -h,
      dh = straight ? 0 : g;
    for (let i = 0; i < 3; i++) {
      const [m, c, s] = parts.map((p) => p[0][i]! + g * p[1][i]! + h * p[2][i]!) as [number, number, number];
      const [dm, dc, ds] = parts.map((p) => dg * p[1][i]! + dh * p[2][i]!) as [number, number, number];
      into[i] = m + c * cosU + s * sinU;
      byU[i] = s * cosU - c * sinU;
      byV[i] = dm + dc * cosU + ds * sinU;
    }
    for (let i = 0; i < 3; i++) {
      const [j, k] = [(i + 1) % 3, (i + 2) % 3];
      into[3 + i] = sense * (byU[j]! * byV[k]! - byU[k]! * byV[j]!);
    }
  };
  const byU = new Float64Array(3),
    byV = new Float64Array(3);
  const sense = senseOf(form, at);
  return (u, v, into) => form(u, v, into, sense);
}

/** Whether the form's normal points as the face's does, asked away from poles and tips. */
function senseOf(form: (u: number, v: number, into: Float64Array, sense: number) => void, at: At): number {
  const mine = new Float64Array(6),
    theirs = new Float64Array(6);
  for (const v of [0.37, 1.61]) {
    form(0.3, v, mine, 1);
    at(0.3, v, theirs);
    const alike = mine[3]! * theirs[3]! + mine[4]! * theirs[4]! + mine[5]! * theirs[5]!;
    if (alike !== 0) return Math.sign(alike);
  }
  return 1;
}

/** An edge in the parameters of its face, from where the face's outline begins it to where it ends it. */
export interface FlatEdge {
  readonly from: number;
  readonly to: number;
  /** In how many pieces it is smooth. */
  readonly pieces: number;
  /** A straight line in the parameters. */
  readonly straight: boolean;
  /** Writes u, v and how both change with t. */
  readonly at: (t: number, into: Float64Array) => void;
  readonly release: () => void;
}

/** An edge of a face that is laid forward; undefined for what lies within the face and bounds nothing. */
export function flatEdge(kernel: Kernel, edge: TopoDS_Edge, face: TopoDS_Face): FlatEdge | undefined {
  const oc = kernel.library,
    side = edge.Orientation(),
    { TopAbs_FORWARD, TopAbs_REVERSED } = oc.TopAbs_Orientation;
  if (side !== TopAbs_FORWARD && side !== TopAbs_REVERSED) return undefined;
  const curve = new oc.BRepAdaptor_Curve2d(edge, face),
    type = String(curve.GetType()),
    point = new oc.gp_Pnt2d(),
    turn = new oc.gp_Vec2d();
  const ask: FlatEdge["at"] = (t, into) => {
    curve.D1(t, point, turn);
    into[0] = point.X();
    into[1] = point.Y();
    into[2] = turn.X();
    into[3] = turn.Y();
  };
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()],
    [from, to] = side === TopAbs_FORWARD ? [first, last] : [last, first];
  const pieces = type === "GeomAbs_BSplineCurve" ? Math.max(1, curve.NbKnots() - 1) : 1,
    straight = type === "GeomAbs_Line";
  const release = () => kernel.release(curve, point, turn);
  const known = straight ? lineForm(ask, first) : isRound(type) && roundForm(ask);
  if (!known) return { from, to, pieces, straight, at: ask, release };
  release();
  return { from, to, pieces, straight, at: known, release: () => {} };
}

const isRound = (type: string): boolean => type === "GeomAbs_Circle" || type === "GeomAbs_Ellipse";

type FlatAt = FlatEdge["at"];

function lineForm(ask: FlatAt, from: number): FlatAt {
  const row = new Float64Array(4);
  ask(from, row);
  const [u, v, du, dv] = [row[0]!, row[1]!, row[2]!, row[3]!];
  return (t, into) => {
    into[0] = u + (t - from) * du;
    into[1] = v + (t - from) * dv;
    into[2] = du;
    into[3] = dv;
  };
}

/** Place and direction at 0 and the place half a turn on give middle, c and s of middle + c cos t + s sin t. */
function roundForm(ask: FlatAt): FlatAt {
  const row = new Float64Array(4);
  ask(0, row);
  const [u, v, su, sv] = [row[0]!, row[1]!, row[2]!, row[3]!];
  ask(Math.PI, row);
  const cu = (u - row[0]!) / 2,
    cv = (v - row[1]!) / 2;
  return (t, into) => {
    const cos = Math.cos(t),
      sin = Math.sin(t);
    into[0] = u - cu + cu * cos + su * sin;
    into[1] = v - cv + cv * cos + sv * sin;
    into[2] = su * cos - cu * sin;
    into[3] = sv * cos - cv * sin;
  };
}
