import { formatFace, stepOf } from "@/core/naming/names";
import { facesOfSize } from "@/core/sizes/size";
import type { CheckContext } from "./kinds/context";
import type { Free } from "./findings";

/**
 * Faces of the reference that the exercise leaves to the student: those of free steps, those marked, and those whose
 * size is free. A size between two faces frees none: both may be held by others.
 */
export function freeFaces({ exercise, reference, sizes }: CheckContext): Free {
  const steps = new Set(exercise.free?.steps),
    faces = new Set(exercise.free?.faces);
  const alone = sizes.filter((s) => s.free && (s.kind === "radius" || s.kind === "chamfer"));
  for (const s of alone) for (const f of s.kind === "chamfer" ? s.of.map((b) => b.slant) : facesOfSize(s)) faces.add(f);
  const found = new Set<number>();
  reference.faces.forEach((f, i) => {
    const names = f.names.map(formatFace);
    if (names.some((n) => faces.has(n) || steps.has(stepOf(n))) || f.keys.some((k) => faces.has(k))) found.add(i);
  });
  return found;
}

/**
 * Whether nothing differs but what is left free, and what that cuts. Then amounts are no fault either: a difference
 * anywhere else would have a face of its own.
 */
export function onlyFreeDiffers(context: CheckContext): boolean {
  const { comparison } = context;
  if (comparison.finding !== "differs" || comparison.faces.extra.length) return false;
  const free = freeFaces(context);
  if (!free.size) return false;
  return comparison.faces.faces.every((f, i) => f.state === "same" || f.state === "cut" || free.has(i));
}
