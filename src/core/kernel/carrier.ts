import { ROUNDING } from "@/core/geometry/tolerance";
import type { Line } from "@/core/geometry/line";
import { add3, cross3, dot3, length3, scale2, scale3, sub3, unit3, type Vec2, type Vec3 } from "@/core/geometry/vector";

/** The surface a face is cut from. `hollow`: the material lies outside, as in a bore. mm, radians. */
export type Carrier =
  | { readonly kind: "plane"; readonly normal: Vec3; readonly offset: number }
  | {
      readonly kind: "cylinder";
      readonly at: Vec3;
      readonly axis: Vec3;
      readonly radius: number;
      readonly hollow: boolean;
    }
  /** `axis` runs from the tip into the cone; `half` is the angle between them. */
  | { readonly kind: "cone"; readonly tip: Vec3; readonly axis: Vec3; readonly half: number; readonly hollow: boolean }
  | { readonly kind: "sphere"; readonly centre: Vec3; readonly radius: number; readonly hollow: boolean }
  | {
      readonly kind: "torus";
      readonly centre: Vec3;
      readonly axis: Vec3;
      readonly major: number;
      readonly minor: number;
      readonly hollow: boolean;
    }
  /** What an ellipse sweeps along its axis; `long` runs along the longer of the two half axes, `halves`. */
  | {
      readonly kind: "elliptic";
      readonly at: Vec3;
      readonly axis: Vec3;
      readonly long: Vec3;
      readonly halves: Vec2;
      readonly hollow: boolean;
    }
  /**
   * `about`: what it turns about. `rounding`: the radius of a ball that rolls along it. `spots`: places on it, where
   * they were asked for.
   */
  | {
      readonly kind: "other";
      readonly type: string;
      readonly about?: Line;
      readonly rounding?: number;
      readonly spots?: readonly Spot[];
    };

/** A place on a free surface and the direction out of the material there. */
export interface Spot {
  readonly at: Vec3;
  readonly out: Vec3;
}

/** The line a round surface turns about; none for planes and spheres. */
export function axisOf(carrier: Carrier): Line | undefined {
  switch (carrier.kind) {
    case "cylinder":
    case "elliptic":
      return { at: carrier.at, along: carrier.axis };
    case "cone":
      return { at: carrier.tip, along: carrier.axis };
    case "torus":
      return { at: carrier.centre, along: carrier.axis };
    case "other":
      return carrier.about;
    default:
      return undefined;
  }
}

/** The radius that rounds: of a ring that of its tube, of a free face that of the ball that rolls along it. */
export function roundingOf(carrier: Carrier): number | undefined {
  if (carrier.kind === "torus") return carrier.minor;
  if (carrier.kind === "other") return carrier.rounding;
  return "radius" in carrier ? carrier.radius : undefined;
}

export type Elliptic = Extract<Carrier, { kind: "elliptic" }>;
/** A place in the plane across an elliptic surface: along its longer and its shorter half axis from its middle, mm. */
const across = ({ at, axis, long }: Elliptic, p: Vec3): Vec2 => {
  const away = sub3(p, at);
  return [dot3(away, long), dot3(away, cross3(axis, long))];
};

/** How far a place in its plane is from an ellipse with these half axes, by halving (Eberly 2013). */
function distanceToEllipse([a, b]: Vec2, [x, y]: Vec2): number {
  const [px, py] = [Math.abs(x), Math.abs(y)],
    // the foot is (a²·px / (t + a²), b²·py / (t + b²)) for the one t from which it lies on the ellipse
    foot = (t: number): Vec2 => [(a * a * px) / (t + a * a), (b * b * py) / (t + b * b)],
    outside = (t: number): boolean => Math.hypot(foot(t)[0] / a, foot(t)[1] / b) > 1;
  let [low, high] = [b * py - b * b, Math.hypot(a * px, b * py) - b * b];
  for (let i = 0; i < HALVINGS && low < high; i++) {
    const middle = (low + high) / 2;
    if (outside(middle)) low = middle;
    else high = middle;
  }
  // on the longer axis, near the middle, the nearest place lies beside it
  const reach = a * a - b * b;
  if (py < ROUNDING && px * a < reach) return b * Math.sqrt(Math.max(0, 1 - (px * px) / reach));
  const [footX, footY] = foot(high);
  return Math.hypot(px - footX, py - footY);
}
const HALVINGS = 80;

