import type { Facets } from "@/core/geometry/facets";
import { Nearby } from "@/core/geometry/nearby";
import { add3, cross3, dot3, length3, perAxis, scale3, sub3, unit3, type Vec3, eachAxis } from "@/core/geometry/vector";
import { eigen3, type Properties } from "@/core/kernel/properties";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { cornersOfNet } from "./net";
import { CREASE, FLAT, ONE_POINT } from "./tolerance";

/** A closed body of facets, as a mesh file holds it. mm. */
export interface FacetBody extends Facets {
  readonly properties: Properties;
  /** Outward unit normals, x y z for each triangle. */
  readonly normals: Float64Array;
  /** For each triangle how far the round surface it stands for may lie from its middle, mm; 0 on flat faces. */
  readonly fineness: Float64Array;
  /** For each triangle the smooth region it lies in: facets that go on into each other without a crease. */
  readonly regions: Uint32Array;
}

/**
 * Puts facets together to a body: corners that coincide are one, every side must have just one neighbour that runs the
 * other way, and the whole must enclose something. Volume, centre and moments are those of the polyhedron, exactly
 * (sums over tetrahedra with the origin).
 */
export function facetBody(given: Facets): Outcome<FacetBody> {
  const { positions, triangles } = joined(given);
  const across = neighbours(triangles);
  if (typeof across === "number")
    return refuse(
      "bad-file",
      across > 0
        ? `The mesh is not closed: at ${across} sides of facets a neighbour is missing, or more than one is there.`
        : "The mesh holds no facets of any area.",
    );
  const outward = turnedOut(positions, triangles),
    normals = normalsOf(positions, outward);
  const body = { positions, triangles: outward };
  const properties = propertiesOfFacets(body, componentsOf(across));
  if (!(properties.volume > 0)) return refuse("bad-file", "The mesh encloses nothing.");
  // turned inside out the sides keep their places but run the other way
  const sides = outward === triangles ? across : (neighbours(outward) as Int32Array);
  return done({ ...body, properties, normals, ...smoothness(body, normals, sides) });
}

/** Equal corners made one; facets that thereby shrink to nothing are left out. */
function joined({ positions: values, triangles: t }: Facets): Facets {
  let [low, high] = [Infinity, -Infinity];
  for (const v of values) [low, high] = [Math.min(low, v), Math.max(high, v)];
  const near = Math.max(high - low, Number.MIN_VALUE) * ONE_POINT,
    // as near along each axis: no further than the diagonal of such a cube
    corners = new Nearby([], Math.sqrt(3) * near);
  const place = new Uint32Array(values.length / 3);
  for (let i = 0; i < place.length; i++) {
    const at: Vec3 = [values[3 * i]!, values[3 * i + 1]!, values[3 * i + 2]!];
    const known = corners.find(at, (k) => at.every((v, axis) => Math.abs(v - corners.points[k]![axis]!) <= near));
    place[i] = known < 0 ? corners.add(at) : known;
  }
  const kept: number[] = [];
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [place[t[i]!]!, place[t[i + 1]!]!, place[t[i + 2]!]!];
    if (a !== b && b !== c && c !== a) kept.push(a, b, c);
  }
  return { positions: Float64Array.from(corners.points.flat()), triangles: Uint32Array.from(kept) };
}

/** For each side of each triangle the triangle across it; or how many sides have none or several. */
function neighbours(t: Uint32Array): Int32Array | number {
  const sides = new Map<number, number>();
  const most = t.reduce((m, v) => Math.max(m, v), 0) + 1;
  const across = new Int32Array(t.length).fill(-1);
  let open = 0;
  for (let i = 0; i < t.length; i++) {
    const key = t[i]! * most + t[next(i)]!;
    if (sides.has(key)) open++;
    sides.set(key, i);
  }
  for (let i = 0; i < t.length; i++) {
    const other = sides.get(t[next(i)]! * most + t[i]!);
    if (other === undefined) open++;
    else across[i] = Math.floor(other / 3);
  }
  return open || !t.length ? open : across;
}
const next = (i: number) => (i % 3 === 2 ? i - 2 : i + 1);

