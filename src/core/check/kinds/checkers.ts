import type { CheckContext } from "./context";
import type { CheckName, Evidence } from "./kinds";
import { checkAnswers } from "./answers/check";
import { checkFigures } from "./figures/check";
import { checkHand } from "./hand/check";
import { checkMass } from "./mass/check";
import { checkMaterial } from "./material/check";
import { checkPlace } from "./place/check";
import { checkShape, type ShapePicture } from "./shape/check";
import { checkSizes } from "./sizes/check";
import { checkSketches } from "./sketches/check";
import { checkSolid } from "./solid/check";
import { checkVolume } from "./volume/check";
import { checkWays } from "./ways/check";

interface Found<E> {
  readonly evidence: E;
  /** What the Marking desk draws; the caller releases it. */
  readonly picture?: ShapePicture;
}

/** How every kind of check is run, one line each. */
export const CHECKERS: { [K in CheckName]: (c: CheckContext) => Found<Extract<Evidence, { check: K }>> } = {
  sketches: (c) => ({ evidence: checkSketches(c) }),
  solid: (c) => ({ evidence: checkSolid(c) }),
  volume: (c) => ({ evidence: checkVolume(c) }),
  mass: (c) => ({ evidence: checkMass(c) }),
  shape: checkShape,
  sizes: (c) => ({ evidence: checkSizes(c) }),
  figures: (c) => ({ evidence: checkFigures(c) }),
  place: (c) => ({ evidence: checkPlace(c) }),
  answers: (c) => ({ evidence: checkAnswers(c) }),
  material: (c) => ({ evidence: checkMaterial(c) }),
  ways: (c) => ({ evidence: checkWays(c) }),
  hand: () => ({ evidence: checkHand() }),
};
