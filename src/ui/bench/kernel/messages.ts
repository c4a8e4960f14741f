import type { Vec3 } from "@/core/geometry/vector";
import type { Frame } from "@/core/geometry/frame";
import type { Edge } from "@/core/kernel/edges";
import type { Mesh } from "@/core/kernel/mesh";
import type { Model } from "@/core/kernel/model";
import type { Properties } from "@/core/kernel/properties";
import type { Reading, Thing } from "@/core/measure/measure";
import type { PartDocument } from "@/core/part/document";
import type { BuiltStep } from "@/core/part/rebuild";
import type { Datum } from "@/core/part/steps/step";
import type { PrintedSize } from "@/core/sizes/found";
import type { SheetView } from "@/core/sheet/sheet";
import type { LengthUnit } from "@/core/units/quantity";
import type { Sketch } from "@/core/sketch/sketch";

/** What can be looked at and picked: facets, and what they stand for, in the same order. */
export interface Shown {
  readonly mesh: Mesh;
  readonly model: Model;
  /** Places of faces that are hidden: what belongs to them alone cannot be picked. */
  readonly hidden?: ReadonlySet<number>;
}

/** A body of the part, and how many faces it has: bodies stand one after the other in the mesh. */
export interface ShownBody {
  readonly id: string;
  readonly faces: number;
}

export interface Built {
  /** Which build this is: questions about it say so. */
  readonly id: number;
  readonly mesh: Mesh | undefined;
  readonly model: Model | undefined;
  readonly bodies: readonly ShownBody[];
  readonly properties: Properties | undefined;
  readonly steps: readonly BuiltStep[];
  readonly datums: Readonly<Record<string, Datum>>;
  /** Sketches that lie on the part or hold pictures of it, as they stand now. */
  readonly placed: Readonly<Record<string, Pick<Sketch, "plane" | "curves">>>;
  /** Edges, outlines and sections of the part that a sketch at work may show. */
  readonly edges: readonly Edge[];
  /** The part before the step at work: what that step may pick. */
  readonly under: Shown | undefined;
}

/** What is at work: the steps that stand before it, and for a sketch its plane. */
export interface AtWork {
  readonly before: number;
  readonly frame?: Frame;
}

export interface BuildOrder {
  readonly document: PartDocument;
  readonly at: AtWork | undefined;
  /** Facets: 1 as usual, 4 four times finer. Plays no part in any number. */
  readonly fineness: number;
}

export type Question =
  /** `of`: the build whose part is meant. */
  | { readonly ask: "nearest"; readonly of: number; readonly a: Thing; readonly b: Thing }
  | { readonly ask: "extent"; readonly of: number; readonly along: Vec3 }
  /** Which of the printed sizes the part shows. */
  | {
      readonly ask: "printed";
      readonly of: number;
      readonly sizes: readonly PrintedSize[];
      readonly unit: LengthUnit;
    }
  /** The part drawn as a view of the Sheet draws the reference. */
  | { readonly ask: "match"; readonly of: number; readonly view: SheetView }
  | {
      readonly ask: "file";
      readonly format: "step" | "stl" | "3mf";
      readonly document: PartDocument;
      readonly fineness: number;
    };
export type Answer =
  | { readonly reading: Reading }
  /** mm */
  | { readonly extent: number }
  /** Ids of sizes. */
  | { readonly found: readonly string[] }
  /** SVG in the coordinates of the Sheet. */
  | { readonly lines: string }
  | { readonly bytes: Uint8Array };

export type ToWorker =
  { readonly id: number; readonly build: BuildOrder } | { readonly id: number; readonly question: Question };
export type FromWorker =
  | { readonly ready: true }
  /** The kernel is there and the build has begun: from now on its time counts. */
  | { readonly id: number; readonly begun: true }
  /** The picture comes first; what is measured on it follows. */
  | { readonly id: number; readonly picture: Pick<Built, "mesh" | "steps" | "bodies"> }
  | { readonly id: number; readonly built: Omit<Built, "mesh" | "id">; readonly heapBytes: number }
  | { readonly id: number; readonly overtaken: true }
  | { readonly id: number; readonly answer: Answer }
  | { readonly id: number; readonly failed: string };
