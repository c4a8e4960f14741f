import type { PartDocument } from "../../document";
import { circ, edge, extrude, face, rect, sketch } from "../build";

/** A body with what closed formulas say of it, and one or more ways of building it. mm. */
export interface KnownSolid {
  readonly name: string;
  readonly volume: number;
  readonly area?: number;
  readonly centre?: readonly [number, number, number];
  /** Of inertia about the centre along x, y and z, for unit density, mm⁵. */
  readonly moments?: readonly [number, number, number];
  readonly bodies?: number;
  readonly ways: readonly PartDocument[];
}

const { PI, tan } = Math;
/**
 * A box on the top plane with its corner at the origin: sides l1 (y = 0), l2 (x = w), l3, l4; start below, end above.
 */
export const box = (w: number, d: number, h: number, id = "b") =>
  [sketch(`${id}s`, "top", rect(0, 0, w, d)), extrude(id, `${id}s`, h)] as const;
export const disc = (r: number, h: number, id = "b") =>
  [sketch(`${id}s`, "top", circ(0, 0, r)), extrude(id, `${id}s`, h)] as const;
export const top = face("b/end");
/** What a coned bottom of a whole angle (degrees) adds below a hole of radius r. */
export const cone = (r: number, degrees: number) => (PI * r ** 3) / 3 / tan((degrees * PI) / 360);
export const rim = (which: string) => edge(`b/side/${which}`, "b/end");
export const upright = (a: number, b: number) => edge(`b/side/l${a}`, `b/side/l${b}`);
export const SIXTH = [0, 1, 2, 3, 4, 5].map((k) => [20 * Math.cos((k * PI) / 3), 20 * Math.sin((k * PI) / 3)] as const);
