import type { BRepGProp_Face, TopoDS_Shape } from "replicad-opencascadejs";
import type { Vec3 } from "@/core/geometry/vector";
import { explore } from "./solid";
import type { Kernel } from "./opencascade";
import { flatEdge, parametric, type FlatEdge, type Parametric } from "./parametric";
import { FACE_ACCURACY, MOST_HALVES } from "./tolerance";

/**
 * What a face adds to the figures of its body: area, area times place, and by the theorem of Gauss volume, its first
 * and its second moments, about a point. mm², mm³, mm³, mm⁴, mm⁵.
 */
export interface FaceIntegral {
  readonly area: number;
  readonly areaFirst: Vec3;
  readonly volume: number;
  readonly first: Vec3;
  /** xx, yy, zz, xy, xz, yz. */
  readonly second: readonly [number, number, number, number, number, number];
  /** Points along its edges, enough to see how far it reaches. */
  readonly outline: readonly Vec3[];
}

/** Places in a row of sums: area, its three moments, volume, its three and its six moments. */
const SUMS = 14;
type Sums = Float64Array;

/** Abscissae and weights of Gauss and Legendre on -1 to 1 (Abramowitz & Stegun 25.4.30), the half that is positive. */
const GAUSS_4 = {
  x: [0.3399810435848563, 0.8611363115940526],
  w: [0.6521451548625461, 0.3478548451374538],
};
const GAUSS_10 = {
  x: [0.14887433898163122, 0.4333953941292472, 0.6794095682990244, 0.8650633666889845, 0.9739065285171717],
  w: [0.29552422471475287, 0.26926671930999635, 0.21908636251598204, 0.1494513491505806, 0.06667134430868814],
};
/** Fifteen points of Kronrod about seven of Gauss (Piessens et al., QUADPACK, qk15), the half from the middle. */
const KRONROD = {
  x: [
    0, 0.20778495500789848, 0.4058451513773972, 0.5860872354676911, 0.7415311855993945, 0.8648644233597691,
    0.9491079123427585, 0.9914553711208126,
  ],
  w: [
    0.20948214108472782, 0.20443294007529889, 0.19035057806478542, 0.1690047266392679, 0.14065325971552592,
    0.10479001032225019, 0.06309209262997856, 0.022935322010529224,
  ],
  gauss: [0.4179591836734694, 0, 0.3818300505051189, 0, 0.27970539148927664, 0, 0.1294849661688697, 0],
};

/** Which parameter a face is summed along first: the straight one, or the one it turns about. */
interface Inner {
  readonly alongU: boolean;
  readonly rule: { readonly x: readonly number[]; readonly w: readonly number[] };
  /** Where the sum begins; any line that the surface is defined on will do. */
  readonly from: number;
  /** Longest span for one use of the rule, in the parameter. */
  readonly span: number;
  readonly knots: readonly number[];
}

const RULED = ["GeomAbs_Cylinder", "GeomAbs_Cone", "GeomAbs_SurfaceOfExtrusion"];
const TURNED = ["GeomAbs_Sphere", "GeomAbs_Torus", "GeomAbs_SurfaceOfRevolution", "GeomAbs_OffsetSurface"];

function innerOf(kernel: Kernel, type: string, face: BRepGProp_Face): Inner {
  const { U1, V1 } = face.Bounds();
  const straight = { rule: GAUSS_4, span: Infinity, knots: [] };
  if (type === "GeomAbs_Plane") return { ...straight, alongU: true, from: U1 };
  if (RULED.includes(type)) return { ...straight, alongU: false, from: V1 };
  if (TURNED.includes(type)) return { alongU: true, rule: GAUSS_10, from: U1, span: Math.PI / 2, knots: [] };
  return { alongU: true, rule: GAUSS_10, from: U1, span: Infinity, knots: knotsOf(kernel, face) };
}

/** Where the surface is less smooth along u, its ends left out. */
function knotsOf(kernel: Kernel, face: BRepGProp_Face): number[] {
  const spans = face.SUIntSubs();
  const knots = new kernel.library.NCollection_Array1_double(1, spans + 1);
  face.UKnots(knots);
  const list = Array.from({ length: spans + 1 }, (_, i) => knots.Value(i + 1));
  kernel.release(knots);
  return list.slice(1, -1);
}

