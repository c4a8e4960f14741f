import type { Mesh } from "@/core/kernel/mesh";
import type { Properties } from "@/core/kernel/properties";
import type { PartDocument } from "@/core/part/document";
import type { BuiltStep } from "@/core/part/rebuild";

export interface Built {
  readonly mesh: Mesh | undefined;
  readonly properties: Properties | undefined;
  readonly steps: readonly BuiltStep[];
}

export interface ToWorker {
  readonly id: number;
  readonly document: PartDocument;
}
export type FromWorker = { readonly id: number; readonly built: Built; readonly heapBytes: number } | { readonly id: number; readonly failed: string };
