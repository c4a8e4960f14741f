import type { Constraint, Dimension } from "../sketch";
import { across } from "./across";
import { angle, fullAngle } from "./angle";
import { arcLength } from "./arc-length";
import { horizontalDistance, verticalDistance } from "./axis-distance";
import { collinear } from "./collinear";
import { coincident } from "./coincident";
import { concentric } from "./concentric";
import { curvature } from "./curvature";
import { distance } from "./distance";
import { equal } from "./equal";
import { fixed } from "./fixed";
import { horizontal } from "./horizontal";
import type { RelationKind } from "./kind";
import { length } from "./length";
import { midpoint } from "./midpoint";
import { parallel } from "./parallel";
import { spaced, turned } from "./pattern";
import { perpendicular } from "./perpendicular";
import { pointLine } from "./point-line";
import { pointOnCurve } from "./point-on-curve";
import { diameter, radius } from "./radius";
import { symmetric } from "./symmetric";
import { tangent } from "./tangent";
import { ring, toSide } from "./to-side";
import { vertical } from "./vertical";

/** Every kind of constraint and dimension, one line each. */
export const KINDS: Record<Constraint["kind"] | Dimension["kind"], RelationKind> = {
  coincident,
  horizontal,
  vertical,
  parallel,
  perpendicular,
  collinear,
  tangent,
  curvature,
  equal,
  concentric,
  midpoint,
  symmetric,
  fixed,
  spaced,
  turned,
  "point-on-curve": pointOnCurve,
  length,
  distance,
  radius,
  diameter,
  ring,
  across,
  angle,
  "to-side": toSide,
  "full-angle": fullAngle,
  "arc-length": arcLength,
  "horizontal-distance": horizontalDistance,
  "vertical-distance": verticalDistance,
  "point-line": pointLine,
};
