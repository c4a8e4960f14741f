import { SAME_WAY } from "@/core/geometry/tolerance";
import { cross3, dot3, scale3, type Vec3 } from "@/core/geometry/vector";
import type { Carrier, Elliptic } from "@/core/kernel/carrier";
import type { Surface } from "@/core/measure/surfaces";
import { isParallel, isSquare } from "../anchor";
import { keyOf } from "../body";
import type { Size } from "../kinds/kinds";

/** A size without the id it gets when it is taken. */
export type Nameless = Size extends infer S ? (S extends Size ? Omit<S, "id"> : never) : never;

/** A size that could be printed. */
export interface Candidate {
  readonly size: Nameless;
  /** How gladly a draughtsman would print it: the least first. */
  readonly cost: number;
  /** It is read as it is, whatever its maker typed. */
  readonly asRead?: boolean;
}

export type Plane = Surface & { readonly carrier: Extract<Carrier, { kind: "plane" }> };
export type Cylinder = Surface & { readonly carrier: Extract<Carrier, { kind: "cylinder" }> };
export type Cone = Surface & { readonly carrier: Extract<Carrier, { kind: "cone" }> };
type EllipticSurface = Surface & { readonly carrier: Elliptic };

export const isPlane = (s: Surface): s is Plane => s.carrier.kind === "plane";
export const isCylinder = (s: Surface): s is Cylinder => s.carrier.kind === "cylinder";
export const isElliptic = (s: Surface): s is EllipticSurface => s.carrier.kind === "elliptic";
export const isCone = (s: Surface): s is Cone => s.carrier.kind === "cone";

/** A direction that flat faces look along, with those that do; the largest first. */
export interface Direction {
  readonly along: Vec3;
  readonly planes: readonly Plane[];
  readonly area: number;
  /** An ellipse one of whose axes runs so, and whether that is its shorter one. */
  readonly ellipse?: { readonly face: string; readonly aside: boolean };
}

/** The directions of a body's flat faces, both ways as one; those with most area first. */
export function directionsOf(surfaces: readonly Surface[]): Direction[] {
  const list: { along: Vec3; planes: Plane[]; area: number }[] = [];
  for (const surface of surfaces) {
    if (!isPlane(surface)) continue;
    const known = list.find((d) => isParallel(d.along, surface.carrier.normal));
    if (known) {
      known.planes.push(surface);
      known.area += surface.area;
    } else list.push({ along: positive(surface.carrier.normal), planes: [surface], area: surface.area });
  }
  return list.sort((a, b) => b.area - a.area);
}

/** Ways in which axes of ellipses run and no flat face looks. */
export function ellipseDirections(surfaces: readonly Surface[], known: readonly Direction[]): Direction[] {
  const list: Direction[] = [];
  for (const surface of surfaces.filter(isElliptic)) {
    const { axis, long } = surface.carrier;
    for (const [aside, along] of [long, cross3(axis, long)].entries()) {
      if ([...known, ...list].some((d) => isParallel(d.along, along))) continue;
      const ellipse = { face: keyOf(surface), aside: aside > 0 };
      list.push({ along: positive(along), planes: [], area: surface.area, ellipse });
    }
  }
  return list;
}

/** Of the directions up to three that stand square to each other: those with most area between them. */
export function mainDirections(list: readonly Direction[]): Direction[] {
  let best: Direction[] = list.slice(0, 1);
  const weight = (set: readonly Direction[]) => set.reduce((s, d) => s + d.area, 0);
  const offer = (set: Direction[]) => {
    if (weight(set) > weight(best)) best = set;
  };
  for (const [i, a] of list.entries())
    for (const [k, b] of list.entries()) {
      if (k <= i || !isSquare(a.along, b.along)) continue;
      const third = list.find((c, n) => n > k && isSquare(c.along, a.along) && isSquare(c.along, b.along));
      offer(third ? [a, b, third] : [a, b]);
    }
  return best;
}

/** Of a direction and its opposite the one that points along an axis of space, or nearest to it. */
function positive(d: Vec3): Vec3 {
  const most = [0, 1, 2].reduce((m, i) => (Math.abs(d[i]!) > Math.abs(d[m]!) + SAME_WAY ? i : m), 0);
  return d[most]! < 0 ? scale3(d, -1) : d;
}

/** On which side of a plane something lies, along the plane's normal out of the material, mm. */
export const over = (plane: Plane, p: Vec3): number => dot3(plane.carrier.normal, p) - plane.carrier.offset;
