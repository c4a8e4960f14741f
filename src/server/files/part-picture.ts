import { cross3, dot3, sub3, unit3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { PackedMesh } from "./pictures";

/** A facet of a picture on paper: corners in a unit square, y upwards, and how light it is. */
interface FlatFacet {
  readonly corners: readonly [Vec2, Vec2, Vec2];
  /** 0 dark to 1 light. */
  readonly light: number;
  readonly kind: "part" | "missing" | "extra";
}
export interface FlatPicture {
  readonly facets: readonly FlatFacet[];
}

/** From above, in front and the right, as the desk looks first. */
const TO_VIEWER = unit3([0.58, -0.62, 0.53]);
const RIGHT = unit3([-TO_VIEWER[1], TO_VIEWER[0], 0]);
const UP = cross3(TO_VIEWER, RIGHT);
const LIGHT = unit3([0.2, -0.5, 0.85]);
/** More facets than this say no more on a hand's breadth of paper. */
const MOST_FACETS = 6_000;

const floats = (text: string): Float32Array => new Float32Array(new Uint8Array(Buffer.from(text, "base64")).buffer);
const places = (text: string): Uint32Array => new Uint32Array(new Uint8Array(Buffer.from(text, "base64")).buffer);

interface Seen extends FlatFacet {
  readonly depth: number;
}

/** A part as shaded facets, those farthest first; undefined where there is none, or far too much of it. */
export function flatPicture(meshes: {
  readonly submission?: PackedMesh | undefined;
  readonly missing?: PackedMesh | undefined;
  readonly extra?: PackedMesh | undefined;
}): FlatPicture | undefined {
  if (!meshes.submission) return undefined;
  const seen = [
    ...facetsOf(meshes.submission, "part"),
    ...(meshes.missing ? facetsOf(meshes.missing, "missing") : []),
    ...(meshes.extra ? facetsOf(meshes.extra, "extra") : []),
  ];
  if (!seen.length || seen.length > MOST_FACETS) return undefined;
  const all = seen.flatMap((f) => f.corners);
  const xs = all.map((p) => p[0]),
    ys = all.map((p) => p[1]);
  const [x0, x1, y0, y1] = [min(xs), max(xs), min(ys), max(ys)];
  const span = Math.max(x1 - x0, y1 - y0) || 1;
  const fit = ([x, y]: Vec2): Vec2 => [0.5 + (x - (x0 + x1) / 2) / span, 0.5 + (y - (y0 + y1) / 2) / span];
  const facets = seen
    .sort((a, b) => a.depth - b.depth)
    .map(({ corners: [a, b, c], light, kind }): FlatFacet => ({ corners: [fit(a), fit(b), fit(c)], light, kind }));
  return { facets };
}

const min = (list: readonly number[]) => list.reduce((a, b) => Math.min(a, b), Infinity);
const max = (list: readonly number[]) => list.reduce((a, b) => Math.max(a, b), -Infinity);

function facetsOf(mesh: PackedMesh, kind: FlatFacet["kind"]): Seen[] {
  const p = floats(mesh.positions),
    t = places(mesh.triangles);
  const at = (i: number): Vec3 => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!];
  const found: Seen[] = [];
  for (let k = 0; k + 2 < t.length; k += 3) {
    const [a, b, c] = [at(t[k]!), at(t[k + 1]!), at(t[k + 2]!)];
    const n = cross3(sub3(b, a), sub3(c, a));
    // what looks away is behind something
    if (dot3(n, TO_VIEWER) <= 0) continue;
    const flat = (q: Vec3): Vec2 => [dot3(q, RIGHT), dot3(q, UP)];
    const depth = (dot3(a, TO_VIEWER) + dot3(b, TO_VIEWER) + dot3(c, TO_VIEWER)) / 3;
    const light = 0.5 + 0.5 * Math.max(0, dot3(unit3(n), LIGHT));
    // missing material is drawn over the part it is missing from
    found.push({ corners: [flat(a), flat(b), flat(c)], light, kind, depth: kind === "part" ? depth : depth + 1e4 });
  }
  return found;
}