/** A stretch of an edge, its sums by the finer rule, and how far the coarser one is from them. */
interface Stretch {
  readonly edge: FlatEdge;
  readonly from: number;
  readonly to: number;
  readonly sums: Sums;
  readonly areaApart: number;
  readonly volumeApart: number;
}

/** Sums over one face about a point: across the face from a line of it to its edges, and along the edges (Green). */
class FaceSum {
  private readonly row = new Float64Array(6);
  private readonly flat = new Float64Array(4);
  /** How far the face reaches from the point, mm. */
  private reach = 0;

  constructor(
    private readonly surface: Parametric,
    private readonly inner: Inner,
    private readonly about: Vec3,
  ) {}

  /** The whole face: stretches whose two rules differ are halved, all of one length before shorter ones. */
  over(edges: readonly FlatEdge[]): Sums {
    const total: Sums = new Float64Array(SUMS);
    let open = edges.flatMap((edge) =>
      Array.from({ length: edge.pieces }, (_, i) => {
        const step = (edge.to - edge.from) / edge.pieces;
        return this.stretch(edge, edge.from + i * step, edge.from + (i + 1) * step);
      }),
    );
    const area = Math.abs(open.reduce((sum, stretch) => sum + stretch.sums[0]!, 0)),
      worst = FACE_ACCURACY * area;
    for (let left = MOST_HALVES; open.length;) {
      const apart = left > 0 ? open.filter((s) => s.areaApart > worst || s.volumeApart > worst * this.reach) : [];
      const halved = new Set(apart);
      for (const stretch of open)
        if (!halved.has(stretch)) for (let i = 0; i < SUMS; i++) total[i]! += stretch.sums[i]!;
      left -= apart.length;
      open = apart.flatMap(({ edge, from, to }) => {
        const middle = (from + to) / 2;
        return [this.stretch(edge, from, middle), this.stretch(edge, middle, to)];
      });
    }
    return total;
  }

  private stretch(edge: FlatEdge, from: number, to: number): Stretch {
    const middle = (from + to) / 2,
      half = (to - from) / 2;
    const fine = new Float64Array(SUMS),
      strip = new Float64Array(SUMS);
    if (edge.straight && this.surface.type === "GeomAbs_Plane") {
      // polynomials of the fifth degree at most: one rule is exact
      for (let k = 0; k < GAUSS_4.x.length; k++)
        for (const side of [-1, 1]) {
          this.strip(edge, middle + side * half * GAUSS_4.x[k]!, strip);
          for (let i = 0; i < SUMS; i++) fine[i]! += strip[i]! * GAUSS_4.w[k]! * half;
        }
      return { edge, from, to, sums: fine, areaApart: 0, volumeApart: 0 };
    }
    let area = 0,
      volume = 0;
    for (let k = 0; k < KRONROD.x.length; k++)
      for (const side of k === 0 ? [0] : [-1, 1]) {
        this.strip(edge, middle + side * half * KRONROD.x[k]!, strip);
        for (let i = 0; i < SUMS; i++) fine[i]! += strip[i]! * KRONROD.w[k]! * half;
        area += strip[0]! * KRONROD.gauss[k]! * half;
        volume += strip[4]! * KRONROD.gauss[k]! * half;
      }
    const areaApart = Math.abs(fine[0]! - area),
      volumeApart = Math.abs(fine[4]! - volume);
    return { edge, from, to, sums: fine, areaApart, volumeApart };
  }

