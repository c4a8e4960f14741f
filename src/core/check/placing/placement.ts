import { ROUNDING } from "@/core/geometry/tolerance";
import { IDENTITY, rotationBetween, snapRows, type Rigid } from "@/core/geometry/rigid";
import {
  anyAcross,
  cross3,
  distance3,
  dot3,
  length3,
  scale3,
  sub3,
  unit3,
  type Vec3,
  map3,
} from "@/core/geometry/vector";
import { footOn, type Line } from "@/core/geometry/line";
import { axisOf } from "@/core/kernel/carrier";
import type { Face } from "@/core/kernel/faces";
import { SAME_DIRECTION } from "@/core/measure/tolerance";
import { areaCentre, matchFaces, movedFace, standBeside } from "./match";
import { AS_DRAWN, AS_MANY, BETTER, ENOUGH, NOT_PARALLEL, SAME_ANGLE, SAME_AXIS, SAME_FAR } from "../tolerance";
import { nearArea, partners, placeNear } from "./near-placing";
import { shifts, wishes } from "./votes";
import { placeWhole, triad, type Placement, type Witness } from "./whole";

interface Heading {
  readonly direction: Vec3;
  readonly area: number;
}

/** Directions a body shows: outward normals of planes, and both senses of axes; the largest area first. */
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
    if (c.kind === "elliptic") for (const way of [c.long, scale3(c.long, -1)]) give(way, area / 4);
  }
  return list.sort((a, b) => b.area - a.area);
}

/** Rotations that take pairs of the submission's directions to pairs of the reference's at the same angle. */
function rotations(
  reference: readonly Heading[],
  submission: readonly Heading[],
  turns: readonly Rigid["rows"][],
): Rigid["rows"][] {
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
  if (!own.length) turns.forEach(give);
  return found;
}

/** The axis that most round area turns about, and what stands off it. */
function mainAxis(faces: readonly Face[]): Line | undefined {
  const lines: { line: Line; area: number }[] = [];
  for (const { carrier, area } of faces) {
    const line = axisOf(carrier);
    if (!line) continue;
    const known = lines.find(
      (l) =>
        length3(cross3(l.line.along, line.along)) <= SAME_DIRECTION &&
        distance3(footOn(line.at, l.line), line.at) <= SAME_AXIS,
    );
    if (known) known.area += area;
    else if (lines.length < MOST_AXES) lines.push({ line, area });
  }
  return lines.sort((a, b) => b.area - a.area)[0]?.line;
}
const MOST_AXES = 60;

/** A face off the axis: how far, which way, how large. */
interface Off {
  readonly far: number;
  readonly away: Vec3;
  readonly area: number;
  readonly kind: string;
}
const MOST_OFF = 40;

/** Turns about the one direction that a body has, which bring what stands off its axis together; both ways up. */
function turnsAbout(reference: readonly Face[], submission: readonly Face[]): Rigid["rows"][] {
  const [axis, own] = [mainAxis(reference), mainAxis(submission)];
  if (!axis || !own) return [];
  const off = (faces: readonly Face[], line: Line): Off[] =>
    faces
      .map((f) => {
        const way = sub3(f.centre, footOn(f.centre, line)),
          far = length3(way);
        return { far, away: scale3(way, 1 / (far || 1)), area: f.area, kind: f.carrier.kind };
      })
      .filter((o) => o.far > NOT_PARALLEL)
      .sort((a, b) => b.area - a.area)
      .slice(0, MOST_OFF);
  const theirs = off(reference, axis),
    mine = off(submission, own);
  const votes: { rows: Rigid["rows"]; weight: number }[] = [];
  for (const along of [own.along, scale3(own.along, -1)]) {
    const free = rotationBetween(triad(along, anyAcross(along)), triad(axis.along, anyAcross(axis.along)));
    const given = votes.length;
    for (const r of theirs)
      for (const s of mine) {
        if (r.kind !== s.kind || Math.abs(r.far - s.far) > SAME_FAR * r.far) continue;
        const rows = rotationBetween(triad(along, s.away), triad(axis.along, r.away));
        const same = votes.find((v) => v.rows.every((row, i) => length3(sub3(row, rows[i]!)) < SAME_ANGLE));
        const weight = Math.min(r.area, s.area);
        if (same) same.weight += weight;
        else votes.push({ rows, weight });
      }
    if (votes.length === given) votes.push({ rows: free, weight: 0 });
  }
  return votes
    .sort((a, b) => b.weight - a.weight)
    .slice(0, MOST_TURNS)
    .map((v) => v.rows);
}
const MOST_TURNS = 16;

