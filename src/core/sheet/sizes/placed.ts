import type { Vec2 } from "@/core/geometry/vector";
import type { Item, ItemLine } from "./items";
import type { Place } from "../layout/layout";
import type { Box, Segment } from "../plane";
import type { View } from "../views/views";

/** Lettering as it stands: its base line's place, and the box its signs fill. */
export interface PlacedText {
  readonly line: ItemLine;
  readonly at: Vec2;
  readonly anchor: "start" | "middle" | "end";
  /** Degrees, counter-clockwise. */
  readonly turn: number;
  readonly box: Box;
}

/** An arc as it is drawn; radians, `to` after `from`. */
interface PlacedArc {
  readonly centre: Vec2;
  readonly radius: number;
  readonly from: number;
  readonly to: number;
}

/**
 * A size as it is drawn beside its view: mm of paper from the view's lower left corner, y upwards.
 */
export interface Placed {
  readonly item: Item;
  readonly view: View;
  readonly texts: readonly PlacedText[];
  /** The dimension line, or the leader with its shelf; of an arc the chords that others keep clear of. */
  readonly lines: readonly Segment[];
  readonly arc?: PlacedArc;
  readonly extensions: readonly Segment[];
  /** Heads: where they touch, and the unit way they point. */
  readonly arrows: readonly { readonly tip: Vec2; readonly way: Vec2 }[];
  readonly box: Box;
  /** On which side, how far out, and from where to where: of straight dimensions. */
  readonly tier?: { readonly side: string; readonly offset: number; readonly from: number; readonly to: number };
  /** What speaks against it by itself. */
  readonly own: number;
  /** How it is told again: what stands in a layout that is kept. */
  readonly place?: Place;
}

/** View coordinates to paper mm from the view's lower left corner. */
export const paperOf =
  (view: View, scale: number) =>
  ([x, y]: Vec2): Vec2 => [(x - view.box.min[0]) * scale, (y - view.box.min[1]) * scale];
