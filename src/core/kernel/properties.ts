import { EIGEN } from "./tolerance";
import type { TopoDS_Shape } from "replicad-opencascadejs";
import { add3, cross3, scale3, unit3, type Vec3, eachAxis, map3, vec3 } from "@/core/geometry/vector";
import { integrate, type FaceIntegral } from "./integral";
import type { Kernel } from "./opencascade";
import { placed } from "./place";
import { explore, type Solid } from "./solid";

/** Geometric properties of a body; mm, mm², mm³, and mm⁵ for moments (times density: mass moments). */
export interface Properties {
  readonly bodies: number;
  readonly valid: boolean;
  readonly closed: boolean;
  readonly volume: number;
  readonly area: number;
  readonly centre: Vec3;
  /** Moments of inertia about the centre of mass along x, y and z, as rows, for unit density. */
  readonly tensor: readonly [Vec3, Vec3, Vec3];
  /** Principal moments of inertia about the centre of mass, ascending, for unit density. */
  readonly moments: Vec3;
  /** Unit directions of the principal axes, in the order of the moments. */
  readonly axes: readonly [Vec3, Vec3, Vec3];
  readonly box: { readonly min: Vec3; readonly max: Vec3 };
}

/** Figures of a body about a point near it, summed over its faces. */
interface Sums {
  readonly about: Vec3;
  readonly area: number;
  readonly volume: number;
  /** Volume times how far its centre lies from the point. */
  readonly first: Vec3;
  /** Volume integrals of the products of coordinates from the point. */
  readonly second: readonly [Vec3, Vec3, Vec3];
}

function sumsOf(kernel: Kernel, shape: TopoDS_Shape): Sums {
  const { min, max } = roughBoxOf(kernel, shape),
    about = scale3(add3(min, max), 0.5),
    faces = explore(kernel, shape, "FACE");
  const parts = faces.map((face) => integrate(kernel, face, about));
  kernel.release(...faces);
  const sum = (of: (part: FaceIntegral) => number) => parts.reduce((total, part) => total + of(part), 0);
  const [xx, yy, zz, xy, xz, yz] = [0, 1, 2, 3, 4, 5].map((i) => sum((part) => part.second[i]!));
  return {
    about,
    area: sum((part) => part.area),
    volume: sum((part) => part.volume),
    first: eachAxis((axis) => sum((part) => part.first[axis]!)),
    second: [
      [xx!, xy!, xz!],
      [xy!, yy!, yz!],
      [xz!, yz!, zz!],
    ],
  };
}

/** The centre of mass; for what has no volume the point that the sums are about. */
const centreOf = ({ about, first, volume }: Sums): Vec3 =>
  volume === 0 ? about : add3(about, scale3(first, 1 / volume));

/** Moments of inertia about the centre, from the second moments about a point: ∫ (r² δ - x xᵀ), by Steiner. */
function tensorOf({ first, second, volume }: Sums): Properties["tensor"] {
  const central = (i: number, j: number): number =>
    second[i]![j]! - (volume === 0 ? 0 : (first[i]! * first[j]!) / volume);
  const all = central(0, 0) + central(1, 1) + central(2, 2);
  const row = (i: number): Vec3 => eachAxis((j) => (i === j ? all : 0) - central(i, j));
  return [row(0), row(1), row(2)];
}

/**
 * Eigenvalues of a symmetric 3 × 3 matrix by Jacobi rotations (Golub & Van Loan 8.5), ascending, and their unit
 * vectors.
 */
export function eigen3(m: readonly (readonly number[])[]): { values: Vec3; vectors: [Vec3, Vec3, Vec3] } {
  const a = m.map((r) => [...r]),
    v = [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ];
  for (let sweep = 0; sweep < 60; sweep++) {
    let p = 0,
      q = 1;
    for (const [i, j] of [
      [0, 1],
      [0, 2],
      [1, 2],
    ] as const)
      if (Math.abs(a[i]![j]!) > Math.abs(a[p]![q]!)) [p, q] = [i, j];
    if (Math.abs(a[p]![q]!) <= EIGEN * (Math.abs(a[0]![0]!) + Math.abs(a[1]![1]!) + Math.abs(a[2]![2]!))) break;
    const theta = (a[q]![q]! - a[p]![p]!) / (2 * a[p]![q]!);
    const t = Math.sign(theta || 1) / (Math.abs(theta) + Math.hypot(theta, 1));
    const c = 1 / Math.hypot(t, 1),
      s = t * c;
    for (let k = 0; k < 3; k++) {
      const u = a[k]![p]!,
        w = a[k]![q]!;
      a[k]![p] = c * u - s * w;
      a[k]![q] = s * u + c * w;
    }
    for (let k = 0; k < 3; k++) {
      const u = a[p]![k]!,
        w = a[q]![k]!;
      a[p]![k] = c * u - s * w;
      a[q]![k] = s * u + c * w;
    }
    for (const row of v) {
      const [u, w] = [row[p]!, row[q]!];
      row[p] = c * u - s * w;
      row[q] = s * u + c * w;
    }
  }
  const order = [0, 1, 2].sort((i, j) => a[i]![i]! - a[j]![j]!),
    column = (i: number): Vec3 => [v[0]![i]!, v[1]![i]!, v[2]![i]!];
  return {
    values: eachAxis((axis) => a[order[axis]!]![order[axis]!]!),
    vectors: order.map(column) as [Vec3, Vec3, Vec3],
  };
}

