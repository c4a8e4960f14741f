import { add3, cross3, dot3, length3, scale3, type Vec3 } from "@/core/geometry/vector";
import { axisOf, normalAt, roundingOf } from "@/core/kernel/carrier";
import { goesRound, type Surface } from "@/core/measure/surfaces";
import { isSquare } from "./anchor";
import type { SizedBody } from "./body";
import { letteringFor } from "./printed";
import { facesOfSize, type Size } from "./size";
import { isMadeBevel } from "./candidates/bevels";
import { holesOf } from "./candidates/holes";
import {
  directionsOf,
  isCone,
  isCylinder,
  isPlane,
  mainDirections,
  type Direction,
  type Plane,
} from "./candidates/candidate";
import { slotsOf } from "./candidates/slots";
import { letteredLength, type Lettering } from "./lettering";
import { pocketName } from "./pockets";
import { placesFor, sideOf } from "./places";
import { TOUCHING } from "./tolerance";

/** Faces that a person takes for one thing, and what they would call it. */
export interface Feature {
  readonly kind:
    "hole" | "slot" | "boss" | "fillet" | "rounding" | "chamfer" | "recess" | "cone" | "ball" | "ring" | "face";
  /** "the hole ⌀9 at the left end". */
  readonly name: string;
  /** Without its place, as all that are like it are called: "hole ⌀9". */
  readonly called: string;
  /** By place among the body's surfaces; the one it is named after first. */
  readonly surfaces: readonly number[];
}

interface Found extends Omit<Feature, "name"> {
  /** A face that is called by its side needs no place. */
  readonly full?: string;
  readonly at: Vec3;
}

/**
 * The things on a part by the names a person would give them, every surface in one. Like things are told apart by where
 * they are: left and right along the part's x, front and back along y, bottom and top along z.
 * @param sizes those that a drawing prints: a thing is called by its diameter as that is lettered
 */
export function featuresOf(body: SizedBody, lettering: Lettering, sizes: readonly Size[] = []): Feature[] {
  const { surfaces } = body;
  const printed = printedOn(sizes, lettering);
  const taken = new Set<number>();
  const found: Found[] = [];
  const take = (f: Found) => {
    const own = f.surfaces.filter((s) => !taken.has(s));
    if (!own.length) return;
    own.forEach((s) => taken.add(s));
    found.push({ ...f, surfaces: own });
  };
  const index = new Map(surfaces.map((s, i) => [s, i]));
  for (const hole of holesOf(body)) {
    const bores = hole.rounds.filter((r) => isCylinder(r) && goesRound(r));
    const narrow = bores.reduce<Surface | undefined>((m, r) => (!m || radiusOf(r) < radiusOf(m) ? r : m), undefined);
    if (!narrow) continue;
    // a seat is the hole's own, a floor as well; what a bore ends on across the part is not
    const floors = hole.floors.filter((p) => isOwnFloor(p, hole.rounds, surfaces));
    const all = [narrow, ...hole.rounds, ...floors].map((s) => index.get(s)!);
    const called = `hole ⌀${letteredLength(2 * radiusOf(narrow), printed(narrow))}`;
    take({ kind: "hole", called, surfaces: [...new Set(all)], at: narrow.centre });
  }
  for (const { ends, sides, floors } of slotsOf(body)) {
    const called = `slot ${letteredLength(2 * radiusOf(ends[0]), printed(ends[0]))} wide`;
    take({
      kind: "slot",
      called,
      surfaces: [...ends, ...sides, ...floors].map((s) => index.get(s)!),
      at: middleOf(ends),
    });
  }
  const main = mainDirections(directionsOf(surfaces));
  surfaces.forEach((s, i) => {
    if (!taken.has(i)) take(ofSurface(s, i, body, main, printed(s)));
  });
  return named(found, body);
}

/** How the diameter or the radius of a surface is lettered where a size prints it. */
function printedOn(sizes: readonly Size[], lettering: Lettering): (surface: Surface) => Lettering {
  const own = new Map<string, Lettering>();
  for (const size of sizes)
    if (size.lettering && ROUND_SIZES.includes(size.kind))
      for (const face of facesOfSize(size)) own.set(face, letteringFor(size, lettering));
  const fits = (key: string) => own.get(key);
  return ({ keys }) => keys.map(fits).find((l) => l !== undefined) ?? lettering;
}
const ROUND_SIZES: readonly Size["kind"][] = ["diameter", "radius", "slot", "ellipse"];

const middleOf = ([a, b]: readonly [Surface, Surface]): Vec3 => scale3(add3(a.centre, b.centre), 0.5);
const radiusOf = (s: Surface): number => (s.carrier as { radius: number }).radius;

function isOwnFloor(floor: Plane, rounds: readonly Surface[], surfaces: readonly Surface[]): boolean {
  return floor.beside.every((b) => rounds.includes(surfaces[b]!));
}

