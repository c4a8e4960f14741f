import { COINCIDENT } from "@/core/geometry/tolerance";
import type { TopoDS_Shape } from "replicad-opencascadejs";
import { dot3, length3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import { axisOf, type Carrier } from "./carrier";
import { carrierOf } from "./recognise";
import { integrate } from "./integral";
import type { Kernel } from "./opencascade";
export type { Carrier } from "./carrier";
import { formatFace, marked, type FaceName } from "@/core/naming/names";
import { faceShapes, type Solid } from "./solid";

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
  /** How far it reaches; left out where a face is only thought of. */
  readonly reach?: Reach | undefined;
}

/** How far a face reaches from its centre: along its axis, where it has one, to both sides, and at most. mm. */
export interface Reach {
  readonly low: number;
  readonly high: number;
  readonly far: number;
}

/** Describes every face of a body, in explorer order. Normals point out of the material. */
export function facesOf(kernel: Kernel, solid: Solid): Face[] {
  return kernel.guard("describing faces", () => {
    const list = faceShapes(kernel, solid.shape).shapes.map((shape, i) => ({
      names: solid.names[i] ?? [],
      ...describeFace(kernel, shape),
    }));
    return keyedFaces(list);
  });
}

/** Keys made unique: faces that share a name are told apart by ~2, ~3 in order of place. */
export function keyedFaces(list: readonly Omit<Face, "key">[]): Face[] {
  const groups = new Map<string, number[]>();
  list.forEach((f, i) => {
    const key = f.names[0] ? formatFace(f.names[0]) : "unnamed";
    const group = groups.get(key);
    if (group) group.push(i);
    else groups.set(key, [i]);
  });
  const keys: string[] = [];
  for (const [key, members] of groups) {
    members.sort((a, b) => comparePlace(list[a]!.centre, list[b]!.centre));
    members.forEach((m, k) => (keys[m] = marked(key, k + 1)));
  }
  return list.map((f, i) => ({ key: keys[i]!, ...f }));
}

const comparePlace = (a: Vec3, b: Vec3): number => {
  for (let i = 0; i < 3; i++) if (Math.abs(a[i]! - b[i]!) > COINCIDENT) return a[i]! - b[i]!;
  return 0;
};

/** One face in numbers. */
export function describeFace(kernel: Kernel, shape: TopoDS_Shape): Omit<Face, "key" | "names"> {
  const oc = kernel.library;
  const face = oc.TopoDS.Face(shape);
  const rim = new oc.GProp_GProps();
  oc.BRepGProp.LinearProperties(face, rim, false, false);
  const { area, areaFirst, outline } = integrate(kernel, face, [0, 0, 0]);
  const carrier = carrierOf(kernel, face),
    // a face of no area, as some files hold, still lies somewhere
    centre = area === 0 ? (outline[0] ?? [0, 0, 0]) : scale3(areaFirst, 1 / area);
  const result = { carrier, area, centre, rim: rim.Mass(), reach: reachOf(carrier, centre, outline) };
  kernel.release(rim, face);
  return result;
}

/** From where to where a face lies along a line that runs as its axis does, or against it, from a place; mm. */
export function spanAlong(
  { carrier, centre, reach }: Pick<Face, "carrier" | "centre" | "reach">,
  along: Vec3,
  from: Vec3,
): readonly [low: number, high: number] | undefined {
  if (!reach) return undefined;
  const axis = axisOf(carrier)?.along,
    middle = dot3(sub3(centre, from), along);
  return axis && dot3(axis, along) < 0
    ? [middle - reach.high, middle - reach.low]
    : [middle + reach.low, middle + reach.high];
}

function reachOf(carrier: Carrier, centre: Vec3, outline: readonly Vec3[]): Reach {
  const along = axisOf(carrier)?.along ?? [0, 0, 0];
  const arms = outline.map((p) => sub3(p, centre)),
    levels = arms.map((arm) => dot3(arm, along));
  return {
    low: Math.min(0, ...levels),
    high: Math.max(0, ...levels),
    far: Math.max(0, ...arms.map((arm) => length3(arm))),
  };
}