  /** The sum across the face from its beginning to a point of the edge, times how fast the edge crosses. */
  private strip(edge: FlatEdge, t: number, into: Sums): void {
    into.fill(0);
    edge.at(t, this.flat);
    const { alongU, rule, from, span, knots } = this.inner;
    const across = alongU ? this.flat[3]! : -this.flat[2]!;
    if (across === 0) return;
    const to = alongU ? this.flat[0]! : this.flat[1]!,
      other = alongU ? this.flat[1]! : this.flat[0]!;
    const low = Math.min(from, to),
      high = Math.max(from, to),
      between = knots.filter((knot) => knot > low && knot < high);
    const stops = [from, ...(to < from ? between.reverse() : between), to];
    for (let s = 0; s + 1 < stops.length; s++) {
      const begin = stops[s]!,
        end = stops[s + 1]!,
        pieces = Number.isFinite(span) ? Math.max(1, Math.ceil(Math.abs(end - begin) / span)) : 1,
        half = (end - begin) / pieces / 2;
      for (let p = 0; p < pieces; p++)
        for (let k = 0; k < rule.x.length; k++)
          for (const side of [-1, 1]) {
            const at = begin + half * (2 * p + 1) + side * half * rule.x[k]!;
            this.point(alongU ? at : other, alongU ? other : at, rule.w[k]! * half * across, into);
          }
    }
  }

  private point(u: number, v: number, weight: number, into: Sums): void {
    const row = this.row;
    this.surface.at(u, v, row);
    const nx = row[3]!,
      ny = row[4]!,
      nz = row[5]!;
    const x = row[0]! - this.about[0],
      y = row[1]! - this.about[1],
      z = row[2]! - this.about[2];
    this.reach = Math.max(this.reach, Math.abs(x), Math.abs(y), Math.abs(z));
    const area = Math.sqrt(nx * nx + ny * ny + nz * nz) * weight,
      through = (x * nx + y * ny + z * nz) * weight;
    into[0]! += area;
    into[1]! += area * x;
    into[2]! += area * y;
    into[3]! += area * z;
    // a cone from the point to the face: moments of degree n are (place · normal) placeⁿ / (3 + n)
    into[4]! += through / 3;
    into[5]! += (through * x) / 4;
    into[6]! += (through * y) / 4;
    into[7]! += (through * z) / 4;
    into[8]! += (through * x * x) / 5;
    into[9]! += (through * y * y) / 5;
    into[10]! += (through * z * z) / 5;
    into[11]! += (through * x * y) / 5;
    into[12]! += (through * x * z) / 5;
    into[13]! += (through * y * z) / 5;
  }
}

/** Integrals over a face about a point. The face's orientation says on which side the material is. */
export function integrate(kernel: Kernel, shape: TopoDS_Shape, about: Vec3): FaceIntegral {
  const oc = kernel.library,
    face = oc.TopoDS.Face(shape),
    asked = new oc.BRepGProp_Face(face, false),
    laid = face.Oriented(oc.TopAbs_Orientation.TopAbs_FORWARD),
    forward = oc.TopoDS.Face(laid);
  const surface = parametric(kernel, face, asked),
    shapes = explore(kernel, forward, "EDGE");
  const edges: FlatEdge[] = [];
  for (const each of shapes) {
    const edge = oc.TopoDS.Edge(each),
      flat = flatEdge(kernel, edge, forward);
    if (flat) edges.push(flat);
    kernel.release(edge, each);
  }
  const outline = edges.flatMap((edge) => pointsAlong(edge, surface));
  const s = new FaceSum(surface, innerOf(kernel, surface.type, asked), about).over(edges);
  edges.forEach((edge) => edge.release());
  surface.release();
  kernel.release(asked, forward, laid, face);
  return {
    area: s[0]!,
    areaFirst: [s[1]!, s[2]!, s[3]!],
    volume: s[4]!,
    first: [s[5]!, s[6]!, s[7]!],
    second: [s[8]!, s[9]!, s[10]!, s[11]!, s[12]!, s[13]!],
    outline,
  };
}

/** Places on each edge, the first end among them: the other one begins the next edge. */
const ALONG = 8;
function pointsAlong({ from, to, at }: FlatEdge, surface: Parametric): Vec3[] {
  const flat = new Float64Array(4),
    row = new Float64Array(6);
  return Array.from({ length: ALONG }, (_, k): Vec3 => {
    at(from + ((to - from) * k) / ALONG, flat);
    surface.at(flat[0]!, flat[1]!, row);
    return [row[0]!, row[1]!, row[2]!];
  });
}
