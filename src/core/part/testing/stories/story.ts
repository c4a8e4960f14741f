import type { PartDocument } from "../../document";
import { circ, cut, edge, extrude, face, part, rect, sketch } from "../build";

/**
 * Something is picked on the part before, the part is changed, and it is looked for again. `holds`: it is found, and
 * then its middle stands where told (mm). `lost`: it must be reported lost, not replaced by something else.
 */
export interface Story {
  readonly name: string;
  readonly before: PartDocument;
  readonly after: PartDocument;
  /** Keys of faces, edges (A|B) and vertices (A&B&C) on the part before. */
  readonly holds?: Readonly<Record<string, readonly [number, number, number] | true>>;
  readonly lost?: readonly string[];
}

type Steps = Parameters<typeof part>;
export const block = (w = 60, d = 40, h = 20): Steps => [sketch("s", "top", rect(0, 0, w, d)), extrude("b", "s", h)];
export const top = face("b/end");
export const slot = (x0: number, x1: number): Steps => [
  sketch("t", "top", rect(x0, -5, x1, 100)),
  cut("c", "t", "through"),
];
export const upright = (a: number, b: number) => edge(`b/side/l${a}`, `b/side/l${b}`);
export const post = (r: number, h: number): Steps => [sketch("s", "top", circ(0, 0, r)), extrude("b", "s", h)];

export const raised = (id: string, from: string, by: number) =>
  extrude(id, "", by, { sketch: undefined, face: face(from) });
export const walled = (id: string, from: string, ends?: Record<string, "first">) =>
  extrude(id, from, 10, { thin: { thickness: 2, side: "middle", ...(ends && { ends }) } });
