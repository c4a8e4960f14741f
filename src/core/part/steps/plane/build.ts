import { SAME_WAY } from "@/core/geometry/tolerance";
import { normalOf, offsetFrame, type Frame } from "@/core/geometry/frame";
import { footOn, turnedFrame } from "@/core/geometry/line";
import { add3, cross3, dot3, length3, scale3, sub3, unit3, type Vec3 } from "@/core/geometry/vector";
import { readQuantity } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { faceOf, lineOf, placeOf, planeOf } from "../../reference/resolve";
import { angleOf, type Build, type BuildContext } from "../step";
import type { PlaneStep } from "./schema";

/** Any frame in a plane: x level where it can be. */
const frameIn = (origin: Vec3, n: Vec3): Frame => {
  const x = unit3(Math.abs(n[2]) > 0.999999 ? [1, 0, 0] : [-n[1], n[0], 0]);
  return { origin, x, y: cross3(n, x) };
};

function frameBy(context: BuildContext, { by, id }: PlaneStep): Outcome<Frame> {
  switch (by.kind) {
    case "offset": {
      const from = planeOf(context, by.from),
        distance = readQuantity(by.distance, "length", context.unit, context.names);
      if (!from.ok) return from;
      return distance.ok ? done(offsetFrame(from.value, distance.value)) : distance;
    }
    case "tilted": {
      const from = planeOf(context, by.from),
        about = lineOf(context, by.about),
        angle = angleOf(context, by.angle);
      if (!from.ok) return from;
      if (!about.ok) return about;
      if (!angle.ok) return angle;
      if (Math.abs(dot3(about.value.along, normalOf(from.value))) > SAME_WAY)
        return refuse("bad-axis", "The edge must be parallel to the plane that is tilted.", [id]);
      // turned about the edge where it stands: the plane runs through the edge
      return done(turnedFrame({ ...from.value, origin: about.value.at }, about.value, angle.value));
    }
    case "midway": {
      const a = planeOf(context, by.a),
        b = planeOf(context, by.b);
      if (!a.ok) return a;
      if (!b.ok) return b;
      const n = normalOf(a.value),
        m = normalOf(b.value);
      if (length3(cross3(n, m)) < SAME_WAY)
        return done(frameIn(add3(a.value.origin, scale3(n, dot3(sub3(b.value.origin, a.value.origin), n) / 2)), n));
      // crossing planes: through their line, halving the angle; the normals of two faces point away from each other
      const along = unit3(cross3(n, m)),
        half = unit3(sub3(n, m));
      const [p, q] = [dot3(n, a.value.origin), dot3(m, b.value.origin)],
        c = dot3(n, m),
        k = 1 - c * c;
      const at = add3(scale3(n, (p - q * c) / k), scale3(m, (q - p * c) / k));
      return done({ origin: at, x: along, y: cross3(half, along) });
    }
    case "points": {
      const places: Vec3[] = [];
      for (const p of by.of) {
        const r = placeOf(context, p);
        if (!r.ok) return r;
        places.push(r.value);
      }
      const [a, b, c] = places as [Vec3, Vec3, Vec3],
        n = cross3(sub3(b, a), sub3(c, a));
      if (length3(n) < SAME_WAY) return refuse("bad-points", "The three points stand in one line.", [id]);
      const x = unit3(sub3(b, a));
      return done({ origin: a, x, y: cross3(unit3(n), x) });
    }
    case "tangent": {
      const face = faceOf(context, by.face),
        beside = planeOf(context, by.beside);
      if (!face.ok) return face;
      if (!beside.ok) return beside;
      const carrier = context.topology()!.carrier(face.value),
        n = scale3(normalOf(beside.value), by.far ? -1 : 1);
      if (carrier.kind !== "cylinder") return refuse("not-round", "A tangent plane touches a cylindrical face.", [id]);
      if (Math.abs(dot3(carrier.axis, n)) > SAME_WAY)
        return refuse("bad-axis", "The plane it is to be parallel to must run along the cylinder.", [id]);
      return done(
        frameIn(add3(footOn([0, 0, 0], { at: carrier.at, along: carrier.axis }), scale3(n, carrier.radius)), n),
      );
    }
  }
}

export const buildPlane: Build<PlaneStep> = (context, step) => {
  const frame = frameBy(context, step);
  return frame.ok ? done({ datum: { kind: "plane", frame: frame.value } }) : frame;
};
