import { DATUM_FRAMES, normalOf } from "@/core/geometry/frame";
import { scale3, type Vec3 } from "@/core/geometry/vector";
import type { Model } from "@/core/kernel/model";
import type { PartDocument } from "@/core/part/document";
import type { ShownBody } from "../kernel/messages";
import type { Looking } from "../state";
import { faceNow } from "./refs";

/** Colours of the body and of single faces, by place. Faces are found by name alone here: it is only the picture. */
export function coloursOf(
  { colours }: PartDocument,
  model: Model | undefined,
): { readonly body?: string; readonly faces: ReadonlyMap<number, string> } | undefined {
  if (!colours) return undefined;
  const faces = new Map<number, string>();
  for (const { on, colour } of colours.faces ?? []) {
    const best = model && faceNow(model, on);
    if (best !== undefined) faces.set(best, colour);
  }
  return { ...(colours.body && { body: colours.body }), faces };
}

/** Places of the faces of hidden bodies. */
export function hiddenFaces(bodies: readonly ShownBody[], hidden: readonly string[]): ReadonlySet<number> {
  const out = new Set<number>();
  let at = 0;
  for (const b of bodies) {
    if (hidden.includes(b.id)) for (let i = at; i < at + b.faces; i++) out.add(i);
    at += b.faces;
  }
  return out;
}

/** The plane a section cuts by, its normal towards what is taken away. */
export function cutOf(section: Looking["section"]): { readonly at: Vec3; readonly normal: Vec3 } | undefined {
  if (!section) return undefined;
  const n = normalOf(DATUM_FRAMES[section.base]);
  return { at: scale3(n, section.offset), normal: scale3(n, section.flip ? -1 : 1) };
}

/** Whether a sketch or datum shows: by its own switch, or as its kind does. */
export const isSeen = (looking: Looking, id: string, kind: boolean): boolean => looking.single[id] ?? kind;
