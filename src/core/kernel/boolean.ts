import { AS_LARGE, SAME_CARRIER } from "./tolerance";
import { ROUNDING, SAME_WAY } from "@/core/geometry/tolerance";
import type { TopoDS_Shape } from "replicad-opencascadejs";
import { cross3, length3, sub3 } from "@/core/geometry/vector";
import type { Carrier } from "./carrier";
import { carrierOf } from "./recognise";
import { carried } from "./history";
import { KernelFault, type Kernel } from "./opencascade";
import { roughVolume } from "./properties";
import { explore, faceShapes, surfaceType, type Solid } from "./solid";

type BooleanKind = "fuse" | "cut" | "common";

/**
 * Joins, subtracts or intersects bodies; names of faces follow through the operation's own history.
 * Neighbouring faces on one carrier are merged. Arguments are left alone.
 */
export function combine(kernel: Kernel, kind: BooleanKind, body: Solid, tools: readonly Solid[], merge = true): Solid {
  return kernel.guard("combining bodies", () => {
    const make = operation(kernel, kind, body, tools);
    const plain = make.Shape();
    const types = merge ? faceShapes(kernel, plain).shapes.map((f) => surfaceType(kernel, f)) : [];
    if (merge && hasRoundTwins(kernel, plain, types)) {
      const solid = mergedOnCopies(kernel, kind, body, tools, plain) ?? carried(kernel, plain, make, [body, ...tools]);
      kernel.release(make, ...(solid.shape === plain ? [] : [plain]));
      return solid;
    }
    if (merge) kernel.run(() => make.SimplifyResult(true, true, SAME_WAY));
    const shape = merge ? make.Shape() : plain;
    const bad = merge && isSpoilt(kernel, plain, shape);
    const solid = bad ? undefined : carried(kernel, shape, make, [body, ...tools]);
    kernel.release(make, ...(shape === plain ? [] : [plain]), ...(bad ? [shape] : []));
    return solid ?? combine(kernel, kind, body, tools, false);
  });
}

function operation(kernel: Kernel, kind: BooleanKind, body: Solid, tools: readonly Solid[]) {
  const oc = kernel.library;
  const makers = { fuse: oc.BRepAlgoAPI_Fuse, cut: oc.BRepAlgoAPI_Cut, common: oc.BRepAlgoAPI_Common };
  const make = new makers[kind]();
  const args = new oc.NCollection_List_TopoDS_Shape(),
    others = new oc.NCollection_List_TopoDS_Shape();
  args.Append(body.shape);
  for (const t of tools) others.Append(t.shape);
  make.SetArguments(args);
  make.SetTools(others);
  make.SetNonDestructive(true);
  kernel.run(() => make.Build());
  kernel.release(args, others);
  if (!make.HasErrors()) return make;
  kernel.release(make);
  throw new KernelFault("the two bodies could not be combined");
}

/**
 * Merging round faces damages the arguments in place, whatever is asked of the library, and with them every shape that
 * shares their surfaces: it works on copies. @returns undefined where merging goes wrong all the same
 */
function mergedOnCopies(
  kernel: Kernel,
  kind: BooleanKind,
  body: Solid,
  tools: readonly Solid[],
  plain: TopoDS_Shape,
): Solid | undefined {
  const copies = [body, ...tools].map((s) => copied(kernel, s));
  const [first, ...rest] = copies as [Solid, ...Solid[]];
  const make = operation(kernel, kind, first, rest);
  kernel.run(() => make.SimplifyResult(true, true, SAME_WAY));
  const shape = make.Shape();
  const isGood = !isSpoilt(kernel, plain, shape) && isAsLarge(kernel, plain, shape);
  const solid = isGood ? carried(kernel, shape, make, copies) : undefined;
  kernel.release(make, ...(isGood ? [] : [shape]), ...copies.map((c) => c.shape));
  return solid;
}

/** A body that shares nothing with the one it is a copy of; faces keep their order. */
export function copied(kernel: Kernel, solid: Solid): Solid {
  const oc = kernel.library,
    still = new oc.gp_Trsf();
  const make = kernel.run(() => new oc.BRepBuilderAPI_Transform(solid.shape, still, true, false));
  const shape = make.Shape();
  kernel.release(make, still);
  return { shape, names: solid.names };
}

function isAsLarge(kernel: Kernel, plain: TopoDS_Shape, merged: TopoDS_Shape): boolean {
  const [was, is] = [roughVolume(kernel, plain), roughVolume(kernel, merged)];
  return Math.abs(is - was) <= AS_LARGE * Math.abs(was);
}

