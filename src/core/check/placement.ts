import { ROUNDING } from "@/core/geometry/tolerance";
import { IDENTITY, rotationBetween, snapRows, type Rigid } from "@/core/geometry/rigid";
import { cross3, dot3, length3, scale3, sub3, unit3, type Vec3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import type { Face } from "@/core/kernel/faces";
import { matchFaces, movedFace, type Matching } from "./match";
import { BY_LESS, BETTER, NOT_PARALLEL, SAME_ANGLE, SAME_DIRECTION, SAME_PLACE, SAME_SIZE } from "./tolerance";

export interface Placement {
  readonly motion: Rigid;
  readonly matching: Matching;
}

interface Heading {
  readonly direction: Vec3;
  readonly area: number;
}

/** Directions a body shows: outward normals of planes, and both senses of cylinder axes; the largest area first. */
function headings(faces: readonly Face[]): Heading[] {
  const list: { direction: Vec3; area: number }[] = [];
  const give = (direction: Vec3, area: number) => {
    const known = list.find((h) => length3(sub3(h.direction, direction)) <= SAME_DIRECTION);
    if (known) known.area += area;
    else list.push({ direction, area });
  };
  for (const { carrier: c, area } of faces) {
    if (c.kind === "plane") give(c.normal, area);
    const axis = axisOf(c)?.along;
    if (axis) {
      give(axis, area / 2);
      give(scale3(axis, -1), area / 2);
    }
  }
  return list.sort((a, b) => b.area - a.area);
}

const anyAcross = (d: Vec3): Vec3 => unit3(cross3(d, Math.abs(d[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0]));
const triad = (a: Vec3, b: Vec3): [Vec3, Vec3, Vec3] => {
  const c = unit3(cross3(a, b));
  return [a, unit3(cross3(c, a)), c];
};

/** Rotations that take pairs of the submission's directions to pairs of the reference's at the same angle. */
function rotations(reference: readonly Heading[], submission: readonly Heading[]): Rigid["rows"][] {
  const found: Rigid["rows"][] = [];
  const give = (rows: Rigid["rows"]) => {
    const r = snapRows(rows);
    if (!found.some((f) => f.every((row, i) => length3(sub3(row, r[i]!)) < SAME_ANGLE))) found.push(r);
  };
  const across = (list: readonly Heading[]) =>
    list.flatMap((a, i) =>
      list
        .slice(i + 1)
        .filter((b) => length3(cross3(a.direction, b.direction)) > NOT_PARALLEL)
        .map((b) => [a.direction, b.direction] as const),
    );
  const own = across(submission.slice(0, 8)).slice(0, 6),
    theirs = across(reference.slice(0, 24));
  for (const [a, b] of own)
    for (const [p, q] of theirs)
      for (const [c, d] of [
        [p, q],
        [q, p],
      ] as const)
        if (Math.abs(dot3(a, b) - dot3(c, d)) < SAME_ANGLE) give(rotationBetween(triad(a, b), triad(c, d)));
  if (!own.length && submission[0])
    for (const h of reference)
      give(
        rotationBetween(
          triad(submission[0].direction, anyAcross(submission[0].direction)),
          triad(h.direction, anyAcross(h.direction)),
        ),
      );
  return found;
}

/** One wish for the shift: its components along some directions, and how much area wishes so. */
interface Wish {
  readonly along: readonly Vec3[];
  readonly by: readonly number[];
  weight: number;
}

function wishes(reference: readonly Face[], turned: readonly Face[], size: number): Wish[] {
  const list: Wish[] = [];
  const give = (w: Wish) => {
    const same = list.find(
      (o) =>
        o.along.length === w.along.length &&
        o.along.every((d, i) => length3(sub3(d, w.along[i]!)) < SAME_ANGLE) &&
        o.by.every((v, i) => Math.abs(v - w.by[i]!) <= SAME_PLACE * size),
    );
    if (same) same.weight += w.weight;
    else list.push(w);
  };
  for (const r of reference)
    for (const s of turned) {
      const a = r.carrier,
        b = s.carrier;
      // faces that agree in size speak louder
      const weight = Math.min(r.area, s.area) * (Math.abs(r.area - s.area) < SAME_SIZE * r.area ? 2 : 1);
      if (a.kind === "plane" && b.kind === "plane" && length3(sub3(a.normal, b.normal)) <= SAME_DIRECTION) {
        const sign = dot3(a.normal, [1, BY_LESS, BY_LESS ** 2]) < 0 ? -1 : 1;
        give({ along: [scale3(a.normal, sign)], by: [sign * (a.offset - b.offset)], weight });
      }
      const p = axisOf(a),
        q = axisOf(b);
      if (
        p &&
        q &&
        a.kind === b.kind &&
        "hollow" in a &&
        "hollow" in b &&
        a.hollow === b.hollow &&
        length3(cross3(p.along, q.along)) <= SAME_DIRECTION
      ) {
        const u = anyAcross(p.along),
          v = unit3(cross3(p.along, u)),
          d = sub3(p.at, q.at);
        const alike =
          a.kind !== "cylinder" || b.kind !== "cylinder" || Math.abs(a.radius - b.radius) <= SAME_PLACE * size;
        give({ along: [u, v], by: [dot3(d, u), dot3(d, v)], weight: alike ? weight : 0.3 * weight });
      }
      // the middle of a ball fixes the whole shift
      if (a.kind === "sphere" && b.kind === "sphere" && a.hollow === b.hollow) {
        const d = sub3(a.centre, b.centre);
        give({
          along: [
            [1, 0, 0],
            [0, 1, 0],
            [0, 0, 1],
          ],
          by: [d[0], d[1], d[2]],
          weight: Math.abs(a.radius - b.radius) <= SAME_PLACE * size ? weight : 0.3 * weight,
        });
      }
    }
  return list.sort((a, b) => b.weight - a.weight).slice(0, 24);
}

/**
 * Solves the shift from wishes that together fix three directions; free directions keep the centres of area together.
 */
function shifts(list: readonly Wish[], fallback: Vec3, branches: number): Vec3[] {
  const results: Vec3[] = [];
  const extend = (basis: { q: Vec3; value: number }[], from: number) => {
    if (basis.length === 3 || results.length > 100) {
      if (basis.length === 3) results.push(combine(basis));
      return;
    }
    let grew = 0;
    for (let i = from; i < list.length && grew < branches; i++) {
      const next = adopt(basis, list[i]!);
      if (!next) continue;
      grew++;
      extend(next, i + 1);
    }
    if (!grew) {
      const full = [...basis];
      for (const axis of [
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, 1],
      ] as Vec3[]) {
        const q = orthogonal(full, axis);
        if (q && full.length < 3) full.push({ q, value: dot3(q, fallback) });
      }
      results.push(combine(full));
    }
  };
  extend([], 0);
  return results;
}

const combine = (basis: readonly { q: Vec3; value: number }[]): Vec3 =>
  basis.reduce<Vec3>((s, { q, value }) => [s[0] + q[0] * value, s[1] + q[1] * value, s[2] + q[2] * value], [0, 0, 0]);

function orthogonal(basis: readonly { q: Vec3 }[], d: Vec3): Vec3 | undefined {
  let v = d;
  for (const { q } of basis) v = sub3(v, scale3(q, dot3(v, q)));
  return length3(v) > NOT_PARALLEL ? unit3(v) : undefined;
}

/** The basis with a wish taken in, or undefined when it only repeats what is fixed. */
function adopt(basis: readonly { q: Vec3; value: number }[], wish: Wish) {
  const next = [...basis];
  wish.along.forEach((d, i) => {
    const q = orthogonal(next, d);
    if (!q) return;
    // d·t = by and t = Σ q value: the part of d along what is fixed is known
    const known = next.reduce((s, b) => s + dot3(d, b.q) * b.value, 0);
    next.push({ q, value: (wish.by[i]! - known) / dot3(d, q) });
  });
  return next.length > basis.length ? next : undefined;
}

const areaCentre = (faces: readonly Face[]): Vec3 => {
  const total = faces.reduce((s, f) => s + f.area, 0);
  return faces.reduce<Vec3>(
    (s, f) => [
      s[0] + (f.centre[0] * f.area) / total,
      s[1] + (f.centre[1] * f.area) / total,
      s[2] + (f.centre[2] * f.area) / total,
    ],
    [0, 0, 0],
  );
};

/**
 * The rigid motion of the submission under which most face area coincides with the reference. Candidates come
 * from matching planes and axes, never from inertia: inertia is wrong exactly when the part is.
 * @param size of the reference (box diagonal), mm
 */
export function placeOn(reference: readonly Face[], submission: readonly Face[], size: number): Placement | undefined {
  let best: Placement | undefined;
  const isWhole = () =>
    best !== undefined && !best.matching.unmatchedReference.length && !best.matching.unmatchedSubmission.length;
  const attempt = (rows: Rigid["rows"], branches: number): number => {
    const turned = submission.map((f) => movedFace(f, { rows, shift: [0, 0, 0] }));
    const fallback = sub3(areaCentre(reference), areaCentre(turned));
    let top = 0;
    for (const raw of shifts(wishes(reference, turned, size), fallback, branches)) {
      const shift = raw.map((v) => (Math.abs(v) < ROUNDING * size ? 0 : v)) as unknown as Vec3;
      const matching = matchFaces(
        reference,
        turned.map((f) => movedFace(f, { rows: IDENTITY.rows, shift })),
        size,
      );
      top = Math.max(top, matching.area);
      if (best && matching.area <= best.matching.area * (1 + BETTER)) continue;
      best = { motion: { rows, shift }, matching };
      if (isWhole()) break;
    }
    return top;
  };
  // the strongest wish of each rotation first; only the promising ones are searched wider
  const ranked: { rows: Rigid["rows"]; top: number }[] = [];
  for (const rows of rotations(headings(reference), headings(submission))) {
    ranked.push({ rows, top: attempt(rows, 1) });
    if (isWhole()) return best;
  }
  ranked.sort((a, b) => b.top - a.top);
  for (const { rows } of ranked.slice(0, 6)) {
    attempt(rows, 3);
    if (isWhole()) return best;
  }
  return best;
}
