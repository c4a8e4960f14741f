import { z } from "zod";
import { formatFace, stepOf } from "@/core/naming/names";
import type { Surface } from "@/core/measure/surfaces";
import { facesOfSize, type Size } from "./size";
import { plainText } from "@/core/units/text";

/** A step or a face that is left to the student: whatever it is, or up to so many mm from the drawing's. */
const LeftSchema = z.union([
  plainText().max(300),
  z.strictObject({ of: plainText().max(300), within: z.number().positive().max(1000) }),
]);
export type Left = z.infer<typeof LeftSchema>;

/** Steps by id and faces by name of the reference that are left to the student's judgement. */
export const FreeSchema = z.strictObject({ steps: z.array(LeftSchema).max(100), faces: z.array(LeftSchema).max(400) });

/** The id or name. */
export const leftOf = (l: Left): string => (typeof l === "string" ? l : l.of);

/** Faces of the reference that are left free, by place, and how far each may lie elsewhere: mm, or without end. */
export type Free = ReadonlyMap<number, number>;

/** Faces of free steps, and those marked. @param surfaces of the reference */
export function freeAmong(free: z.infer<typeof FreeSchema> | undefined, surfaces: readonly Surface[]): Free {
  const bands = (list: readonly Left[]) =>
    new Map(list.map((l) => [leftOf(l), typeof l === "string" ? Infinity : l.within]));
  const [steps, faces] = [bands(free?.steps ?? []), bands(free?.faces ?? [])];
  const found = new Map<number, number>();
  surfaces.forEach((s, i) => {
    const names = s.names.map(formatFace);
    const within = [...names.map((n) => steps.get(stepOf(n))), ...[...names, ...s.keys].map((n) => faces.get(n))];
    const known = within.filter((w) => w !== undefined);
    if (known.length) found.set(i, Math.max(...known));
  });
  return found;
}

/** The sizes with those free that stand on a free face: it may be anywhere, and they with it. */
export function sizesLeftFree(sizes: readonly Size[], free: Free, surfaces: readonly Surface[]): readonly Size[] {
  if (!free.size) return sizes;
  const own = new Set([...free.keys()].flatMap((i) => [...surfaces[i]!.keys, ...surfaces[i]!.names.map(formatFace)]));
  return sizes.map((s) => (!s.free && facesOfSize(s).some((f) => own.has(f)) ? { ...s, free: true as const } : s));
}

/** What a Sheet says of them: a face with a band is drawn and printed as it is meant. */
export const freeOnPaper = (free: Free): Free => new Map([...free].filter(([, within]) => within === Infinity));
