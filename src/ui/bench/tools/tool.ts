import type { Segment } from "@/core/geometry/segment";
import type { Vec2 } from "@/core/geometry/vector";
import type { SketchCommand } from "@/core/sketch/command-schema";
import type { Curve, Dimension, Sketch } from "@/core/sketch/sketch";
import type { LengthUnit } from "@/core/units/quantity";
import type { Hit } from "../sketch/hit";

/** One edge or outline, all edges of a face, or where the plane cuts the part. */
export type PartPick = "edge" | "face" | "section";

/** A dimension placed but not yet sized. */
export type NewDimension = Pick<Dimension, "kind" | "of" | "sides"> & {
  readonly at: [number, number];
  readonly flip?: boolean;
};

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
  /** What would go. */
  readonly gone?: readonly Segment[];
}

/** A number that can be typed while a tool is at work. */
export interface Field {
  readonly label: string;
  readonly quantity: "length" | "angle" | "count" | "ratio";
  /** What was typed, or what the pointer makes it now. */
  readonly text: string;
  readonly typed: boolean;
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
  /**
   * Pictures, as curves of the sketch, of the part's edge at a place, of all edges of the face there, or of the
   * section.
   */
  partAt(at: Vec2, what: PartPick): readonly Curve[];
}

/** A tool is one small state machine; the layer feeds it pointers and shows its preview. */
export interface Tool {
  /** It begins with what is picked already; before the others what is picked is let go. */
  readonly usesPicked?: boolean;
  /** Edges of the part can be clicked now as if they were drawn. */
  readonly takesPart?: boolean;
  readonly hint: string;
  readonly preview: Preview;
  /** Numbers that can be typed now; Tab goes from one to the next. */
  readonly fields?: readonly Field[];
  down?(p: Pointer): void;
  move?(p: Pointer): void;
  up?(p: Pointer): void;
  /** The pointer was taken away in the middle of a press: what was being dragged goes back. */
  abandon?(): void;
  /** A number is typed into one of the fields. */
  type?(field: number, text: string): void;
  /** Enter: accepts what is typed, or ends what is being drawn. False when it has no use for it. */
  enter?(): boolean;
  /** Its key pressed again: another way of the same tool. False when the next variant should be taken. */
  again?(): boolean;
  /** Goes out one level; false when there is none left. */
  cancel?(): boolean;
  /** Called when another way of it is taken up: what was gathered is selected again. */
  release?(): void;
  /** Called when the tool is taken up, with what is selected. */
  begin?(): void;
}
