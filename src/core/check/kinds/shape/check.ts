import { IDENTITY } from "@/core/geometry/rigid";
import { distance3 } from "@/core/geometry/vector";
import type { Face } from "@/core/kernel/faces";
import { placed as placedSolid } from "@/core/kernel/place";
import type { Solid } from "@/core/kernel/solid";
import { differenceOf } from "../../difference";
import { mirroredTensor, sameInertia } from "../../inertia";
import { transformedFace } from "../../match";
import { placeOn } from "../../placement";
import { isWhole, placeWhole, type Witness } from "../../whole";
import { INCHES, ON_THE_LIMIT, SAME_SIZE } from "../../tolerance";
import type { CheckContext } from "../context";
import type { ShapeEvidence, Lump } from "./kind";

/** What the difference looks like, for drawing; the caller releases the solids. */
export interface ShapePicture {
  readonly placed?: Solid;
  readonly missing?: Solid;
  readonly extra?: Solid;
}

/** Places the submission on the reference, recognises mirrored and wrongly scaled parts, and weighs what differs. */
export function checkShape(context: CheckContext): { evidence: ShapeEvidence; picture: ShapePicture } {
  const { kernel, reference, submission, exercise } = context;
  const tolerance = exercise.tolerances.shape;
  const size = distance3(reference.properties.box.min, reference.properties.box.max);
  const base = {
    check: "shape" as const,
    motion: IDENTITY,
    facesMatched: 0,
    facesOfReference: reference.faces.length,
    scale: 1,
    missing: [],
    extra: [],
    tolerance,
    imbalance: 0,
  };
  if (!submission.solid || !submission.properties)
    return { evidence: { ...base, verdict: "missed", finding: "absent", off: 1 }, picture: {} };

  const { tensor } = submission.properties;
  const believed: Witness = ({ rows }) => sameInertia(reference.properties.tensor, tensor, rows);
  const near = placeOn(reference.faces, submission.faces, size, believed);
  const sameVolume = Math.abs(submission.properties.volume / reference.properties.volume - 1) <= SAME_SIZE;
  if (isWhole(near) && sameVolume && believed(near.motion)) {
    return {
      evidence: {
        ...base,
        verdict: "met",
        finding: "same",
        motion: near.motion,
        facesMatched: near.matching.pairs.length,
        off: 0,
      },
      picture: { placed: placedSolid(kernel, submission.solid, near.motion) },
    };
  }
  const scale = Math.cbrt(submission.properties.volume / reference.properties.volume);
  const byArea = Math.sqrt(submission.properties.area / reference.properties.area);
  if (Math.abs(scale - 1) > INCHES && Math.abs(byArea / scale - 1) < SAME_SIZE) {
    const right = placeWhole(
      reference.faces,
      submission.faces.map((f) => transformedFace(f, false, 1 / scale)),
      size,
    );
    if (right)
      return {
        evidence: {
          ...base,
          verdict: "missed",
          finding: "scaled",
          scale,
          motion: right.motion,
          facesMatched: right.matching.pairs.length,
          off: 1,
        },
        picture: {},
      };
  }
  const mirrored =
    sameVolume &&
    placeWhole(
      reference.faces,
      submission.faces.map((f: Face) => transformedFace(f, true, 1)),
      size,
      ({ rows }) => sameInertia(reference.properties.tensor, mirroredTensor(tensor), rows),
    ) !== undefined;
  if (!near) return { evidence: { ...base, verdict: "missed", finding: "unplaced", off: 1 }, picture: {} };
  const placed = placedSolid(kernel, submission.solid, near.motion);
  const d = differenceOf(kernel, reference.solid, placed);
  const volume = reference.properties.volume;
  const sum = (list: readonly Lump[]) => list.reduce((s, l) => s + l.volume, 0);
  const off = (sum(d.missing) + sum(d.extra)) / volume;
  const picture = {
    placed,
    ...(d.missingSolid && { missing: d.missingSolid }),
    ...(d.extraSolid && { extra: d.extraSolid }),
  };
  const found = {
    ...base,
    motion: near.motion,
    facesMatched: near.matching.pairs.length,
    missing: d.missing,
    extra: d.extra,
    imbalance: d.imbalance,
  };
  if (mirrored)
    return {
      evidence: { ...found, verdict: "missed", finding: "mirrored", off: Math.max(off, tolerance * 2) },
      picture,
    };
  if (!d.trusted)
    return {
      evidence: {
        ...found,
        verdict: "unknown",
        finding: "differs",
        off,
        doubt:
          "The two parts nearly coincide and the cut between them does not balance " +
          `(by ${(d.imbalance * 100).toPrecision(2)} % of the volume). ` +
          `${near.matching.unmatchedSubmission.length} of ${submission.faces.length} faces differ.`,
      },
      picture,
    };
  return {
    evidence: { ...found, verdict: off <= tolerance + ON_THE_LIMIT ? "met" : "missed", finding: "differs", off },
    picture,
  };
}
