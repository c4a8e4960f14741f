import type { Vec2 } from "@/core/geometry/vector";

/** Kinds of lines of ISO 128-2: what they stand for, not how wide they are. */
export type Pen = "outline" | "hidden" | "thin" | "centre" | "cutting" | "hatch" | "frame";

/** One thing on paper: mm, x to the right, y down from the upper left corner; angles counter-clockwise as seen. */
export type Mark =
  | { readonly mark: "line"; readonly pen: Pen; readonly a: Vec2; readonly b: Vec2 }
  | {
      readonly mark: "arc";
      readonly pen: Pen;
      readonly centre: Vec2;
      readonly radius: number;
      /** Radians, `to` after `from`; a whole circle where they are a turn apart. */
      readonly from: number;
      readonly to: number;
    }
  | { readonly mark: "path"; readonly pen: Pen; readonly points: readonly Vec2[]; readonly isClosed?: boolean }
  /** What a pointer at the group lights up; printed nowhere. */
  | { readonly mark: "light"; readonly lines: readonly (readonly Vec2[])[] }
  /** Filled: an arrow's head. */
  | { readonly mark: "fill"; readonly points: readonly Vec2[] }
  | {
      readonly mark: "text";
      /** On its base line. */
      readonly at: Vec2;
      readonly text: string;
      /** Of its capitals, mm. */
      readonly height: number;
      readonly anchor: "start" | "middle" | "end";
      /** How far its base line is turned, counter-clockwise as seen: 90 reads from the right. Degrees. */
      readonly turn?: number;
      readonly isBold?: boolean;
    };

/** Marks that belong together. */
export interface Group {
  readonly role: "frame" | "title" | "view" | "dimension" | "remark" | "note";
  /** Of a view its key, of a dimension or a remark its id. */
  readonly name?: string;
  /** What kind of thing it is, for somebody who cannot see it. */
  readonly title?: string;
  /** Where a pointer meets it: x, y, width, height. */
  readonly patch?: readonly [number, number, number, number];
  readonly marks: readonly Mark[];
  /** Of a dimension between two things: what it runs between, for files that know dimensions as such. */
  readonly measures?: Measured;
}

/** Where a dimension's things are, and a place its line or arc goes through. */
export type Measured =
  | {
      readonly kind: "straight";
      readonly from: Vec2;
      readonly to: Vec2;
      readonly on: Vec2;
      readonly turn: number;
      /** How long on the paper is what is lettered as 1, mm; left out in Sheets of before. */
      readonly scale?: number;
    }
  | { readonly kind: "angular"; readonly vertex: Vec2; readonly from: Vec2; readonly to: Vec2; readonly on: Vec2 };

/** A drawing on paper, before it becomes a file of some kind. */
export interface Drawing {
  readonly title: string;
  /** mm. */
  readonly width: number;
  readonly height: number;
  /** Width of wide lines; narrow ones have half. mm. */
  readonly wide: number;
  readonly groups: readonly Group[];
}

/** Of the lettering font: capitals and advance of every sign, in heights of the body. */
const CAPITALS = 0.75;
const ADVANCE = 0.65;
/** The size of type that has capitals of a height, mm. */
export const typeSize = (height: number): number => height / CAPITALS;
/** How long a text is, mm: every sign of the lettering is as wide as the others. */
export const textLength = (text: string, height: number): number => ([...text].length * height * ADVANCE) / CAPITALS;

/** Line widths by pen, mm. */
export const penWidth = (pen: Pen, wide: number): number =>
  pen === "outline" || pen === "frame" || pen === "cutting" ? wide : wide / 2;

/** Dashes of ISO 128-2 in widths of the line: dash, gap, dash, gap …; none for continuous lines. */
export function dashes(pen: Pen, wide: number): readonly number[] {
  const w = wide / 2;
  if (pen === "hidden") return [12 * w, 3 * w];
  if (pen === "centre" || pen === "cutting") return [24 * w, 3 * w, 3 * w, 3 * w];
  return [];
}
