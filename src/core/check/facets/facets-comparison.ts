import { IDENTITY, move, type Rigid } from "@/core/geometry/rigid";
import { dot3, sub3, type Vec3, map3 } from "@/core/geometry/vector";
import { meshOf } from "@/core/kernel/mesh";
import type { Kernel } from "@/core/kernel/opencascade";
import { mapped, type FacetBody } from "@/core/measure/facet-body";
import { NearestOn } from "@/core/measure/net";
import { sizeOfPart, type Comparison } from "../faces/comparison";
import type { Correspondence } from "../faces/correspond";
import { samplesOf, type Deviation } from "./deviation";
import { placeFacets, type FacetTarget } from "./facets-placing";
import type { MeasuredReference as Reference } from "../given/measured";
import { FACETS_FINE, FACETS_LIE, FACETS_SCALE } from "../tolerance";

/** Places looked at on either side. */
const PLACES = 6_000;
/** Facets of the reference follow it within this share of a tolerance. */
const SHARE_OF_TOLERANCE = 0.25;
const FINE_TURN = 0.12;
/** How much of a facet's own fineness is granted: facets are no perfect chords. */
const GRANTED = 1.25;

/**
 * Lays a body of facets on the reference and measures how far they lie apart, both ways: places of the reference from
 * the facets and places of the facets from the reference. Where the reference is round the facets' own fineness is
 * granted beside the tolerance. @param tolerance mm
 */
export function compareFacets(kernel: Kernel, reference: Reference, body: FacetBody, tolerance: number): Comparison {
  const size = sizeOfPart(reference);
  const fine = Math.min(SHARE_OF_TOLERANCE * tolerance, FACETS_FINE * size);
  const mesh = meshOf(kernel, reference.solid, fine, FINE_TURN);
  const target: FacetTarget = {
    faces: reference.faces,
    properties: reference.properties,
    nearest: new NearestOn(mesh),
    size,
  };
  const surfaceAt = surfaceOfTriangles(reference, mesh);
  const measure = (b: FacetBody, motion: Rigid) => deviationOf(target, surfaceAt, b, motion, tolerance, fine);
  const near = placeFacets(target, body);
  const deviation = measure(body, near.motion);
  const found = (finding: Comparison["finding"], d: Deviation, scale = 1): Comparison => ({
    finding,
    motion: near.motion,
    facesMatched: d.faces.filter((f) => f.beyond <= 0).length,
    scale,
    placed: [],
    faces: standing(d),
    deviation: d,
  });
  const isThere = (d: Deviation) => d.faces.every((f) => f.beyond <= 0);
  if (isThere(deviation)) return found("same", deviation);
  const scale = Math.cbrt(body.properties.volume / reference.properties.volume);
  if (Math.abs(scale - 1) > FACETS_SCALE) {
    const b = mapped(body, (p) => map3(p, (v) => v / scale), 1 / scale);
    const d = measure(b, placeFacets(target, b).motion);
    // facets leave the volume open, so the scale is not exact either
    if (d.most < FACETS_LIE * size) return found("scaled", d, nearInches(scale));
  } else {
    const b = mapped(body, ([x, y, z]) => [-x, y, z], 1);
    const d = measure(b, placeFacets(target, b).motion);
    if (isThere(d)) return found("mirrored", deviation);
  }
  return found("differs", deviation);
}

/** Facets leave a volume open: a scale beside that of confused units is it. */
function nearInches(scale: number): number {
  const inch = scale > 1 ? 25.4 : 1 / 25.4;
  return Math.abs(scale / inch - 1) < FACETS_LIE ? inch : scale;
}

const standing = (d: Deviation): Correspondence => ({
  faces: d.faces.map((f, at) =>
    f.beyond <= 0 ? { state: "same", at } : { state: "changed", at, by: f.most, grown: 0 },
  ),
  extra: [],
});

/** The surface of the reference that each triangle of its mesh lies on. */
function surfaceOfTriangles(reference: Reference, mesh: ReturnType<typeof meshOf>): Uint32Array {
  const found = new Uint32Array(mesh.triangles.length / 3),
    ofPiece = new Map(reference.faces.flatMap((s, i) => s.pieces.map((p): [number, number] => [p, i])));
  mesh.faces.forEach((f, piece) => found.fill(ofPiece.get(piece) ?? 0, f.start / 3, (f.start + f.count) / 3));
  return found;
}

