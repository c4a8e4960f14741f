import { IDENTITY, move, rotationBetween, snapRows, type Rigid } from "@/core/geometry/rigid";
import { ROUNDING } from "@/core/geometry/tolerance";
import { anyAcross, cross3, dot3, length3, scale3, sub3, unit3, type Vec3, map3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import type { Face } from "@/core/kernel/faces";
import { matchFaces, movedFace, sameFace, type Matching } from "./match";
import { Nearby } from "@/core/geometry/nearby";
import { SAME_PLACE } from "@/core/measure/tolerance";
import { NOT_PARALLEL, SAME_ANGLE, SAME_SIZE } from "../tolerance";

export interface Placement {
  readonly motion: Rigid;
  readonly matching: Matching;
}

/** A right-handed frame: the first along `a`, the second in the plane of both. */
export const triad = (a: Vec3, b: Vec3): [Vec3, Vec3, Vec3] => {
  const c = unit3(cross3(a, b));
  return [a, unit3(cross3(c, a)), c];
};

/** Faces that could stand for each other: of one kind, side and size. */
interface Class {
  readonly reference: number[];
  readonly submission: number[];
}

/** Rarest first; undefined where the two bodies do not have the same faces anyway. */
function classes(reference: readonly Face[], submission: readonly Face[]): Class[] | undefined {
  if (reference.length !== submission.length) return undefined;
  const kind = ({ carrier: c }: Face) => c.kind + ("hollow" in c && c.hollow ? " hollow" : "");
  const all = [
    ...reference.map((face, index) => ({ face, index, own: "reference" as const, kind: kind(face) })),
    ...submission.map((face, index) => ({ face, index, own: "submission" as const, kind: kind(face) })),
  ].sort((a, b) => a.kind.localeCompare(b.kind) || a.face.area - b.face.area);
  const found: Class[] = [];
  let last: (typeof all)[number] | undefined;
  for (const f of all) {
    const isNew = !last || last.kind !== f.kind || f.face.area - last.face.area > SAME_SIZE * f.face.area;
    if (isNew) found.push({ reference: [], submission: [] });
    found[found.length - 1]![f.own].push(f.index);
    last = f;
  }
  if (found.some((c) => c.reference.length !== c.submission.length)) return undefined;
  return found.sort((a, b) => a.reference.length - b.reference.length);
}

/** Something that points: from one face's centre to another's, or the way a face looks. */
type Arrow = { readonly to: number } | { readonly way: number };

/** Ways a face looks: a plane one way, an axis both, an ellipse also along its longer axis. */
function waysOf({ carrier: c }: Face): Vec3[] {
  if (c.kind === "plane") return [c.normal];
  const axis = axisOf(c)?.along;
  if (!axis) return [];
  if (c.kind === "elliptic") return [axis, scale3(axis, -1), c.long, scale3(c.long, -1)];
  return c.kind === "cone" ? [axis] : [axis, scale3(axis, -1)];
}

/** What fixes a body in space: a face, and two arrows from it that are not parallel, where it has so many. */
interface Hold {
  readonly from: number;
  readonly arrows: readonly Arrow[];
}

function holdOf(faces: readonly Face[], order: readonly number[], size: number): Hold {
  const from = order[0]!,
    at = faces[from]!.centre;
  const arrows: Arrow[] = [];
  const taken: Vec3[] = [];
  const take = (arrow: Arrow, v: Vec3) => {
    if (taken.length < 2 && taken.every((t) => length3(cross3(t, v)) > NOT_PARALLEL)) {
      arrows.push(arrow);
      taken.push(v);
    }
  };
  for (const to of order) {
    const v = sub3(faces[to]!.centre, at);
    if (length3(v) > NOT_PARALLEL * size) take({ to }, unit3(v));
  }
  for (const way of order) {
    const v = waysOf(faces[way]!)[0];
    if (v) take({ way }, v);
  }
  return { from, arrows };
}

/** Motions looked at in full, at most: bodies all of whose faces are alike have many. */
const MOST_TRIED = 4_000;

/** Whether a motion under which all faces fit is believed; asked before it is taken. */
export type Witness = (motion: Rigid) => boolean;
const ANY: Witness = () => true;

/**
 * The motion that lays one body on another that has just the same faces. The rarest faces fix the few motions there can
 * be; each is verified face by face and given up at the first that has no partner, so that the time grows as the faces.
 * @param size of the reference (box diagonal), mm @returns undefined where some face has no partner, or the witness
 * believes no such motion
 */
export function placeWhole(
  reference: readonly Face[],
  submission: readonly Face[],
  size: number,
  witness = ANY,
): Placement | undefined {
  const found = classes(reference, submission);
  if (!found?.length) return undefined;
  const classOf: Class[] = [];
  for (const c of found) for (const i of c.reference) classOf[i] = c;
  const hold = holdOf(
    reference,
    found.flatMap((c) => c.reference),
    size,
  );
  const near = new Nearby(
    reference.map((f) => f.centre),
    10 * SAME_PLACE * size,
  );
  const order = found.flatMap((c) => c.submission);
  const fits = (motion: Rigid): boolean =>
    order.every((j) => {
      const face = movedFace(submission[j]!, motion);
      return near.find(face.centre, (i) => sameFace(reference[i]!, face, size)) >= 0;
    });

  const at = reference[hold.from]!.centre;
  const vectorOf = (arrow: Arrow): Vec3 =>
    "to" in arrow ? sub3(reference[arrow.to]!.centre, at) : waysOf(reference[arrow.way]!)[0]!;
  const own = hold.arrows.map(vectorOf);
  /** What the arrow could be in the submission, from a face there. */
  const likeArrow = (arrow: Arrow, v: Vec3, from: number): Vec3[] => {
    if ("way" in arrow) return classOf[arrow.way]!.submission.flatMap((j) => waysOf(submission[j]!));
    return classOf[arrow.to]!.submission.map((j) => sub3(submission[j]!.centre, submission[from]!.centre)).filter(
      (w) => Math.abs(length3(w) - length3(v)) <= 10 * SAME_PLACE * size,
    );
  };
  const angle = own[1] && dot3(unit3(own[0]!), unit3(own[1]));
  let tried = 0;
  const attempt = (from: number, rows: Rigid["rows"]): Placement | undefined => {
    const turned = move({ rows, shift: [0, 0, 0] }, submission[from]!.centre);
    const shift = map3(sub3(at, turned), (v) => (Math.abs(v) < ROUNDING * size ? 0 : v));
    const motion = { rows, shift };
    if (tried++ > MOST_TRIED || !fits(motion) || !witness(motion)) return undefined;
    const matching = matchFaces(
      reference,
      submission.map((f) => movedFace(f, motion)),
      size,
    );
    // two faces of the submission may have found the same partner
    return matching.unmatchedReference.length ? undefined : { motion, matching };
  };
  for (const from of classOf[hold.from]!.submission) {
    if (!own[0]) {
      const same = attempt(from, IDENTITY.rows);
      if (same) return same;
      continue;
    }
    for (const first of likeArrow(hold.arrows[0]!, own[0], from)) {
      const a = unit3(first);
      // nothing else points: any turn about the first will do
      const seconds = own[1] ? likeArrow(hold.arrows[1]!, own[1], from) : [anyAcross(a)];
      for (const second of seconds) {
        const b = unit3(second);
        if (angle !== undefined && Math.abs(dot3(a, b) - angle) > SAME_ANGLE) continue;
        const goal = triad(unit3(own[0]), own[1] ? unit3(own[1]) : anyAcross(unit3(own[0])));
        const placed = attempt(from, snapRows(rotationBetween(triad(a, b), goal)));
        if (placed) return placed;
        if (tried > MOST_TRIED) return undefined;
      }
    }
  }
  return undefined;
}

export const isWhole = (p: Placement | undefined): p is Placement =>
  p !== undefined && !p.matching.unmatchedReference.length && !p.matching.unmatchedSubmission.length;