/** The same facets with their outer side out: some programs write them inside out. */
function turnedOut(p: Float64Array, t: Uint32Array): Uint32Array {
  let volume = 0;
  for (let k = 0; k < t.length / 3; k++) {
    const [a, b, c] = cornersOfNet({ positions: p, triangles: t }, k);
    volume += dot3(a, cross3(b, c));
  }
  if (volume >= 0) return t;
  return t.map((_, i) => t[i % 3 === 0 ? i : i % 3 === 1 ? i + 1 : i - 1]!);
}

function normalsOf(positions: Float64Array, triangles: Uint32Array): Float64Array {
  const normals = new Float64Array(triangles.length);
  for (let k = 0; k < triangles.length / 3; k++) {
    const [a, b, c] = cornersOfNet({ positions, triangles }, k);
    const n = cross3(sub3(b, a), sub3(c, a)),
      l = length3(n);
    normals.set(l ? scale3(n, 1 / l) : [0, 0, 1], 3 * k);
  }
  return normals;
}

/** Which connected piece each triangle belongs to. */
function componentsOf(across: Int32Array): Uint32Array {
  return flooded(across.length / 3, (k) => [across[3 * k]!, across[3 * k + 1]!, across[3 * k + 2]!]);
}

/** Numbers what hangs together, by what lies beside each. */
function flooded(n: number, beside: (k: number) => readonly number[]): Uint32Array {
  const found = new Uint32Array(n).fill(n);
  let count = 0;
  for (let k = 0; k < n; k++) {
    if (found[k] !== n) continue;
    const open = [k];
    found[k] = count;
    for (let at = open.pop(); at !== undefined; at = open.pop())
      for (const o of beside(at))
        if (found[o] === n) {
          found[o] = count;
          open.push(o);
        }
    count++;
  }
  return found;
}

/** Exact for the polyhedron: each facet with the origin is a tetrahedron (Tonon, 2004). */
function propertiesOfFacets(body: Facets, pieces: Uint32Array): Properties {
  const middle = boxMiddle(body);
  let volume = 0,
    area = 0,
    first: Vec3 = [0, 0, 0];
  const second = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ];
  const volumes = new Map<number, number>();
  for (let k = 0; k < body.triangles.length / 3; k++) {
    const [a, b, c] = cornersOfNet(body, k).map((p) => sub3(p, middle)) as [Vec3, Vec3, Vec3];
    const v = dot3(a, cross3(b, c)) / 6,
      sum = add3(a, add3(b, c));
    volume += v;
    volumes.set(pieces[k]!, (volumes.get(pieces[k]!) ?? 0) + v);
    area += length3(cross3(sub3(b, a), sub3(c, a))) / 2;
    first = add3(first, scale3(sum, v / 4));
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 3; j++)
        second[i]![j]! += (v / 20) * (sum[i]! * sum[j]! + a[i]! * a[j]! + b[i]! * b[j]! + c[i]! * c[j]!);
  }
  const own = scale3(first, 1 / volume);
  const spread = (i: number, j: number) => second[i]![j]! - volume * own[i]! * own[j]!;
  const trace = spread(0, 0) + spread(1, 1) + spread(2, 2);
  const row = (i: number) => perAxis((j) => (i === j ? trace - spread(i, j) : -spread(i, j)));
  const tensor: Properties["tensor"] = [row(0), row(1), row(2)];
  const { values, vectors } = eigen3(tensor);
  return {
    // a hollow is a piece of its own, but no body
    bodies: [...volumes.values()].filter((v) => v > 0).length,
    valid: true,
    closed: true,
    volume,
    area,
    centre: add3(own, middle),
    tensor,
    moments: values,
    axes: vectors,
    box: boxOfFacets(body),
  };
}

/** The box around all corners. */
function boxOfFacets({ positions }: Facets): Properties["box"] {
  const min = [Infinity, Infinity, Infinity],
    max = [-Infinity, -Infinity, -Infinity];
  positions.forEach((v, i) => {
    min[i % 3] = Math.min(min[i % 3]!, v);
    max[i % 3] = Math.max(max[i % 3]!, v);
  });
  return { min: eachAxis((axis) => min[axis]!), max: eachAxis((axis) => max[axis]!) };
}
const boxMiddle = (body: Facets): Vec3 => {
  const { min, max } = boxOfFacets(body);
  return scale3(add3(min, max), 0.5);
};

