import { formatFace } from "@/core/naming/names";
import { freeAmong, type Free } from "@/core/sizes/free";
import { facesOfSize, type Size } from "@/core/sizes/size";
import type { FaceState } from "./correspond";
import type { Exercise } from "../exercise/exercise";
import type { MeasuredReference } from "../given/measured";
import type { Comparison } from "./comparison";
import { ON_THE_LIMIT } from "../tolerance";

/** What is asked, and what was built for it. */
interface Asked {
  readonly exercise: Exercise;
  readonly reference: MeasuredReference;
  readonly sizes: readonly Size[];
}

/**
 * Faces of the reference that the exercise leaves to the student: also those whose size is free. A size between two
 * faces frees none: both may be held by others.
 */
export function freeFaces({ exercise, reference, sizes }: Asked): Free {
  const found = new Map(freeAmong(exercise.free, reference.faces));
  const alone = sizes.filter((s) => s.free && (s.kind === "radius" || s.kind === "chamfer"));
  const faces = new Set(
    alone.flatMap((s) => (s.kind === "chamfer" ? s.of.map((b) => b.slant as string) : facesOfSize(s))),
  );
  reference.faces.forEach((f, i) => {
    if (f.names.some((n) => faces.has(formatFace(n))) || f.keys.some((k) => faces.has(k))) found.set(i, Infinity);
  });
  return found;
}

/** Whether what became of a face is left to the student: one with a band must be there. */
export function isLeftFree(free: Free, face: number, state: FaceState): boolean {
  const within = free.get(face);
  if (within === undefined || within === Infinity) return within === Infinity;
  return state.state === "changed" ? state.by <= within + ON_THE_LIMIT : state.state !== "missing";
}

/**
 * Whether nothing differs but what is left free, and what that cuts. Then amounts are no fault either: a difference
 * anywhere else would have a face of its own.
 */
export function onlyFreeDiffers(context: Asked & { readonly comparison: Comparison }): boolean {
  const { comparison } = context;
  if (comparison.finding !== "differs" || comparison.faces.extra.length) return false;
  const free = freeFaces(context);
  if (!free.size) return false;
  return comparison.faces.faces.every((f, i) => f.state === "same" || f.state === "cut" || isLeftFree(free, i, f));
}
