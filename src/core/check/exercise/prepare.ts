import { letteringOf } from "@/core/sheet/subject";
import type { Kernel } from "@/core/kernel/opencascade";
import { densityOf } from "@/core/part/document";
import { partPicture } from "@/core/sheet/picture";
import { usedSketches } from "@/core/part/rebuild";
import type { Drawing } from "@/core/formats/drawing";
import { svgOf } from "@/core/formats/drawing-svg";
import type { Proof } from "@/core/sheet/proof/proof";
import { proveSheet } from "@/core/sheet/proof/prove";
import { drawSheet, type Sheet } from "@/core/sheet/sheet";
import { bodyOf, keyOf } from "@/core/sizes/body";
import { featuresOf } from "@/core/sizes/features";
import { disturbed, proposedSizes, type RankTable } from "@/core/sizes/sizes";
import type { Size } from "@/core/sizes/size";
import { done, type Outcome } from "@/core/units/refusal";
import { measurePart } from "../given/measured";
import type { Signature } from "./own-numbers";
import type { Wanted } from "./question";
import { wantedFigures } from "./questions";
import type { Exercise } from "./exercise";

/** What an exercise asks for: its Sheet, and the targets measured on its reference. mm³, mm², g. */
export interface Targets {
  readonly sheet: Sheet;
  /** The sizes it prints, and how those proposed for the reference follow the numbers it was made with. */
  readonly sizes: readonly Size[];
  /** What a person sees on the reference, by name, with the faces it is made of: it can be left free. */
  readonly things: readonly { readonly name: string; readonly faces: readonly string[] }[];
  readonly table: RankTable;
  /** Whether the Sheet says enough, and only once. */
  readonly proof: Proof;
  /** The Sheet before it is written as a file: other kinds of files are made of it. */
  readonly drawing: Drawing;
  /** What tells the part from others. */
  readonly signature: Signature;
  /** The right answers to its questions. */
  readonly wanted: Wanted;
  /** The part as a line drawing, as SVG; left out where it cannot be drawn. */
  readonly picture?: string | undefined;
  /** Bodies of the reference, and sketches that its steps stand on and that are not fully defined. */
  readonly bodies: number;
  readonly loose: number;
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
  const changed = disturbed(kernel, exercise.reference, tell);
  const sizes = exercise.sizes ?? (changed.ok ? proposedSizes(changed.value) : []);
  const drawn = drawSheet(kernel, { ...exercise, sizes });
  // the Sheet says it in the words of a drawing
  if (!drawn.ok) return drawn;
  if (!changed.ok) return changed;
  const { drawing, sheet } = drawn.value;
  const wanted = wantedFigures(kernel, exercise);
  if (!wanted.ok) return wanted;
  const { solid, properties, faces, built } = measurePart(kernel, exercise.reference);
  const picture = solid && partPicture(kernel, solid, exercise.title);
  kernel.release(solid?.shape);
  const { volume, area, moments, box } = properties!;
  const things = featuresOf(bodyOf(faces, box), letteringOf(exercise), sizes).map((f) => ({
    name: f.name,
    faces: f.surfaces.map((s) => keyOf(faces[s]!)),
  }));
  const { table, proof } = proveSheet(changed.value, drawn.value, { ...exercise, sizes }, volume);
  return done({
    sheet: { ...sheet, svg: svgOf(drawing) },
    drawing,
    sizes,
    things,
    table,
    proof,
    signature: { area, moments },
    wanted: wanted.value,
    picture,
    bodies: properties!.bodies,
    loose: usedSketches(exercise.reference).filter((id) => built.sketches.get(id)?.diagnosis.freedoms).length,
    volume,
    area,
    mass: volume * densityOf(exercise.material),
  });
}