/**
 * Where facets go on into each other without a crease they stand for a round surface: it lies off their middle by an
 * eighth of their width times the turn between them (the sagitta of a chord).
 */
function smoothness(body: Facets, normals: Float64Array, across: Int32Array) {
  const n = across.length / 3,
    fineness = new Float64Array(n);
  const normal = (k: number): Vec3 => [normals[3 * k]!, normals[3 * k + 1]!, normals[3 * k + 2]!];
  const turnAt = (i: number) => {
    const [a, b] = [normal(Math.floor(i / 3)), normal(across[i]!)];
    return Math.atan2(length3(cross3(a, b)), dot3(a, b));
  };
  // how far a triangle reaches from one of its sides
  const reach = (side: number) => {
    const k = Math.floor(side / 3),
      points = cornersOfNet(body, k),
      [a, b, c] = points;
    const long = length3(sub3(points[((side % 3) + 1) % 3]!, points[side % 3]!));
    return length3(cross3(sub3(b, a), sub3(c, a))) / Math.max(long, Number.MIN_VALUE);
  };
  for (let i = 0; i < across.length; i++) {
    const angle = turnAt(i);
    if (angle < FLAT || angle > CREASE) continue;
    const k = Math.floor(i / 3);
    fineness[k] = Math.max(fineness[k]!, (reach(i) * angle) / 8);
  }
  const regions = flooded(n, (k) =>
    [0, 1, 2].flatMap((s) => (turnAt(3 * k + s) <= CREASE ? [across[3 * k + s]!] : [])),
  );
  return { fineness, regions };
}

/** The ways that the facets of a body look, with their areas, the largest first: those of its flat faces lead. */
export function waysOfFacets(body: FacetBody): { readonly normal: Vec3; readonly area: number }[] {
  const facets = [...body.regions.keys()].map((k) => ({ k, area: areaOf(body, k) }));
  const found: { normal: Vec3; area: number }[] = [];
  for (const { k, area } of facets.sort((a, b) => b.area - a.area)) {
    const normal: Vec3 = [body.normals[3 * k]!, body.normals[3 * k + 1]!, body.normals[3 * k + 2]!];
    const known = found.find((f) => length3(sub3(unit3(f.normal), normal)) < 10 * FLAT);
    if (known) {
      known.normal = add3(known.normal, scale3(normal, area));
      known.area += area;
    } else if (found.length < MOST_WAYS) found.push({ normal: scale3(normal, area), area });
  }
  return found.map((f) => ({ ...f, normal: unit3(f.normal) })).sort((p, q) => q.area - p.area);
}
const MOST_WAYS = 60;

/** Area of one facet, mm². */
export function areaOf(body: Facets, k: number): number {
  const [a, b, c] = cornersOfNet(body, k);
  return length3(cross3(sub3(b, a), sub3(c, a))) / 2;
}

/** Material that may lie between the facets and the round surfaces they stand for, mm³ (two thirds of each sagitta). */
export const leftOpen = (body: FacetBody): number =>
  body.fineness.reduce((sum, f, k) => (f ? sum + (2 / 3) * f * areaOf(body, k) : sum), 0);

/**
 * The same facets elsewhere, mirrored or scaled. @param place where a point goes
 * @param scale what lengths are multiplied by
 */
export function mapped(body: FacetBody, place: (p: Vec3) => Vec3, scale: number): FacetBody {
  const positions = new Float64Array(body.positions.length);
  for (let i = 0; i < positions.length; i += 3)
    positions.set(place([body.positions[i]!, body.positions[i + 1]!, body.positions[i + 2]!]), i);
  const triangles = turnedOut(positions, body.triangles);
  return {
    positions,
    triangles,
    properties: propertiesOfFacets({ positions, triangles }, new Uint32Array(triangles.length / 3)),
    normals: normalsOf(positions, triangles),
    fineness: body.fineness.map((f) => f * scale),
    regions: body.regions,
  };
}
