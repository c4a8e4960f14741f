import { add3, cross3, dot3, scale3, sub3, type Vec2, type Vec3 } from "./vector";

/** A right-handed plane frame: origin, unit x and y in the plane; the normal is x × y. */
export interface Frame {
  readonly origin: Vec3;
  readonly x: Vec3;
  readonly y: Vec3;
}

export const DATUM_PLANES = ["front", "top", "right"] as const;
export type DatumPlane = (typeof DATUM_PLANES)[number];

/** The three datum planes; Z is up, right-handed. Front is seen from −Y, top from +Z, right from +X. */
export const DATUM_FRAMES: Record<DatumPlane, Frame> = {
  front: { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 0, 1] },
  top: { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0] },
  right: { origin: [0, 0, 0], x: [0, 1, 0], y: [0, 0, 1] },
};

export const normalOf = (f: Frame): Vec3 => cross3(f.x, f.y);
/** Plane coordinates to space; `lift` is the distance along the normal. Millimetres. */
export const toSpace = (f: Frame, p: Vec2, lift = 0): Vec3 =>
  add3(add3(f.origin, scale3(normalOf(f), lift)), add3(scale3(f.x, p[0]), scale3(f.y, p[1])));
/** Space to plane coordinates (orthogonal projection). */
export const toPlane = (f: Frame, p: Vec3): Vec2 => [dot3(sub3(p, f.origin), f.x), dot3(sub3(p, f.origin), f.y)];
/** The frame turned about its own x or y axis by an angle (radians, right-hand rule). */
export function tiltedFrame(f: Frame, about: "x" | "y", angle: number): Frame {
  const n = normalOf(f),
    c = Math.cos(angle),
    s = Math.sin(angle);
  const mix = (a: Vec3, b: Vec3, k: number, l: number): Vec3 => add3(scale3(a, k), scale3(b, l));
  return about === "x" ? { ...f, y: mix(f.y, n, c, s) } : { ...f, x: mix(f.x, n, c, -s) };
}
/** The frame of a flat face: its origin is the foot of the part's, its x level (along X where the face is level). */
export function faceFrame(normal: Vec3, offset: number): Frame {
  const level = Math.abs(normal[2]) > 0.999999;
  const across: Vec3 = level ? [1, 0, 0] : [-normal[1], normal[0], 0];
  const x = scale3(across, 1 / Math.hypot(...across));
  return { origin: scale3(normal, offset), x, y: cross3(normal, x) };
}
/** The frame moved along its normal by `offset` millimetres. */
export const offsetFrame = (f: Frame, offset: number): Frame => ({
  ...f,
  origin: add3(f.origin, scale3(normalOf(f), offset)),
});
