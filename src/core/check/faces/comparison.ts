import { IDENTITY, move, type Rigid } from "@/core/geometry/rigid";
import { distance3 } from "@/core/geometry/vector";
import type { Face } from "@/core/kernel/faces";
import type { Kernel } from "@/core/kernel/opencascade";
import { distanceToFace, pointsOfSurface } from "@/core/kernel/sample";
import { faceShapes } from "@/core/kernel/solid";
import type { Surface } from "@/core/measure/surfaces";
import { SAME_PLACE } from "@/core/measure/tolerance";
import { correspond, type Correspondence } from "./correspond";
import { mirroredTensor, sameInertia } from "../placing/inertia";
import type { Deviation } from "../facets/deviation";
import { wholeOf, type Measured, type MeasuredReference as Reference } from "../given/measured";
import { movedFace, transformedFace } from "../placing/match";
import { placeOn } from "../placing/placement";
import { INCHES, SAME_SIZE } from "../tolerance";
import { isWhole, placeWhole, type Placement, type Witness } from "../placing/whole";

/** How a submission stands to the reference, before anything is cut. */
export interface Comparison {
  /** same: every face coincides; differs; mirrored; scaled; unplaced: nothing comes together; absent: no solid. */
  readonly finding: "same" | "differs" | "mirrored" | "scaled" | "unplaced" | "absent";
  /** Submission to reference; of a mirrored part where it lies best as it is. */
  readonly motion: Rigid;
  readonly facesMatched: number;
  /** Size of the submission over that of the reference; 1 unless scaled. */
  readonly scale: number;
  /** The submission's faces where they lie on the reference; of a mirrored part those of its image. */
  readonly placed: readonly Face[];
  readonly faces: Correspondence;
  /** Of a part that came as facets: how far they lie from the reference. */
  readonly deviation?: Deviation;
}

const NOTHING: Correspondence = { faces: [], extra: [] };

/** Box diagonal of a part, mm. */
export const sizeOfPart = (m: { readonly properties: NonNullable<Measured["properties"]> }): number =>
  distance3(m.properties.box.min, m.properties.box.max);

/** Places a submission on the reference, tells mirrored and wrongly scaled parts, and finds which face is which. */
export function compareParts(kernel: Kernel, reference: Reference, submission: Measured): Comparison {
  const base = { motion: IDENTITY, facesMatched: 0, scale: 1, placed: [], faces: NOTHING };
  const { properties } = submission,
    { solid, faces: own } = wholeOf(submission);
  if (!solid || !properties) return { ...base, finding: "absent" };
  const size = sizeOfPart(reference),
    { tensor } = properties;
  const ratio = properties.volume / reference.properties.volume;
  const believed: Witness = ({ rows }) => sameInertia(reference.properties.tensor, tensor, rows);
  const near = placeOn(reference.faces, own, size, believed);
  const sameVolume = Math.abs(ratio - 1) <= SAME_SIZE;
  const found = (finding: Comparison["finding"], p: Placement, scale: number, shown: readonly Face[]): Comparison => {
    const placed = shown.map((f) => movedFace(f, p.motion));
    const faces = correspond(reference.faces, placed, p.matching, size);
    return { finding, motion: p.motion, facesMatched: p.matching.pairs.length, scale, placed, faces };
  };
  if (isWhole(near) && sameVolume && believed(near.motion) && isProved(kernel, reference, submission, near, size))
    return found("same", near, 1, own);
  const scale = Math.cbrt(ratio),
    byArea = Math.sqrt(properties.area / reference.properties.area);
  if (Math.abs(scale - 1) > INCHES && Math.abs(byArea / scale - 1) < SAME_SIZE) {
    const scaled = own.map((f) => transformedFace(f, false, 1 / scale));
    const right = placeWhole(reference.faces, scaled, size);
    if (right) return found("scaled", right, scale, scaled);
  }
  if (sameVolume) {
    const image = own.map((f) => transformedFace(f, true, 1));
    const asImage: Witness = ({ rows }) => sameInertia(reference.properties.tensor, mirroredTensor(tensor), rows);
    const mirrored = placeWhole(reference.faces, image, size, asImage);
    if (mirrored) {
      const told = found("mirrored", mirrored, 1, image);
      return near ? { ...told, motion: near.motion, facesMatched: near.matching.pairs.length } : told;
    }
  }
  return near ? found("differs", near, 1, own) : { ...base, finding: "unplaced" };
}

/** How many points of a surface must lie on its partner. */
const POINTS = 5;

/**
 * Whether surfaces that are neither flat nor round coincide too: kinds and areas alone do not tell. Points at
 * irrational places of each lie on its partner.
 */
function isProved(kernel: Kernel, reference: Reference, submission: Measured, p: Placement, size: number): boolean {
  const whole = wholeOf(submission);
  return p.matching.pairs.every(([r, s]) => {
    const [own, other] = [reference.faces[r]!, whole.faces[s]!];
    if (own.carrier.kind !== "other") return true;
    const shapes = (m: { solid: Measured["solid"] }, f: Surface) => {
      const all = faceShapes(kernel, m.solid!.shape).shapes;
      return f.pieces.map((i) => all[i]!);
    };
    const target = shapes(reference, own);
    return shapes(whole, other).every((piece) => {
      const on = pointsOfSurface(kernel, piece).filter((q) => distanceToFace(kernel, piece, q) <= SAME_PLACE * size);
      return on
        .slice(0, POINTS)
        .every((q) => target.some((t) => distanceToFace(kernel, t, move(p.motion, q)) <= 10 * SAME_PLACE * size));
    });
  });
}