function deviationOf(
  target: FacetTarget,
  surfaceAt: Uint32Array,
  body: FacetBody,
  motion: Rigid,
  tolerance: number,
  fine: number,
): Deviation {
  const placed = mapped(body, (p) => move(motion, p), 1);
  const net = { positions: Float32Array.from(placed.positions), triangles: placed.triangles };
  const own = new NearestOn(net);
  const forward = target.faces.map(() => ({ most: 0, beyond: -Infinity })),
    backward = target.faces.map(() => ({ most: 0, beyond: -Infinity }));
  let volume = 0,
    squares = 0,
    all = 0;
  const granted = grantedBy(body);
  // flat faces end where rounds beside them do: sideways, but not off the plane, they are granted as much
  const mayGrant = (s: number, at: Vec3, found: Vec3) => {
    const { carrier } = target.faces[s]!;
    return carrier.kind !== "plane" || Math.abs(dot3(carrier.normal, sub3(found, at))) <= tolerance;
  };
  const take = (list: typeof forward, s: number, distance: number, granted: number, area: number) => {
    const beyond = distance - tolerance - granted;
    list[s]!.most = Math.max(list[s]!.most, distance);
    list[s]!.beyond = Math.max(list[s]!.beyond, beyond);
    volume += (Math.max(0, beyond) * area) / 2;
    squares += distance ** 2 * area;
    all += area;
  };
  for (const { at, triangle, area } of samplesOf(target.nearest.net, PLACES)) {
    const s = surfaceAt[triangle]!,
      found = own.find(at);
    if (found) take(forward, s, found.distance, mayGrant(s, at, found.at) ? granted[found.triangle]! + fine : 0, area);
  }
  const samples = samplesOf(placed, PLACES).map((s) => ({ ...s, granted: granted[s.triangle]! }));
  // corners lie on the surface itself: nothing is granted there
  const corners = [...cornersOfBody(placed)].map((at) => ({ at, area: 0, granted: 0 }));
  for (const { at, area, granted } of [...samples, ...corners]) {
    const found = target.nearest.find(at);
    if (!found) continue;
    const s = surfaceAt[found.triangle]!;
    take(backward, s, found.distance, mayGrant(s, found.at, at) ? granted + fine : 0, area);
  }
  // what is seen from the reference names the thing; the other side speaks where that sees nothing
  const isSeen = forward.some((f) => f.beyond > 0);
  const faces = forward.map((f, i) =>
    isSeen || f.beyond > 0
      ? f
      : { most: Math.max(f.most, backward[i]!.most), beyond: Math.max(f.beyond, backward[i]!.beyond) },
  );
  const most = Math.max(...forward.map((f) => f.most), ...backward.map((f) => f.most));
  return { faces, most, typical: Math.sqrt(squares / all), volume };
}

/** What each facet is granted: also a flat one beside a round, which reaches as far as the chord does. */
function grantedBy({ positions, triangles, fineness }: FacetBody): Float64Array {
  const at = new Float64Array(positions.length / 3);
  triangles.forEach((corner, i) => (at[corner] = Math.max(at[corner]!, fineness[Math.floor(i / 3)]!)));
  return fineness.map((_, k) => GRANTED * Math.max(...[0, 1, 2].map((i) => at[triangles[3 * k + i]!]!)));
}

/** At most so many corners are looked at. */
const CORNERS = 20_000;
function* cornersOfBody({ positions }: FacetBody): Generator<Vec3> {
  const step = 3 * Math.max(1, Math.ceil(positions.length / 3 / CORNERS));
  for (let i = 0; i < positions.length; i += step) yield [positions[i]!, positions[i + 1]!, positions[i + 2]!];
}

/** Whether a part lies just where the reference does. @param near mm */
export const liesThere = ({ rows, shift }: Rigid, size: number, near: number): boolean =>
  shift.every((v) => Math.abs(v) <= near) &&
  rows.every((r, i) => r.every((v, k) => Math.abs(v - IDENTITY.rows[i]![k]!) * size <= near));