/** How far a point is from a carrier, mm; without end for surfaces that are none of the elementary ones. */
export function distanceTo(carrier: Carrier, p: Vec3): number {
  if (carrier.kind === "plane") return Math.abs(dot3(carrier.normal, p) - carrier.offset);
  if (carrier.kind === "sphere") return Math.abs(length3(sub3(p, carrier.centre)) - carrier.radius);
  const axis = axisOf(carrier);
  if (!axis) return Infinity;
  const w = sub3(p, axis.at),
    along = dot3(w, axis.along),
    out = length3(cross3(w, axis.along));
  if (carrier.kind === "cylinder") return Math.abs(out - carrier.radius);
  if (carrier.kind === "elliptic") return distanceToEllipse(carrier.halves, across(carrier, p));
  if (carrier.kind === "cone") return Math.abs(out * Math.cos(carrier.half) - along * Math.sin(carrier.half));
  return carrier.kind === "torus" ? Math.abs(Math.hypot(out - carrier.major, along) - carrier.minor) : Infinity;
}

/** Unit normal of a carrier at a point on it, out of the material; undefined where there is none. */
export function normalAt(carrier: Carrier, p: Vec3): Vec3 | undefined {
  if (carrier.kind === "plane") return carrier.normal;
  if (carrier.kind === "other") return undefined;
  const axis = axisOf(carrier),
    sign = carrier.hollow ? -1 : 1,
    away = (from: Vec3): Vec3 | undefined => {
      const w = sub3(p, from);
      return length3(w) < ROUNDING ? undefined : scale3(unit3(w), sign);
    };
  if (!axis) return away((carrier as { centre: Vec3 }).centre);
  if (carrier.kind === "elliptic") {
    const { long, halves } = carrier,
      [x, y] = across(carrier, p);
    const out = add3(scale3(long, x / halves[0] ** 2), scale3(cross3(carrier.axis, long), y / halves[1] ** 2));
    return length3(out) < ROUNDING ? undefined : scale3(unit3(out), sign);
  }
  const w = sub3(p, axis.at),
    along = dot3(w, axis.along),
    foot = add3(axis.at, scale3(axis.along, along)),
    out = sub3(p, foot);
  if (length3(out) < ROUNDING) return undefined;
  if (carrier.kind === "cylinder") return away(foot);
  if (carrier.kind === "cone")
    return scale3(sub3(scale3(unit3(out), Math.cos(carrier.half)), scale3(axis.along, Math.sin(carrier.half))), sign);
  return away(add3(axis.at, scale3(unit3(out), (carrier as { major: number }).major)));
}

/**
 * A carrier after a motion, reflection or scaling: where points and directions go, and what lengths are multiplied
 * by.
 */
export function mappedCarrier(carrier: Carrier, place: (p: Vec3) => Vec3, turn: (d: Vec3) => Vec3, scale = 1): Carrier {
  switch (carrier.kind) {
    case "plane": {
      const normal = turn(carrier.normal);
      return { ...carrier, normal, offset: dot3(normal, place(scale3(carrier.normal, carrier.offset))) };
    }
    case "cylinder":
      return { ...carrier, at: place(carrier.at), axis: turn(carrier.axis), radius: carrier.radius * scale };
    case "cone":
      return { ...carrier, tip: place(carrier.tip), axis: turn(carrier.axis) };
    case "sphere":
      return { ...carrier, centre: place(carrier.centre), radius: carrier.radius * scale };
    case "torus":
      return {
        ...carrier,
        centre: place(carrier.centre),
        axis: turn(carrier.axis),
        major: carrier.major * scale,
        minor: carrier.minor * scale,
      };
    case "elliptic": {
      const halves = scale2(carrier.halves, scale);
      return { ...carrier, at: place(carrier.at), axis: turn(carrier.axis), long: turn(carrier.long), halves };
    }
    case "other": {
      const spots = carrier.spots?.map((spot) => ({ at: place(spot.at), out: turn(spot.out) })),
        rounding = carrier.rounding === undefined ? undefined : carrier.rounding * scale,
        about = carrier.about && { at: place(carrier.about.at), along: turn(carrier.about.along) };
      return {
        ...carrier,
        ...(spots && { spots }),
        ...(rounding !== undefined && { rounding }),
        ...(about && { about }),
      };
    }
  }
}
