import type { Vec2 } from "@/core/geometry/vector";
import type { View } from "../views/views";

/** An end of a dimension: where it is along the measured way, and from where to where its thing reaches across. */
export interface End {
  readonly at: Vec2;
  /** Least and most across: an extension line begins at the one nearest to the dimension line. */
  readonly across: readonly [number, number];
}

/** A place a leader can point to, and the ways it may come from; view coordinates, mm of the part. */
export interface Tip {
  readonly at: Vec2;
  /** Unit, from the tip away. */
  readonly from: Vec2;
}

/** A leg of an angle: its way from where the two meet, radians, and from where to where its thing is drawn. */
export interface Leg {
  readonly angle: number;
  readonly reach: readonly [number, number];
}

/** Between two things that a view shows edge on: along `along`, which is read from left to right or upwards. */
export interface StraightWay {
  readonly form: "straight";
  readonly along: Vec2;
  readonly a: End;
  readonly b: End;
}
export interface LeaderWay {
  readonly form: "leader";
  readonly tips: readonly Tip[];
  /** Arcs that may be touched anywhere, by a leader that points to their centre. */
  readonly arcs?: readonly TouchedArc[];
}
export interface TouchedArc {
  readonly centre: Vec2;
  readonly radius: number;
  readonly from: number;
  readonly to: number;
}
/** About a point, from leg to leg counter-clockwise. */
export interface AngularWay {
  readonly form: "angular";
  readonly vertex: Vec2;
  readonly legs: readonly [Leg, Leg];
  /** The radius an arc itself is drawn with, mm of the part; left out where only an angle is meant. */
  readonly radius?: number;
}

/** A way to show a size in a view. `fault` grows with what a draughtsman would not like about the view. */
export type Presentation = { readonly view: View; readonly fault: number } & (StraightWay | LeaderWay | AngularWay);

/** Not the shape, but a place of it is seen; and: nothing of it is visible. */
export const FAULT = { notItsShape: 60, hidden: 40, anotherForm: 12 };
