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
/** The frame moved along its normal by `offset` millimetres. */
export const offsetFrame = (f: Frame, offset: number): Frame => ({ ...f, origin: add3(f.origin, scale3(normalOf(f), offset)) });
