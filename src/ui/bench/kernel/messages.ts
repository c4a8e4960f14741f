import type { Frame } from "@/core/geometry/frame";
import type { Edge } from "@/core/kernel/edges";
import type { Sketch } from "@/core/sketch/sketch";
import type { Mesh } from "@/core/kernel/mesh";
import type { Properties } from "@/core/kernel/properties";
import type { PartDocument } from "@/core/part/document";
import type { BuiltStep } from "@/core/part/rebuild";

/** A flat face a sketch can lie on, or another; in the order of the mesh's faces. */
export interface ModelFace {
  readonly key: string;
  readonly frame: Frame | undefined;
}

export interface Built {
  readonly faces: readonly ModelFace[];
  readonly edges: readonly Edge[];
  /** Sketches that lie on the part or hold pictures of it, as they stand now. */
  readonly placed: Readonly<Record<string, Pick<Sketch, "plane" | "curves">>>;
  readonly mesh: Mesh | undefined;
  readonly properties: Properties | undefined;
  readonly steps: readonly BuiltStep[];
}

export interface ToWorker {
  readonly id: number;
  readonly document: PartDocument;
  /** The sketch at work: its plane, and how many steps stand before it. What it may show is what they have built. */
  readonly sketch?: SketchAtWork | undefined;
}
export interface SketchAtWork {
  readonly frame: Frame;
  readonly before: number;
}
export type FromWorker = { readonly id: number; readonly built: Built; readonly heapBytes: number } | { readonly id: number; readonly failed: string };
