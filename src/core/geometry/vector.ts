export type Vec2 = readonly [number, number];
export type Vec3 = readonly [number, number, number];

export const add2 = (a: Vec2, b: Vec2): Vec2 => [a[0] + b[0], a[1] + b[1]];
export const sub2 = (a: Vec2, b: Vec2): Vec2 => [a[0] - b[0], a[1] - b[1]];
export const scale2 = (a: Vec2, k: number): Vec2 => [a[0] * k, a[1] * k];
export const dot2 = (a: Vec2, b: Vec2): number => a[0] * b[0] + a[1] * b[1];
/** z of the cross product: positive where b lies counter-clockwise of a. */
export const cross2 = (a: Vec2, b: Vec2): number => a[0] * b[1] - a[1] * b[0];
export const length2 = (a: Vec2): number => Math.hypot(a[0], a[1]);
export const distance2 = (a: Vec2, b: Vec2): number => Math.hypot(b[0] - a[0], b[1] - a[1]);
export const mid2 = (a: Vec2, b: Vec2): Vec2 => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];

export const add3 = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const sub3 = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale3 = (a: Vec3, k: number): Vec3 => [a[0] * k, a[1] * k, a[2] * k];
export const dot3 = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross3 = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const length3 = (a: Vec3): number => Math.hypot(a[0], a[1], a[2]);
export const distance3 = (a: Vec3, b: Vec3): number => length3(sub3(a, b));
/** Unit vector along a; a must not be zero. */
export const unit3 = (a: Vec3): Vec3 => scale3(a, 1 / length3(a));

/** A vector made one component after the other. */
export const perAxis = (component: (axis: 0 | 1 | 2) => number): Vec3 => [component(0), component(1), component(2)];

/** A unit vector square to a unit vector, always the same one. */
export const anyAcross = (d: Vec3): Vec3 => unit3(cross3(d, Math.abs(d[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0]));

/** A vector of its numbers, where a list would be of any length. */
export const vec3 = (x: number, y: number, z: number): Vec3 => [x, y, z];
/** A vector of what each of its numbers becomes. */
export const map3 = (v: Vec3, by: (n: number, axis: 0 | 1 | 2) => number): Vec3 => [
  by(v[0], 0),
  by(v[1], 1),
  by(v[2], 2),
];
/** A vector of what is said of each axis. */
export const eachAxis = (by: (axis: 0 | 1 | 2) => number): Vec3 => [by(0), by(1), by(2)];
export const eachAxis2 = (by: (axis: 0 | 1) => number): Vec2 => [by(0), by(1)];
