import { copiesIn, proposedIn } from "@/core/part/making";
import { kindOf } from "@/core/part/steps/kinds";
import { meshOf } from "@/core/kernel/mesh";
import { facetsMesh } from "../../facets/facets-mesh";
import { IDENTITY } from "@/core/geometry/rigid";
import { thinnestWall } from "@/core/measure/wall";
import { WALL_FACET, WALL_TURN } from "../../tolerance";
import { sizeOfPart } from "../../faces/comparison";
import type { CheckContext } from "../context";
import type { WaysEvidence } from "./kind";

/** How the part was built: kinds of steps, copies made by hand, names, what the program proposed, the thinnest wall. */
export function checkWays(context: CheckContext): WaysEvidence {
  const { submission, exercise, by } = context;
  const { document } = submission;
  const wall = exercise.rubric.some((l) => l.rule?.way === "wall") ? wallOf(context) : undefined;
  const steps = document?.steps.map((s) => ({
    kind: s.kind,
    title: s.name ?? kindOf(s).read(s, document.units).title,
    isNamed: s.name !== undefined && s.name.trim() !== "",
  }));
  return {
    check: "ways",
    verdict: "unknown",
    off: 0,
    ...(steps && { steps }),
    copies: document ? copiesIn(document) : [],
    name: document?.name ?? "",
    initials: by.initials,
    number: exercise.number,
    title: exercise.title,
    proposed: document ? proposedIn(document) : 0,
    ...(wall !== undefined && { wall }),
  };
}

function wallOf({ kernel, submission, reference }: CheckContext): number | undefined {
  if (submission.facets) return thinnestWall(facetsMesh(submission.facets, IDENTITY));
  if (!submission.solid || !submission.solid.names.length) return undefined;
  return thinnestWall(meshOf(kernel, submission.solid, sizeOfPart(reference) * WALL_FACET, WALL_TURN));
}
