import { edgeRef, faceRef, vertexRef } from "@/core/part/reference/make";
import type { AnyRef } from "@/core/part/reference/schema";
import type { Step } from "@/core/part/steps/registry";

/** What kind of thing a lost reference meant, and how a new one is made; nothing for names that are chosen, not picked. */
export function freeRef(ref: AnyRef) {
  if ("face" in ref) return { kind: "face", make: faceRef } as const;
  if ("edge" in ref) return { kind: "edge", make: edgeRef } as const;
  return "vertex" in ref ? ({ kind: "vertex", make: vertexRef } as const) : undefined;
}

/** A step with the value at a path replaced. */
export function replaced(step: Step, path: string, value: unknown): Step {
  const put = (v: unknown, keys: readonly string[]): unknown => {
    const [k, ...rest] = keys;
    if (k === undefined) return value;
    return Array.isArray(v)
      ? v.map((x, i) => (String(i) === k ? put(x, rest) : x))
      : { ...(v as object), [k]: put((v as Record<string, unknown>)[k], rest) };
  };
  return put(step, path.split(".")) as Step;
}
