import type { z } from "zod";
import type { AnyEvidence, CheckKind } from "./kind";
import { answersKind } from "./answers/kind";
import { figuresKind } from "./figures/kind";
import { handKind } from "./hand/kind";
import { massKind } from "./mass/kind";
import { materialKind } from "./material/kind";
import { placeKind } from "./place/kind";
import { shapeKind } from "./shape/kind";
import { sizesKind } from "./sizes/kind";
import { sketchesKind } from "./sketches/kind";
import { solidKind } from "./solid/kind";
import { volumeKind } from "./volume/kind";
import { waysKind } from "./ways/kind";

/** Every kind of check, one line each, in the order of a rubric; how they are run stands in checkers.ts. */
const CHECK_KINDS = {
  sketches: sketchesKind,
  solid: solidKind,
  volume: volumeKind,
  mass: massKind,
  shape: shapeKind,
  sizes: sizesKind,
  figures: figuresKind,
  place: placeKind,
  answers: answersKind,
  material: materialKind,
  ways: waysKind,
  hand: handKind,
};
type Kinds = typeof CHECK_KINDS;
export type CheckName = keyof Kinds;
/** What a check found. */
export type Evidence = { [K in CheckName]: z.infer<Kinds[K]["evidence"]> }[CheckName];

export const CHECK_NAMES = Object.keys(CHECK_KINDS) as [CheckName, ...CheckName[]];
export const checkKind = (name: CheckName): CheckKind<AnyEvidence> => CHECK_KINDS[name];
