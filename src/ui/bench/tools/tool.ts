import type { Vec2 } from "@/core/geometry/vector";
import type { SketchCommand } from "@/core/sketch/commands";
import type { Curve, Dimension, Sketch } from "@/core/sketch/sketch";
import type { LengthUnit } from "@/core/units/quantity";
import type { Hit } from "../sketch/hit";

/** A dimension placed but not yet sized. */
export type NewDimension = Pick<Dimension, "kind" | "of"> & { readonly at: [number, number]; readonly flip?: boolean };

/** A pointer over the sketch: where, what is under it, and how large a pixel is there. */
export interface Pointer {
  readonly at: Vec2;
  readonly hit: Hit | undefined;
  /** mm per pixel */
  readonly pixel: number;
  /** The held key: constraints are left out, selections grow. */
  readonly shift: boolean;
}

/** What a tool shows before anything is changed. */
export interface Preview {
  readonly curves?: readonly Curve[];
  readonly mark?: { readonly at: Vec2; readonly label: string };
  readonly dimension?: NewDimension;
  readonly box?: readonly [Vec2, Vec2];
  /** The sketch as it would be, in place of the document's (dragging). */
  readonly sketch?: Sketch;
  readonly picked?: readonly string[];
}

/** What a tool may do. */
export interface Hands {
  sketch(): Sketch;
  readonly unit: LengthUnit;
  selection(): readonly string[];
  draw(command: SketchCommand): boolean;
  select(ids: readonly string[]): void;
  type(fresh: NewDimension): void;
  say(kind: "notice" | "trouble", text: string): void;
}

/** A tool is one small state machine; the layer feeds it pointers and shows its preview. */
export interface Tool {
  readonly hint: string;
  readonly preview: Preview;
  down?(p: Pointer): void;
  move?(p: Pointer): void;
  up?(p: Pointer): void;
  /** Goes out one level; false when there is none left. */
  cancel?(): boolean;
  /** Called when the tool is taken up, with what is selected. */
  begin?(): void;
}
