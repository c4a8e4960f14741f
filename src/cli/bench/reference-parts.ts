import { demoExercises, solidExercises } from "./demo-parts";
import { SOLIDS } from "@/core/part/testing/solids";
import { withSketchesDefined } from "@/core/sizes/numbers";
import { newExercise, type Exercise } from "@/core/check/exercise/exercise";

/** Known parts that differ most from those of the demo, with sizes for all that they leave loose. */
const NAMES = [
  "shaft of two halves with a keyway, 10",
  "counterbored hole",
  "countersunk hole",
  "rows in two directions",
  "flange",
  "two groups of roundings",
  "chamfer of two distances",
  "cup",
  "rounded box hollowed out",
  "slotted plate",
];

/** The demo's exercises and ten more. */
export const referenceExercises = (): (readonly [string, Exercise])[] => [
  ...demoExercises(),
  ...solidExercises(),
  ...NAMES.map((name): [string, Exercise] => {
    const solid = SOLIDS.find((s) => s.name === name);
    if (!solid) throw new Error(`There is no known part called ${name}.`);
    return [name, { ...newExercise(), reference: withSketchesDefined(solid.ways[0]!) }];
  }),
];
