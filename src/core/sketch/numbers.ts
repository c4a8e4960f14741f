import type { Slots } from "./constraints/kind";
import { curveKind } from "./curves/registry";
import type { Spline } from "./curves/schema";
import { knotsOf } from "./curves/spline";
import { entityOf, takenApart, type Curve, type Sketch } from "./sketch";

/** Slots of the origin and of the ends of the two axes. */
const FIXED = 6;

/** The numbers of a sketch's curves in their slots, and which of them are one. */
export class Numbers {
  readonly slotOf = new Map<string, number>();
  /** Values; of those that are one, the representative's counts. */
  x: Float64Array;
  /** Representative of each slot. */
  root: Int32Array;
  constant: Uint8Array;
  /** Size of the sketch, mm. */
  readonly scale: number;
  /** How many drawn values stand behind each. */
  private readonly weight: Float64Array;
  private readonly curves = new Map<string, Curve>();
  private readonly pointNames = new Map<string, readonly string[]>();

  /** @param longest the largest length that is asked for, mm */
  constructor(sketch: Sketch, longest: number) {
    // origin 0,0; the axes run from it to 1,0 and 0,1
    const values = [0, 0, 1, 0, 0, 1];
    let extent = longest;
    for (const c of sketch.curves) {
      const kind = curveKind(c);
      this.slotOf.set(c.id, values.length);
      this.curves.set(c.id, c);
      this.pointNames.set(c.id, kind.points(c));
      for (const v of kind.numbers(c)) {
        values.push(v);
        extent = Math.max(extent, Math.abs(v));
      }
    }
    this.scale = extent || 1;
    this.x = Float64Array.from(values);
    this.root = counting(values.length);
    this.weight = new Float64Array(values.length).fill(1);
    this.constant = new Uint8Array(values.length).fill(1, 0, FIXED);
    // pictures of the part stand where the part puts them
    for (const c of sketch.curves)
      if (c.projected)
        this.constant.fill(1, this.slotOf.get(c.id), this.slotOf.get(c.id)! + curveKind(c).numbers(c).length);
  }

  /** The slot that stands for this one. */
  find(i: number): number {
    const { root } = this;
    while (root[i] !== i) i = root[i] = root[root[i]!]!;
    return i;
  }

  same(a: number, b: number): boolean {
    const [p, q] = [this.find(a), this.find(b)];
    return p === q || (this.constant[p] === 1 && this.constant[q] === 1 && this.x[p] === this.x[q]);
  }

  /** Makes two slots one, from the mean of what was drawn. @returns how far apart two constants are that cannot be */
  merge(a: number, b: number): number {
    const { x, constant, weight } = this;
    const [p, q] = [this.find(a), this.find(b)];
    if (constant[p] && constant[q]) return Math.abs(x[p]! - x[q]!);
    const [keep, lose] = constant[p] || (!constant[q] && p < q) ? [p, q] : [q, p];
    if (!constant[keep])
      x[keep] = (x[keep]! * weight[keep]! + x[lose]! * weight[lose]!) / (weight[keep]! + weight[lose]!);
    weight[keep]! += weight[lose]!;
    this.root[lose] = keep;
    return 0;
  }

  /** Values as they are merged so far. */
  merged(): Float64Array {
    return this.x.map((_, i) => this.x[this.find(i)]!);
  }

  /** Unknowns beside those of the curves stand after them; then every slot has its representative's value. */
  close(extras: readonly number[]): void {
    if (extras.length) {
      const { x, root, constant } = this;
      this.x = Float64Array.from([...x, ...extras]);
      this.root = counting(this.x.length);
      this.root.set(root);
      this.constant = new Uint8Array(this.x.length);
      this.constant.set(constant);
    }
    for (let i = 0; i < this.x.length; i++) {
      this.root[i] = this.find(i);
      this.x[i] = this.x[this.root[i]!]!;
    }
  }

  /** Where relations find their numbers. @param held points that a relation holds on a curve */
  slots(held: readonly (readonly [point: string, curve: string])[]): Slots {
    const { slotOf, pointNames, curves, scale } = this;
    const points = new Map<string, readonly [number, number]>([["origin", [0, 1]]]);
    const slots: Slots = {
      scale,
      same: (a, b) => this.same(a, b),
      point(ref) {
        const known = points.get(ref);
        if (known) return known;
        const [id, part] = takenApart(ref),
          at = slotOf.get(id)!;
        const k = part === undefined ? 0 : pointNames.get(id)!.indexOf(part);
        const place = [at + 2 * k, at + 2 * k + 1] as const;
        points.set(ref, place);
        return place;
      },
      line(ref) {
        if (ref === "x-axis") return [0, 1, 2, 3];
        if (ref === "y-axis") return [0, 1, 4, 5];
        const at = slotOf.get(ref)!;
        return [at, at + 1, at + 2, at + 3];
      },
      centre(ref) {
        const at = slotOf.get(ref)! + 2 * pointNames.get(ref)!.indexOf("centre");
        return [at, at + 1];
      },
      radius: (ref) => slotOf.get(ref)! + curveKind(curves.get(ref)!).radius!,
      all(ref) {
        const at = slotOf.get(ref)!,
          c = curves.get(ref)!;
        return Array.from({ length: curveKind(c).numbers(c).length }, (_, i) => at + i);
      },
      type: (ref) =>
        ref === "origin" || ref.includes(".") ? "point" : ref.endsWith("-axis") ? "line" : entityOf(curves.get(ref)!),
      ends: (ref) => (pointNames.get(ref)?.includes("end") ? [`${ref}.start`, `${ref}.end`] : []),
      spline(ref) {
        const c = curves.get(ref) as Spline;
        return { knots: knotsOf(c), start: c.startHandle !== undefined, end: c.endHandle !== undefined };
      },
      isOn: (point, curve) => {
        const own = slots.point(point);
        const is = (ref: string) => {
          const other = slots.point(ref);
          return this.same(own[0], other[0]) && this.same(own[1], other[1]);
        };
        return slots.ends(curve).some(is) || held.some(([ref, on]) => on === curve && is(ref));
      },
    };
    return slots;
  }
}

/** 0, 1, 2 … */
export function counting(n: number): Int32Array {
  const list = new Int32Array(n);
  for (let i = 0; i < n; i++) list[i] = i;
  return list;
}
