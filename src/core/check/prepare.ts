import type { Kernel } from "@/core/kernel/opencascade";
import { densityOf } from "@/core/part/document";
import { makeSheet, type Sheet } from "@/core/sheet/sheet";
import { done, type Outcome } from "@/core/units/refusal";
import { measurePart } from "./check";
import type { Exercise } from "./exercise";

/** What an exercise asks for: its Sheet, and the targets measured on its reference. mm³, mm², g. */
export interface Targets {
  readonly sheet: Sheet;
  readonly volume: number;
  readonly area: number;
  readonly mass: number;
}

/** Draws the Sheet of an exercise and measures its reference; the mass is that of the exercise's material. */
export function prepareExercise(kernel: Kernel, exercise: Exercise): Outcome<Targets> {
  const sheet = makeSheet(kernel, exercise);
  if (!sheet.ok) return sheet;
  const { solid, properties } = measurePart(kernel, exercise.reference);
  kernel.release(solid?.shape);
  const { volume, area } = properties!;
  return done({ sheet: sheet.value, volume, area, mass: volume * densityOf(exercise.material) });
}
