import type { Vec2 } from "@/core/geometry/vector";
import type { Placed } from "../sizes/placed";
import { heightOf, widthOf } from "../plane";
import type { View } from "../views/views";

/** Air to the frame, mm. */
export const EDGE = 5;

/** A view where it stands on paper: its lower left corner, mm from the upper left of the sheet, y downwards. */
export interface Standing {
  readonly view: View;
  readonly scale: number;
  readonly corner: Vec2;
  readonly placed: readonly Placed[];
}

/** From a view's own paper coordinates (mm from its lower left corner, y upwards) to those of the sheet. */
export const onSheet =
  ({ corner }: Pick<Standing, "corner">) =>
  ([x, y]: Vec2): Vec2 => [corner[0] + x, corner[1] - y];

/** The middle of a view on the sheet. */
export const middleOf = ({ view, scale, corner }: Standing): Vec2 => [
  corner[0] + (widthOf(view.box) * scale) / 2,
  corner[1] - (heightOf(view.box) * scale) / 2,
];

/** The corner of a view whose middle is given. */
export const cornerFor = (view: View, scale: number, [x, y]: Vec2): Vec2 => [
  x - (widthOf(view.box) * scale) / 2,
  y + (heightOf(view.box) * scale) / 2,
];
