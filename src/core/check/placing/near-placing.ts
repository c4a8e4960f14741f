import type { Rigid } from "@/core/geometry/rigid";
import { add3, dot3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import type { Face } from "@/core/kernel/faces";
import { gapOf } from "../faces/correspond";
import { areaCentre, matchFaces, movedFace, overlap, standBeside } from "./match";
import { NEAR_LEVEL, NEAR_REACH } from "../tolerance";
import { shifts, wishes } from "./votes";
import type { Placement } from "./whole";

/** Faces looked at when placings are compared: so many of the largest, and so many of the rarest among the others. */
const MOST_FACES = 80;
const MOST_RARE = 40;

/**
 * The faces that placings are compared by. One small hole among many like ones may be all that tells how a part lies:
 * what is rare counts beside what is large.
 */
function telling(faces: readonly Face[]): Face[] {
  const sorted = [...faces].sort((a, b) => b.area - a.area);
  if (sorted.length <= MOST_FACES + MOST_RARE) return sorted;
  const look = ({ carrier: c, area }: Face) =>
    `${c.kind} ${"hollow" in c && c.hollow} ${area.toPrecision(LIKE_DIGITS)}`;
  const often = new Map<string, number>();
  for (const face of sorted) often.set(look(face), (often.get(look(face)) ?? 0) + 1);
  const others = sorted.slice(MOST_FACES).sort((a, b) => often.get(look(a))! - often.get(look(b))!);
  return [...sorted.slice(0, MOST_FACES), ...others.slice(0, MOST_RARE)];
}
/** Those that may be their partners: of many like ones every one may be meant, as far as time allows. */
export const partners = (faces: readonly Face[]): readonly Face[] =>
  faces.length <= MOST_PARTNERS ? faces : telling(faces);
const MOST_PARTNERS = 400;
/** Areas alike in so many digits are of like faces. */
const LIKE_DIGITS = 3;

/** Area that lies nearly on its partner: all of it where they coincide, none where they are `reach` apart; mm². */
export function nearArea(reference: readonly Face[], placed: readonly Face[], size: number, reach: number): number {
  let sum = 0;
  for (const r of reference) {
    let most = 0;
    for (const s of placed) {
      const gap = gapOf(r, s, size);
      if (gap && gap.by < reach) most = Math.max(most, overlap(r, s) * (1 - gap.by / reach));
    }
    sum += most;
  }
  return sum;
}

/**
 * Where hardly a face coincides, as on a part in sizes rounded by inches: of the placings that bring levels nearly
 * together the one with the least measured difference.
 * @param rotations to try @param known placings found otherwise, which stay where nothing nearer is found
 */
export function placeNear(
  reference: readonly Face[],
  submission: readonly Face[],
  rotations: readonly Rigid["rows"][],
  known: readonly Rigid[],
  directions: readonly Vec3[],
  size: number,
): Placement | undefined {
  const theirs = telling(reference),
    own = partners(submission),
    reach = NEAR_REACH * size;
  const wished = rotations.flatMap((rows): Rigid[] => {
    const turned = submission.map((f) => movedFace(f, { rows, shift: [0, 0, 0] }));
    const list = wishes(reference, turned, directions, size, NEAR_LEVEL * size);
    return shifts(list, sub3(areaCentre(reference), areaCentre(turned)), 1).map((shift) => ({ rows, shift }));
  });
  let best: { motion: Rigid; area: number } | undefined;
  for (const motion of [...known, ...wished]) {
    const placed = own.map((f) => movedFace(f, motion));
    if (standBeside(theirs, placed)) continue;
    const area = nearArea(theirs, placed, size, reach);
    if (!best || area > best.area) best = { motion, area };
  }
  if (!best) return undefined;
  const motion = known.includes(best.motion) ? best.motion : settled(theirs, own, best.motion, directions, size);
  const matching = matchFaces(
    reference,
    submission.map((f) => movedFace(f, motion)),
    size,
  );
  return { motion, matching };
}

/** A placing shifted so that along each direction half of the near flat faces lie over, half under their partners. */
function settled(
  reference: readonly Face[],
  submission: readonly Face[],
  motion: Rigid,
  directions: readonly Vec3[],
  size: number,
): Rigid {
  let { shift } = motion;
  for (const d of directions.slice(0, 3)) {
    const placed = submission.map((f) => movedFace(f, { rows: motion.rows, shift }));
    const offs = reference.flatMap((r) => {
      const c = r.carrier;
      if (c.kind !== "plane" || Math.abs(dot3(c.normal, d)) < 1 - NEAR_REACH) return [];
      return placed.flatMap((s) => {
        const gap = gapOf(r, s, size);
        if (!gap || gap.by > NEAR_REACH * size || s.carrier.kind !== "plane") return [];
        return [(c.offset - s.carrier.offset) * Math.sign(dot3(c.normal, d))];
      });
    });
    offs.sort((a, b) => a - b);
    const middle = offs[offs.length >> 1];
    if (middle !== undefined) shift = add3(shift, scale3(d, middle));
  }
  return { rows: motion.rows, shift };
}
