import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { FaceName } from "@/core/naming/names";
import type { Kernel } from "./opencascade";

/**
 * A body, or several, with the names of its faces in the order the explorer meets them. A merged face carries
 * the names of all it was merged from, the oldest first.
 */
export interface Solid {
  readonly shape: TopoDS_Shape;
  readonly names: readonly (readonly FaceName[])[];
}

type ShapeKind = "FACE" | "EDGE" | "VERTEX" | "SOLID" | "SHELL" | "WIRE";

/** Sub-shapes of a kind in explorer order. The caller releases them. */
export function explore(kernel: Kernel, shape: TopoDS_Shape, kind: ShapeKind): TopoDS_Shape[] {
  const { TopExp_Explorer, TopAbs_ShapeEnum } = kernel.library;
  const list: TopoDS_Shape[] = [];
  const explorer = new TopExp_Explorer(shape, TopAbs_ShapeEnum[`TopAbs_${kind}`]);
  for (; explorer.More(); explorer.Next()) list.push(explorer.Current());
  explorer.delete();
  return list;
}

/** The place of shapes in a list, by identity. This build binds no shape maps; the library's hash parts the list. */
export class ShapeIndex {
  private readonly buckets = new Map<number, number[]>();
  readonly shapes: TopoDS_Shape[] = [];
  constructor(private readonly kernel: Kernel) {}
  private bucket(shape: TopoDS_Shape): number[] {
    const hash = this.kernel.library.ReplicadShapeHasher.HashCode(shape, 2_147_483_647);
    let list = this.buckets.get(hash);
    if (!list) this.buckets.set(hash, (list = []));
    return list;
  }
  /** Number from 0, or -1. */
  find(shape: TopoDS_Shape): number {
    return this.bucket(shape).find((i) => this.shapes[i]!.IsSame(shape)) ?? -1;
  }
  /** The number of a shape; where it is new the index keeps the handle. */
  place(shape: TopoDS_Shape): number {
    const list = this.bucket(shape),
      known = list.find((i) => this.shapes[i]!.IsSame(shape));
    if (known !== undefined) return known;
    const k = this.shapes.push(shape) - 1;
    list.push(k);
    return k;
  }
}

/** Sub-shapes of a kind, each once, in explorer order, and where to find one. The caller releases the shapes. */
export function distinct(
  kernel: Kernel,
  shape: TopoDS_Shape,
  kind: ShapeKind,
): { index: ShapeIndex; shapes: TopoDS_Shape[] } {
  const index = new ShapeIndex(kernel);
  for (const s of explore(kernel, shape, kind)) if (index.shapes[index.place(s)] !== s) s.delete();
  return { index, shapes: index.shapes };
}

const faceLists = new WeakMap<TopoDS_Shape, ReturnType<typeof distinct>>();

/** The faces of a shape as `distinct` gives them, looked up once: they belong to the shape and are released with it. */
export function faceShapes(kernel: Kernel, shape: TopoDS_Shape): ReturnType<typeof distinct> {
  let list = faceLists.get(shape);
  if (!list) {
    faceLists.set(shape, (list = distinct(kernel, shape, "FACE")));
    kernel.attach(shape, list.shapes);
  }
  return list;
}

/** Several bodies as one, their faces in order. The shapes are shared, not copied. */
export function compound(kernel: Kernel, solids: readonly Solid[]): Solid {
  const oc = kernel.library,
    builder = new oc.TopoDS_Builder(),
    shape = new oc.TopoDS_Compound();
  builder.MakeCompound(shape);
  for (const s of solids) builder.Add(shape, s.shape);
  builder.delete();
  return { shape, names: solids.flatMap((s) => s.names) };
}

/** What kind of surface carries a face, in the library's word. */
export function surfaceType(kernel: Kernel, shape: TopoDS_Shape): string {
  const oc = kernel.library,
    face = oc.TopoDS.Face(shape),
    surface = new oc.BRepAdaptor_Surface(face, false),
    type = String(surface.GetType());
  kernel.release(surface, face);
  return type;
}
