import { edgeRef, faceRef, vertexRef } from "@/core/part/reference/make";
import type { AnyRef } from "@/core/naming/reference";

/**
 * What kind of thing a lost reference meant, and how a new one is made; nothing for names that are chosen, not
 * picked.
 */
export function freeRef(ref: AnyRef) {
  if ("face" in ref) return { kind: "face", make: faceRef } as const;
  if ("edge" in ref) return { kind: "edge", make: edgeRef } as const;
  return "vertex" in ref ? ({ kind: "vertex", make: vertexRef } as const) : undefined;
}
