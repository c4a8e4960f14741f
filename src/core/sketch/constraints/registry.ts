import type { Constraint, Dimension } from "../sketch";
import { angle } from "./angle";
import { horizontalDistance, verticalDistance } from "./axis-distance";
import { coincident } from "./coincident";
import { concentric } from "./concentric";
import { distance } from "./distance";
import { equal } from "./equal";
import { fixed } from "./fixed";
import { horizontal } from "./horizontal";
import type { RelationKind } from "./kind";
import { length } from "./length";
import { midpoint } from "./midpoint";
import { parallel } from "./parallel";
import { perpendicular } from "./perpendicular";
import { pointLine } from "./point-line";
import { pointOnCurve } from "./point-on-curve";
import { diameter, radius } from "./radius";
import { vertical } from "./vertical";

/** Every kind of constraint and dimension, one line each. */
export const KINDS: Record<Constraint["kind"] | Dimension["kind"], RelationKind> = {
  coincident, horizontal, vertical, parallel, perpendicular, equal, concentric, midpoint, fixed,
  "point-on-curve": pointOnCurve,
  length, distance, radius, diameter, angle,
  "horizontal-distance": horizontalDistance,
  "vertical-distance": verticalDistance,
  "point-line": pointLine,
};
