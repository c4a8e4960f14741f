import type { Kernel } from "@/core/kernel/opencascade";
import { densityOf } from "@/core/part/document";
import { makeSheet, type Sheet } from "@/core/sheet/sheet";
import { sizesOf, type RankTable } from "@/core/sizes/sizes";
import type { Size } from "@/core/sizes/size";
import { done, type Outcome } from "@/core/units/refusal";
import { measurePart } from "./measured";
import type { Wanted } from "./question";
import { wantedFigures } from "./questions";
import type { Exercise } from "./exercise";

/** What an exercise asks for: its Sheet, and the targets measured on its reference. mm³, mm², g. */
export interface Targets {
  readonly sheet: Sheet;
  /** The sizes it prints, and how those proposed for the reference follow the numbers it was made with. */
  readonly sizes: readonly Size[];
  readonly table: RankTable;
  /** The right answers to its questions. */
  readonly wanted: Wanted;
  readonly volume: number;
  readonly area: number;
  readonly mass: number;
}

/**
 * Draws the Sheet of an exercise and measures its reference; the mass is that of the exercise's material.
 * @param tell is told how many of the reference's numbers have been followed, and how many there are
 */
export function prepareExercise(
  kernel: Kernel,
  exercise: Exercise,
  tell?: (done: number, of: number) => void,
): Outcome<Targets> {
  const found = sizesOf(kernel, exercise.reference, tell);
  const sizes = exercise.sizes ?? (found.ok ? found.value.sizes : []);
  const sheet = makeSheet(kernel, { ...exercise, sizes });
  // the Sheet says it in the words of a drawing
  if (!sheet.ok) return sheet;
  if (!found.ok) return found;
  const wanted = wantedFigures(kernel, exercise);
  if (!wanted.ok) return wanted;
  const { solid, properties } = measurePart(kernel, exercise.reference);
  kernel.release(solid?.shape);
  const { volume, area } = properties!;
  return done({
    sheet: sheet.value,
    sizes,
    table: found.value.table,
    wanted: wanted.value,
    volume,
    area,
    mass: volume * densityOf(exercise.material),
  });
}