function ofSurface(surface: Surface, i: number, body: SizedBody, main: readonly Direction[], l: Lettering): Found {
  const { carrier: c } = surface;
  const own = { surfaces: [i], at: surface.centre };
  const length = (mm: number) => letteredLength(mm, l);
  const isBevel = isMadeBevel(surface) || isNarrowSlant(surface, body, main);
  if (isPlane(surface)) {
    if (isBevel) return { ...own, kind: "chamfer", called: "chamfer" };
    const side = sideOf(surface.carrier, body.box),
      inPocket = pocketName(surface, body);
    if (inPocket) return { ...own, kind: "face", called: inPocket };
    return { ...own, kind: "face", called: side.name, ...(side.isOuter && { full: side.name }) };
  }
  if (c.kind === "cylinder") {
    if (goesRound(surface))
      return c.hollow
        ? { ...own, kind: "hole", called: `hole ⌀${length(2 * c.radius)}` }
        : { ...own, kind: "boss", called: `cylinder ⌀${length(2 * c.radius)}` };
    if (isTangent(surface, body))
      return c.hollow
        ? { ...own, kind: "fillet", called: `inner fillet R${length(c.radius)}` }
        : { ...own, kind: "rounding", called: `rounding R${length(c.radius)}` };
    return {
      ...own,
      kind: c.hollow ? "recess" : "boss",
      called: `${c.hollow ? "hollow" : "round"} side R${length(c.radius)}`,
    };
  }
  if (c.kind === "elliptic") {
    const axes = c.halves.map((half) => length(2 * half)).join(" × ");
    if (goesRound(surface) && c.hollow) return { ...own, kind: "hole", called: `elliptic hole ${axes}` };
    return { ...own, kind: c.hollow ? "recess" : "boss", called: `${c.hollow ? "hollow " : ""}elliptic side ${axes}` };
  }
  if (c.kind === "torus") {
    const kind = c.hollow ? "fillet" : "rounding";
    return isTangent(surface, body)
      ? { ...own, kind, called: `${c.hollow ? "inner fillet" : "rounding"} R${length(c.minor)}` }
      : { ...own, kind: "ring", called: `ring of section R${length(c.minor)}` };
  }
  if (c.kind === "cone") return { ...own, kind: isBevel ? "chamfer" : "cone", called: isBevel ? "chamfer" : "cone" };
  if (c.kind === "sphere") return { ...own, kind: "ball", called: `ball R${length(c.radius)}` };
  const rounding = roundingOf(c);
  if (rounding !== undefined) return { ...own, kind: "rounding", called: `rounding R${length(rounding)}` };
  return { ...own, kind: "face", called: "curved face" };
}

/** A flat or coned face that is much narrower than both it lies between, and slants against them. */
function isNarrowSlant(surface: Surface, { surfaces }: SizedBody, main: readonly Direction[]): boolean {
  if (isCone(surface))
    return surface.beside.length === 2 && surface.beside.every((b) => surfaces[b]!.area > surface.area);
  if (!isPlane(surface)) return false;
  const isMain = main.some((d) => length3(cross3(d.along, surface.carrier.normal)) <= TOUCHING);
  // a side of a prism stands square on what it lies between
  const larger = surface.beside.filter((b) => {
    const o = surfaces[b]!;
    return isPlane(o) && o.area > 4 * surface.area && !isSquare(o.carrier.normal, surface.carrier.normal);
  });
  return !isMain && larger.length >= 2;
}

/** Whether a round face runs smoothly into at least two of its neighbours. */
function isTangent(surface: Surface, { surfaces }: SizedBody): boolean {
  const smooth = surface.beside.filter((b) => {
    const o = surfaces[b]!.carrier,
      { carrier: c } = surface;
    if (o.kind === "plane" && c.kind === "cylinder")
      return isSquare(o.normal, c.axis) && Math.abs(Math.abs(dot3(o.normal, c.at) - o.offset) - c.radius) <= TOUCHING;
    if (o.kind === "plane" && c.kind === "torus")
      return Math.abs(Math.abs(dot3(o.normal, c.centre) - o.offset) - c.minor) <= TOUCHING;
    const [p, q] = [axisOf(c), axisOf(o)];
    if (c.kind === "torus" && o.kind === "cylinder" && p && q)
      return [c.major + c.minor, c.major - c.minor].some((r) => Math.abs(r - o.radius) <= TOUCHING);
    return o.kind === c.kind && !!normalAt(o, surface.centre);
  });
  return smooth.length >= 2;
}

/** Names made unique by place. */
function named(found: readonly Found[], body: SizedBody): Feature[] {
  const groups = new Map<string, Found[]>();
  for (const f of found) groups.set(f.full ?? f.called, [...(groups.get(f.full ?? f.called) ?? []), f]);
  const names = new Map<Found, string>();
  for (const [base, group] of groups) {
    const places = placesFor(
      group.map((f) => f.at),
      body.box,
    );
    group.forEach((f, i) => names.set(f, f.full && group.length === 1 ? `the ${base}` : `the ${base}${places[i]!}`));
  }
  return found.map((f) => ({ kind: f.kind, name: names.get(f)!, called: f.called, surfaces: f.surfaces }));
}
