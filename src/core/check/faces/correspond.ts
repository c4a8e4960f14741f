import { footOn } from "@/core/geometry/line";
import { cross3, distance3, dot3, length3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import { spanAlong, type Face } from "@/core/kernel/faces";
import { sameCarrier } from "@/core/measure/same";
import type { Matching } from "../placing/match";
import { AREA_WEIGHT, BETTER, FAR_FROM_PARTNER, LEANING, NEAR_WEIGHT, OTHER_SIZE, SHIFTED } from "../tolerance";

/** What became of a face of the reference on the submission. */
export type FaceState =
  /** The very same. */
  | { readonly state: "same"; readonly at: number }
  /** On the same surface, of another extent: something beside it differs. */
  | { readonly state: "cut"; readonly at: number }
  /** Elsewhere, turned or of another size; by how far, mm. */
  | { readonly state: "changed"; readonly at: number; readonly by: number; readonly grown: number }
  | { readonly state: "missing" };

export interface Correspondence {
  /** For each face of the reference. */
  readonly faces: readonly FaceState[];
  /** Faces of the submission that stand for none of the reference. */
  readonly extra: readonly number[];
}

/**
 * Which face of a submission stands for which of the reference: those that coincide first, then by how little their
 * surfaces, places and areas differ.
 * @param placed the submission's faces where they lie on the reference @param size of the reference, mm
 */
export function correspond(
  reference: readonly Face[],
  placed: readonly Face[],
  matching: Matching,
  size: number,
): Correspondence {
  const faces: FaceState[] = reference.map(() => ({ state: "missing" }));
  for (const [i, at] of matching.pairs) faces[i] = { state: "same", at };
  const pairs: Pair[] = [];
  for (const i of matching.unmatchedReference)
    for (const k of matching.unmatchedSubmission) {
      const [r, s] = [reference[i]!, placed[k]!];
      const gap = gapOf(r, s, size);
      if (!gap || gap.by > FAR_FROM_PARTNER * size) continue;
      const aside = between(r, s);
      const areas = Math.abs(Math.log(s.area / r.area));
      const cost = gap.by + aside + NEAR_WEIGHT * distance3(r.centre, s.centre) + AREA_WEIGHT * size * areas;
      pairs.push({ i, k, cost, gap });
    }
  const chosen = assigned(pairs),
    taken = new Set(chosen.map((p) => p.k));
  for (const { i, k, gap } of chosen) {
    const isOn = sameCarrier(reference[i]!.carrier, placed[k]!.carrier, size);
    faces[i] = isOn ? { state: "cut", at: k } : { state: "changed", at: k, by: gap.by, grown: gap.grown };
  }
  // a face that another cuts in two is two pieces on one surface
  const isPiece = (k: number) => reference.some((r) => isOnSame(r, placed[k]!, size));
  const extra = matching.unmatchedSubmission.filter((k) => !taken.has(k) && !isPiece(k));
  reference.forEach((r, i) => {
    if (faces[i]!.state !== "missing") return;
    const at = placed.findIndex((p) => isOnSame(r, p, size));
    if (at >= 0 && r.carrier.kind !== "other") faces[i] = { state: "cut", at };
  });
  return { faces, extra };
}

/** A face of the reference and one of the submission that could stand for it. */
interface Pair {
  readonly i: number;
  readonly k: number;
  readonly cost: number;
  readonly gap: Gap;
}

/** Rounds of exchanges at most; each makes the sum less, so they end by themselves. */
const MOST_ROUNDS = 20;
/** Of more pairs than this greedy is left as it is. */
const MOST_EXCHANGED = 150;

/**
 * Pairs with each face once: the least first, then two exchange partners as long as the sum of costs falls. A row of
 * holes that was shifted by nearly its step is taken as a row, not each hole for its neighbour.
 */
function assigned(pairs: readonly Pair[]): readonly Pair[] {
  const known = new Map(pairs.map((p) => [`${p.i} ${p.k}`, p]));
  const [rows, columns] = [new Set<number>(), new Set<number>()];
  const chosen: Pair[] = [];
  for (const p of [...pairs].sort((a, b) => a.cost - b.cost)) {
    if (rows.has(p.i) || columns.has(p.k)) continue;
    rows.add(p.i);
    columns.add(p.k);
    chosen.push(p);
  }
  // what lies on its partner stays there
  const loose = chosen.filter((p) => p.gap.by > SHIFTED),
    fixed = chosen.filter((p) => p.gap.by <= SHIFTED);
  if (loose.length > MOST_EXCHANGED) return chosen;
  let isBetter = true;
  for (let round = 0; isBetter && round < MOST_ROUNDS; round++) {
    isBetter = false;
    for (let a = 0; a < loose.length; a++)
      for (let b = a + 1; b < loose.length; b++) {
        const [p, q] = [loose[a]!, loose[b]!];
        const [x, y] = [known.get(`${p.i} ${q.k}`), known.get(`${q.i} ${p.k}`)];
        if (!x || !y || x.cost + y.cost >= (p.cost + q.cost) * (1 - BETTER)) continue;
        [loose[a], loose[b]] = [x, y];
        isBetter = true;
      }
  }
  return [...fixed, ...loose];
}

export interface Gap {
  /** How far the surfaces part at most near the faces, mm. */
  readonly by: number;
  /** By how much the radius grew, mm. */
  readonly grown: number;
}

/**
 * How far two faces lie from each other along their one carrier, mm: rounds along the axis, flat faces in the plane.
 * None where they overlap, or may: a flat face is taken for the circle about it.
 */
export function between(r: Face, s: Face): number {
  if (!r.reach || !s.reach) return 0;
  const arm = sub3(s.centre, r.centre),
    [p, q] = [axisOf(r.carrier), axisOf(s.carrier)];
  if (r.carrier.kind === "plane") {
    const { normal } = r.carrier;
    return Math.max(0, length3(sub3(arm, scale3(normal, dot3(arm, normal)))) - r.reach.far - s.reach.far);
  }
  // the middle of a ring or a ball says where it lies
  if (!p || !q || r.carrier.kind === "torus") return 0;
  const [low, high] = spanAlong(s, p.along, r.centre)!;
  return Math.max(0, low - r.reach.high, r.reach.low - high);
}

/** Whether two faces lie on one surface, and over each other there. */
const isOnSame = (r: Face, s: Face, size: number): boolean =>
  sameCarrier(r.carrier, s.carrier, size) && between(r, s) <= SHIFTED;

/** How far two faces are from being one; undefined where they could not be. */
export function gapOf(r: Face, s: Face, size: number): Gap | undefined {
  const [a, b] = [r.carrier, s.carrier];
  if (a.kind !== b.kind || ("hollow" in a && "hollow" in b && a.hollow !== b.hollow)) return undefined;
  if (a.kind === "plane" && b.kind === "plane") {
    const lean = leanOf(a.normal, b.normal);
    if (lean > LEANING || dot3(a.normal, b.normal) < 0) return undefined;
    const apart = (Math.abs(dot3(a.normal, s.centre) - a.offset) + Math.abs(dot3(b.normal, r.centre) - b.offset)) / 2;
    return { by: apart + lean * Math.sqrt(Math.max(r.area, s.area)), grown: 0 };
  }
  if (a.kind === "sphere" && b.kind === "sphere") return round(distance3(a.centre, b.centre), a.radius, b.radius, 0);
  const [p, q] = [axisOf(a), axisOf(b)];
  if (a.kind === "other" && b.kind === "other" && a.rounding !== undefined && b.rounding !== undefined)
    return round(0, a.rounding, b.rounding, distance3(r.centre, s.centre));
  if (!p || !q || a.kind === "other")
    return { by: distance3(r.centre, s.centre) + Math.abs(Math.sqrt(r.area) - Math.sqrt(s.area)), grown: 0 };
  const lean = Math.min(leanOf(p.along, q.along), Math.PI - leanOf(p.along, q.along));
  if (lean > LEANING) return undefined;
  const at = footOn(r.centre, p),
    apart = distance3(at, footOn(at, q)) + lean * Math.sqrt(Math.max(r.area, s.area));
  if (a.kind === "torus" && b.kind === "torus")
    return round(distance3(a.centre, b.centre) + Math.abs(a.major - b.major), a.minor, b.minor, lean * size);
  if (a.kind === "cone" && b.kind === "cone") {
    const along = Math.abs(dot3(p.along, footOn(r.centre, p)) - dot3(p.along, footOn(s.centre, p)));
    const wide = Math.abs(radiusAt(a, r.centre) - radiusAt(b, r.centre));
    return { by: apart + Math.min(wide, along) + Math.abs(a.half - b.half) * Math.sqrt(r.area), grown: 0 };
  }
  if (a.kind === "elliptic" && b.kind === "elliptic") {
    const turned = leanOf(a.long, b.long),
      swung = a.halves[0] * Math.sin(Math.min(turned, Math.PI - turned));
    return round(apart + Math.abs(a.halves[1] - b.halves[1]) + swung, a.halves[0], b.halves[0], 0);
  }
  return round(apart, (a as { radius: number }).radius, (b as { radius: number }).radius, 0);
}

const leanOf = (a: Vec3, b: Vec3): number => Math.atan2(length3(cross3(a, b)), dot3(a, b));
const radiusAt = (c: Extract<Carrier, { kind: "cone" }>, at: Vec3): number =>
  Math.abs(dot3(c.axis, [at[0] - c.tip[0], at[1] - c.tip[1], at[2] - c.tip[2]])) * Math.tan(c.half);

function round(apart: number, radius: number, other: number, more: number): Gap | undefined {
  if (Math.max(radius, other) > OTHER_SIZE * Math.min(radius, other)) return undefined;
  // where it lies and how wide it is are two figures, each with its own tolerance
  return { by: Math.max(apart, Math.abs(other - radius)) + more, grown: other - radius };
}
