import { sizeOfPart } from "../../faces/comparison";
import { generalFor } from "@/core/sizes/general";
import { generalOf } from "@/core/sheet/subject";
import { liesThere } from "../../facets/facets-comparison";
import { matchFaces } from "../../placing/match";
import type { CheckContext } from "../context";
import { wholeOf } from "../../given/measured";
import type { PlaceEvidence } from "./kind";

/** As many faces must coincide without moving the part as where it lies best. */
export function checkPlace({ exercise, reference, submission, comparison }: CheckContext): PlaceEvidence {
  if (comparison.deviation) {
    const size = sizeOfPart(reference),
      isThere = liesThere(comparison.motion, size, generalFor("length", size, generalOf(exercise), size));
    const atBest = comparison.facesMatched;
    return {
      check: "place",
      verdict: isThere ? "met" : "missed",
      off: isThere ? 0 : 1,
      asBuilt: isThere ? atBest : 0,
      atBest,
    };
  }
  const asBuilt = matchFaces(reference.faces, wholeOf(submission).faces, sizeOfPart(reference)).pairs.length;
  const atBest = comparison.facesMatched;
  const isThere = asBuilt > 0 && asBuilt >= atBest;
  return { check: "place", verdict: isThere ? "met" : "missed", off: isThere ? 0 : 1, asBuilt, atBest };
}
