import { sizeOfPart } from "../../comparison";
import { matchFaces } from "../../match";
import type { CheckContext } from "../context";
import type { PlaceEvidence } from "./kind";

/** As many faces must coincide without moving the part as where it lies best. */
export function checkPlace({ reference, submission, comparison }: CheckContext): PlaceEvidence {
  const asBuilt = matchFaces(reference.faces, submission.faces, sizeOfPart(reference)).pairs.length;
  const atBest = comparison.facesMatched;
  const isThere = asBuilt > 0 && asBuilt >= atBest;
  return { check: "place", verdict: isThere ? "met" : "missed", off: isThere ? 0 : 1, asBuilt, atBest };
}