/** Directions along which shifts are wished for: those of the reference's faces, and enough to fix a place. */
function directionsOf(list: readonly Heading[]): Vec3[] {
  const found: Vec3[] = [];
  const give = (d: Vec3) => {
    if (found.every((f) => length3(cross3(f, d)) > NOT_PARALLEL)) found.push(d);
  };
  for (const h of list) if (found.length < MOST_DIRECTIONS) give(h.direction);
  if (!found[0]) return [];
  const across = found[1] ? unit3(cross3(found[0], found[1])) : anyAcross(found[0]);
  give(across);
  give(unit3(cross3(found[0], across)));
  return found;
}
const MOST_DIRECTIONS = 8;

/**
 * The rigid motion of the submission under which most face area coincides with the reference. Where all faces have a
 * partner it is found by the rarest of them; otherwise candidates come from matching planes and axes, never from
 * inertia: inertia is wrong exactly when the part is.
 * @param size of the reference (box diagonal), mm
 */
export function placeOn(
  reference: readonly Face[],
  submission: readonly Face[],
  size: number,
  witness?: Witness,
): Placement | undefined {
  const whole = placeWhole(reference, submission, size, witness);
  if (whole) return whole;
  let best: Placement | undefined;
  const [theirs, own] = [headings(reference), headings(submission)];
  const directions = directionsOf(theirs);
  const middle = areaCentre(reference);
  let known: number | undefined;
  const [large, ownLarge] = [partners(reference), partners(submission)];
  const likeness = ({ rows, shift }: Rigid): number =>
    nearArea(
      large,
      ownLarge.map((f) => movedFace(f, { rows, shift })),
      size,
      size,
    );
  const bestLikeness = () => (known ??= likeness(best!.motion));
  const attempt = (rows: Rigid["rows"], branches: number): number => {
    const turned = submission.map((f) => movedFace(f, { rows, shift: [0, 0, 0] }));
    const fallback = sub3(middle, areaCentre(turned));
    let top = 0;
    for (const raw of shifts(wishes(reference, turned, directions, size), fallback, branches)) {
      const shift = map3(raw, (v) => (Math.abs(v) < ROUNDING * size ? 0 : v));
      const placed = turned.map((f) => movedFace(f, { rows: IDENTITY.rows, shift }));
      // planes may coincide while the bodies stand side by side
      if (standBeside(reference, placed)) continue;
      const matching = matchFaces(reference, placed, size);
      top = Math.max(top, matching.area);
      const motion = { rows, shift };
      if (best && matching.area < best.matching.area * (1 - BETTER)) continue;
      // where as much coincides the rest decides: what leaves least wrong is meant
      if (
        best &&
        matching.area <= best.matching.area * (1 + BETTER) &&
        likeness(motion) <= bestLikeness() * (1 + BETTER)
      )
        continue;
      best = { motion, matching };
      known = undefined;
    }
    return top;
  };
  // the strongest wish of each rotation first; only the promising ones are searched wider
  const turned = rotations(theirs, own, turnsAbout(reference, submission));
  // a ball looks the same from everywhere
  const ranked = (turned.length ? turned : [IDENTITY.rows]).map((rows) => ({
    rows,
    top: attempt(rows, 1),
  }));
  ranked.sort((a, b) => b.top - a.top);
  const asBuilt = ranked.find(({ rows }) => rows.every((r, i) => r.every((v, k) => v === IDENTITY.rows[i]![k])));
  // most parts lie as they were drawn: that is looked at closer whatever its first shift brings
  for (const { rows } of new Set([...ranked.slice(0, 6), ...(asBuilt ? [asBuilt] : [])])) attempt(rows, 3);
  // where it lies about as well as it was drawn, that is how its maker and the drawing see it
  const drawn = matchFaces(reference, submission, size);
  const most = large.reduce((s, f) => s + f.area, 0);
  const isAsGood = (by: Placement) => {
    const times = drawn.pairs.length >= AS_MANY * by.matching.pairs.length ? AS_DRAWN : 1;
    return most - likeness(IDENTITY) <= times * (most - bestLikeness());
  };
  if (best && isAsGood(best)) best = { motion: IDENTITY, matching: drawn };
  const all = reference.reduce((s, f) => s + f.area, 0);
  if (best && best.matching.area > ENOUGH * all) return best;
  const near = placeNear(
    reference,
    submission,
    turned.length ? turned : [IDENTITY.rows],
    [IDENTITY, ...(best ? [best.motion] : [])],
    directions,
    size,
  );
  return near ?? best;
}
