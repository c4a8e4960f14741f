import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { Vec3 } from "@/core/geometry/vector";
import type { Kernel } from "./opencascade";
import { distinct, faceKey, type FaceName, type Solid } from "./solid";

export type Carrier =
  | { readonly kind: "plane"; readonly normal: Vec3; readonly offset: number }
  | { readonly kind: "cylinder"; readonly at: Vec3; readonly axis: Vec3; readonly radius: number; readonly hollow: boolean }
  | { readonly kind: "other"; readonly type: string };

/** A face in numbers: what carries it, and cheap invariants of its extent. mm, mm². */
export interface Face {
  /** Unique within the body. */
  readonly key: string;
  readonly names: readonly FaceName[];
  readonly carrier: Carrier;
  readonly area: number;
  readonly centre: Vec3;
  /** Total length of its bounding edges. */
  readonly rim: number;
}

/** Describes every face of a body, in explorer order. Normals point out of the material. */
export function facesOf(kernel: Kernel, solid: Solid): Face[] {
  return kernel.guard("describing faces", () => {
    const { shapes } = distinct(kernel, solid.shape, "FACE");
    const list = shapes.map((shape, i) => ({ names: solid.names[i] ?? [], ...describe(kernel, shape) }));
    kernel.release(...shapes);
    // faces that share a name are told apart by place
    const groups = new Map<string, number[]>();
    list.forEach((f, i) => {
      const key = f.names[0] ? faceKey(f.names[0]) : "unnamed";
      groups.set(key, [...(groups.get(key) ?? []), i]);
    });
    const keys: string[] = [];
    for (const [key, members] of groups) {
      members.sort((a, b) => comparePlace(list[a]!.centre, list[b]!.centre));
      members.forEach((m, k) => (keys[m] = k ? `${key}~${k + 1}` : key));
    }
    return list.map((f, i) => ({ key: keys[i]!, ...f }));
  });
}

const comparePlace = (a: Vec3, b: Vec3): number => {
  for (let i = 0; i < 3; i++) if (Math.abs(a[i]! - b[i]!) > 1e-6) return a[i]! - b[i]!;
  return 0;
};

function describe(kernel: Kernel, shape: TopoDS_Shape): Omit<Face, "key" | "names"> {
  const oc = kernel.library;
  const face = oc.TopoDS.Face(shape);
  const surface = new oc.GProp_GProps(), rim = new oc.GProp_GProps();
  oc.BRepGProp.SurfaceProperties(face, surface, false, false);
  oc.BRepGProp.LinearProperties(face, rim, false, false);
  const c = surface.CentreOfMass();
  const adaptor = new oc.BRepAdaptor_Surface(face, true);
  const flipped = face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED;
  const type = String(adaptor.GetType());
  let carrier: Carrier = { kind: "other", type };
  if (type === "GeomAbs_Plane") {
    const plane = adaptor.Plane();
    const position = plane.Position();
    const d = position.Direction(), at = position.Location();
    const sign = (position.Direct() ? 1 : -1) * (flipped ? -1 : 1);
    const normal: Vec3 = [tidy(sign * d.X()), tidy(sign * d.Y()), tidy(sign * d.Z())];
    carrier = { kind: "plane", normal, offset: normal[0] * at.X() + normal[1] * at.Y() + normal[2] * at.Z() };
    kernel.release(d, at, position, plane);
  } else if (type === "GeomAbs_Cylinder") {
    const cylinder = adaptor.Cylinder();
    const position = cylinder.Position();
    const d = position.Direction(), at = position.Location();
    carrier = {
      kind: "cylinder", at: [at.X(), at.Y(), at.Z()], axis: [tidy(d.X()), tidy(d.Y()), tidy(d.Z())], radius: cylinder.Radius(),
      hollow: position.Direct() === flipped,
    };
    kernel.release(d, at, position, cylinder);
  }
  const result = { carrier, area: surface.Mass(), centre: [c.X(), c.Y(), c.Z()] as Vec3, rim: rim.Mass() };
  kernel.release(c, surface, rim, adaptor, face);
  return result;
}

/** Direction cosines a rounding away from 0 or ±1 are put there. */
const tidy = (v: number): number => (Math.abs(v) < 1e-14 ? 0 : Math.abs(Math.abs(v) - 1) < 1e-14 ? Math.sign(v) : v);