/** Whether two round faces of a shape are cut from one surface, so that merging would take hold of them. */
function hasRoundTwins(kernel: Kernel, shape: TopoDS_Shape, types: readonly string[]): boolean {
  const round = faceShapes(kernel, shape).shapes.filter((_, i) => types[i] !== "GeomAbs_Plane");
  if (round.length < 2) return false;
  const carriers = round.map((f) => {
    const face = kernel.library.TopoDS.Face(f),
      carrier = carrierOf(kernel, face);
    kernel.release(face);
    return carrier;
  });
  return carriers.some((a, i) => carriers.slice(i + 1).some((b) => isSameRound(a, b)));
}

/** Whether two round carriers are one surface, as closely as merging looks. */
function isSameRound(a: Carrier, b: Carrier): boolean {
  if (a.kind !== b.kind || a.kind === "plane" || b.kind === "plane") return false;
  // how these lie is not looked at: a copy too many does no harm
  if (a.kind === "other" || b.kind === "other" || a.kind === "elliptic" || b.kind === "elliptic") return true;
  const sizes = (c: typeof a) => (c.kind === "cone" ? [c.half] : c.kind === "torus" ? [c.major, c.minor] : [c.radius]);
  if (sizes(a).some((s, i) => Math.abs(s - sizes(b)[i]!) > SAME_CARRIER)) return false;
  const at = (c: typeof a) => (c.kind === "cylinder" ? c.at : c.kind === "cone" ? c.tip : c.centre);
  const apart = sub3(at(b), at(a));
  if (a.kind === "sphere" || b.kind === "sphere") return length3(apart) <= SAME_CARRIER;
  if (length3(cross3(a.axis, b.axis)) > SAME_CARRIER) return false;
  return length3(a.kind === "cylinder" ? cross3(apart, a.axis) : apart) <= SAME_CARRIER;
}

/**
 * Merging round faces that close on themselves (two half turns) goes wrong in the library: the shell is left open, or
 * a face turned inside out. @param plain the shape before merging
 */
function isSpoilt(kernel: Kernel, plain: TopoDS_Shape, merged: TopoDS_Shape): boolean {
  if (count(kernel, merged) === count(kernel, plain)) return false;
  const { BRep_Tool } = kernel.library,
    shells = explore(kernel, merged, "SHELL"),
    open = shells.some((s) => !BRep_Tool.IsClosed(s));
  kernel.release(...shells);
  if (open) return true;
  // cylinders go wrong even where only their ends were merged; of other round faces (dear to measure) only new ones can
  const { index } = faceShapes(kernel, plain);
  return faceShapes(kernel, merged).shapes.some((f) => {
    const type = surfaceType(kernel, f);
    return type !== "GeomAbs_Plane" && (type === "GeomAbs_Cylinder" || index.find(f) < 0) && isInsideOut(kernel, f);
  });
}

function isInsideOut(kernel: Kernel, face: TopoDS_Shape): boolean {
  const props = new kernel.library.GProp_GProps();
  kernel.library.BRepGProp.SurfaceProperties(face, props, false, false);
  const area = props.Mass();
  kernel.release(props);
  return area <= 0;
}

/**
 * Whether an operation took nothing away: the very same faces, or as many with the same volume (a face that was only
 * touched is made anew).
 */
export function isUnchanged(kernel: Kernel, before: Solid, after: Solid): boolean {
  if (before.names.length !== after.names.length) return false;
  const { index } = faceShapes(kernel, before.shape),
    same = faceShapes(kernel, after.shape).shapes.every((f) => index.find(f) >= 0);
  if (same) return true;
  const [was, is] = [roughVolume(kernel, before.shape), roughVolume(kernel, after.shape)];
  return is >= was * (1 - ROUNDING);
}

export const isEmpty = (kernel: Kernel, s: Solid): boolean => count(kernel, s.shape, "SOLID") === 0;

/** How many sub-shapes there are, without taking hold of any. */
function count(kernel: Kernel, shape: TopoDS_Shape, kind: "FACE" | "SOLID" = "FACE"): number {
  const { TopExp_Explorer, TopAbs_ShapeEnum } = kernel.library,
    explorer = new TopExp_Explorer(shape, TopAbs_ShapeEnum[`TopAbs_${kind}`]);
  let n = 0;
  for (; explorer.More(); explorer.Next()) n++;
  explorer.delete();
  return n;
}