/** Volume by the plain rule: exact for planes and whole cylinders, good to 1e-5 elsewhere, and quick. */
export function roughVolume(kernel: Kernel, shape: TopoDS_Shape): number {
  const props = new kernel.library.GProp_GProps();
  kernel.library.BRepGProp.VolumeProperties(shape, props, false, false, false);
  const volume = props.Mass();
  kernel.release(props);
  return volume;
}

export function volumeOf(kernel: Kernel, shape: TopoDS_Shape): { volume: number; centre: Vec3 } {
  const sums = sumsOf(kernel, shape);
  return { volume: sums.volume, centre: centreOf(sums) };
}

/** Measures a body exactly on its surfaces; facets play no part. */
export function propertiesOf(kernel: Kernel, solid: Solid): Properties {
  return kernel.guard("measuring", () => {
    const oc = kernel.library;
    const { shape } = solid;
    const sums = sumsOf(kernel, shape),
      tensor = tensorOf(sums),
      inertia = eigen3(tensor);
    const solids = explore(kernel, shape, "SOLID"),
      shells = explore(kernel, shape, "SHELL");
    const closed = shells.length > 0 && shells.every((sh) => oc.BRep_Tool.IsClosed(sh));
    const result: Properties = {
      bodies: solids.length,
      valid: isValid(kernel, shape),
      closed,
      volume: sums.volume,
      area: sums.area,
      centre: centreOf(sums),
      tensor,
      moments: inertia.values,
      axes: inertia.vectors,
      box: boxOf(kernel, shape),
    };
    kernel.release(...solids, ...shells);
    return result;
  });
}

const validity = new WeakMap<TopoDS_Shape, boolean>();
/**
 * Whether the library finds a shape sound: faces within their edges, shells closed, nothing inside out. Asked once a
 * shape.
 */
export function isValid(kernel: Kernel, shape: TopoDS_Shape): boolean {
  let valid = validity.get(shape);
  if (valid === undefined) {
    const check = kernel.run(() => new kernel.library.BRepCheck_Analyzer(shape, true, false, false));
    validity.set(shape, (valid = check.IsValid()));
    kernel.release(check);
  }
  return valid;
}

/** A box that surely holds a shape, not tight: many times cheaper, enough to reach past it or to judge its size. */
export function roughBoxOf(kernel: Kernel, shape: TopoDS_Shape): { min: Vec3; max: Vec3 } {
  const oc = kernel.library,
    box = new oc.Bnd_Box();
  oc.BRepBndLib.Add(shape, box, false);
  const result = {
    min: vec3(box.GetXMin(), box.GetYMin(), box.GetZMin()),
    max: vec3(box.GetXMax(), box.GetYMax(), box.GetZMax()),
  };
  box.delete();
  return result;
}

/** Tight bounding box along the axes. */
export function boxOf(kernel: Kernel, shape: TopoDS_Shape): { min: Vec3; max: Vec3 } {
  const oc = kernel.library;
  const box = new oc.Bnd_Box();
  oc.BRepBndLib.AddOptimal(shape, box, false, false);
  box.SetGap(0);
  // the optimal box is good to 1e-7; show round sizes as round
  const clean = (v: number) => Math.round(v * 1e6) / 1e6 + 0;
  const result = {
    min: map3(vec3(box.GetXMin(), box.GetYMin(), box.GetZMin()), clean),
    max: map3(vec3(box.GetXMax(), box.GetYMax(), box.GetZMax()), clean),
  };
  box.delete();
  return result;
}

/** How far a body reaches along a direction, mm: as exact as the tight box. */
export function extentAlong(kernel: Kernel, solid: Solid, along: Vec3): number {
  const z = unit3(along),
    x = unit3(cross3(z, Math.abs(z[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0]));
  const turned = placed(kernel, solid, { rows: [x, cross3(z, x), z], shift: [0, 0, 0] });
  const { min, max } = boxOf(kernel, turned.shape);
  kernel.release(turned.shape);
  return max[2] - min[2];
}
