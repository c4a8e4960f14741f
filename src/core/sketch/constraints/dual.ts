import { TINY_ROOT } from "../tolerance";
import { TINY } from "@/core/geometry/tolerance";
import type { Equation } from "./kind";

/**
 * A value with its derivatives by every slot of an equation: exact differentiation by the chain rule, for the rarer
 * kinds.
 */
export class Dual {
  constructor(
    readonly v: number,
    readonly d: Float64Array,
  ) {}
  private with(v: number, a: number, o?: Dual, b = 0): Dual {
    const d = new Float64Array(this.d.length);
    for (let i = 0; i < d.length; i++) d[i] = a * this.d[i]! + (o ? b * o.d[i]! : 0);
    return new Dual(v, d);
  }
  add(o: Dual): Dual {
    return this.with(this.v + o.v, 1, o, 1);
  }
  sub(o: Dual): Dual {
    return this.with(this.v - o.v, 1, o, -1);
  }
  mul(o: Dual): Dual {
    return this.with(this.v * o.v, o.v, o, this.v);
  }
  div(o: Dual): Dual {
    const k = o.v || TINY;
    return this.with(this.v / k, 1 / k, o, -this.v / (k * k));
  }
  times(k: number): Dual {
    return this.with(this.v * k, k);
  }
  plus(k: number): Dual {
    return this.with(this.v + k, 1);
  }
  sqrt(): Dual {
    const r = Math.sqrt(Math.max(this.v, 0));
    return this.with(r, 0.5 / (r || TINY_ROOT));
  }
  sin(): Dual {
    return this.with(Math.sin(this.v), Math.cos(this.v));
  }
  cos(): Dual {
    return this.with(Math.cos(this.v), -Math.sin(this.v));
  }
  /** Angle of (x, this). */
  atan2(x: Dual): Dual {
    const q = this.v * this.v + x.v * x.v || TINY;
    return this.with(Math.atan2(this.v, x.v), x.v / q, x, -this.v / q);
  }
}

export type Dual2 = readonly [Dual, Dual];
export const sub = (a: Dual2, b: Dual2): Dual2 => [a[0].sub(b[0]), a[1].sub(b[1])];
export const add = (a: Dual2, b: Dual2): Dual2 => [a[0].add(b[0]), a[1].add(b[1])];
export const scaled = (a: Dual2, k: Dual): Dual2 => [a[0].mul(k), a[1].mul(k)];
export const dot = (a: Dual2, b: Dual2): Dual => a[0].mul(b[0]).add(a[1].mul(b[1]));
export const cross = (a: Dual2, b: Dual2): Dual => a[0].mul(b[1]).sub(a[1].mul(b[0]));
export const length = (a: Dual2): Dual => dot(a, a).sqrt();
/** Σ of weighted pairs. */
export const weighted = (points: readonly Dual2[], weights: readonly number[]): Dual2 => {
  const n = points[0]![0].d.length;
  const sum = (k: 0 | 1) => {
    const values = new Float64Array(n);
    let v = 0;
    points.forEach((p, j) => {
      const w = weights[j]!;
      if (w === 0) return;
      v += w * p[k].v;
      for (let i = 0; i < n; i++) values[i]! += w * p[k].d[i]!;
    });
    return new Dual(v, values);
  };
  return [sum(0), sum(1)];
};

/** An equation written over duals. @param f receives one dual per slot and gives the residual in mm */
export const derived = (slots: readonly number[], f: (v: readonly Dual[]) => Dual): Equation => ({
  slots,
  evaluate: (v, g) => {
    const n = slots.length;
    const list = Array.from({ length: n }, (_, i) => {
      const d = new Float64Array(n);
      d[i] = 1;
      return new Dual(v[i]!, d);
    });
    const r = f(list);
    for (let i = 0; i < n; i++) g[i] = r.d[i]!;
    return r.v;
  },
});
/** The i-th pair of some duals. */
export const pair = (v: readonly Dual[], i: number): Dual2 => [v[2 * i]!, v[2 * i + 1]!];
