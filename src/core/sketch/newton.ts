import { addEntry, envelope, factor, solveFactored, type Envelope } from "./skyline";
import { residual, type BoundEquation, type Cluster } from "./system";
import { DAMPING, NO_DAMPING, PIVOT, RESIDUAL, RESIDUAL_LOOSE } from "./tolerance";

/** A cluster made ready for repeated solving: which equations share unknowns, and storage for J W Jᵀ. */
export interface Prepared {
  readonly cluster: Cluster;
  /** Per equation: the distinct unknowns (local numbers) and, per slot, where its derivative goes (-1: a constant). */
  readonly columns: readonly (readonly number[])[];
  readonly target: readonly (readonly number[])[];
  /** Made when Newton's method first asks: rank does without. */
  readonly normal: () => Normal;
}

/** Storage for J W Jᵀ: which equations share unknowns, and where those stand in both rows. */
interface Normal {
  readonly pairs: Int32Array;
  readonly shared: Int32Array[];
  readonly matrix: Envelope;
}

export function prepare(cluster: Cluster, constant: Uint8Array): Prepared {
  const local = new Map<number, number>();
  cluster.unknowns.forEach((s, i) => local.set(s, i));
  const users: number[][] = cluster.unknowns.map(() => []);
  const columns: number[][] = [];
  const target: number[][] = [];
  cluster.equations.forEach((e, k) => {
    const own: number[] = [];
    target.push(
      e.slots.map((s) => {
        if (constant[s]) return -1;
        const l = local.get(s)!;
        const at = own.indexOf(l);
        if (at >= 0) return at;
        users[l]!.push(k);
        return own.push(l) - 1;
      }),
    );
    columns.push(own);
  });
  let normal: Normal | undefined;
  return { cluster, columns, target, normal: () => (normal ??= normalOf(columns, users)) };
}

function normalOf(columns: readonly (readonly number[])[], users: readonly (readonly number[])[]): Normal {
  const neighbours: number[][] = [];
  const pairs: number[] = [];
  const shared: Int32Array[] = [];
  columns.forEach((own, k) => {
    const near = new Set<number>();
    for (const l of own) for (const o of users[l]!) near.add(o);
    near.delete(k);
    neighbours.push([...near]);
    for (const o of near) {
      if (o > k) continue;
      pairs.push(k, o);
      // places of the common unknowns in both rows
      const both: number[] = [];
      own.forEach((l, i) => {
        const j = columns[o]!.indexOf(l);
        if (j >= 0) both.push(i, j);
      });
      shared.push(Int32Array.from(both));
    }
  });
  return { pairs: Int32Array.from(pairs), shared, matrix: envelope(neighbours) };
}

/** Row of derivatives of an equation over its distinct unknowns; `residual` must have been called at the same x. */
export function gather(e: BoundEquation, target: readonly number[], row: Float64Array): void {
  row.fill(0);
  for (let i = 0; i < target.length; i++) if (target[i]! >= 0) row[target[i]!]! += e.g[i]!;
}

interface NewtonOptions {
  readonly iterations?: number;
  /** Mobility of each unknown (default 1): a small one moves little. */
  readonly weight?: (slot: number) => number;
}

/**
 * Newton's method with steps of least weighted norm, damped when a step does not help:
 * dx = -W Jᵀ (J W Jᵀ + μ)⁻¹ r. Changes x in place.
 * @returns whether every residual is met; when not, x holds the best point found
 */
export function newton(prepared: Prepared, x: Float64Array, scale: number, options: NewtonOptions = {}): boolean {
  const { cluster, columns, target } = prepared;
  const { unknowns, equations } = cluster;
  const m = equations.length;
  const weights = options.weight ? Float64Array.from(unknowns, options.weight) : undefined;
  const r = new Float64Array(m);
  const measure = () => {
    let sum = 0,
      worst = 0;
    for (let k = 0; k < m; k++) {
      const v = (r[k] = residual(equations[k]!, x));
      sum += v * v;
      worst = Math.max(worst, Math.abs(v));
    }
    return { sum, worst };
  };
  let { sum, worst } = measure();
  if (worst <= RESIDUAL * scale) return true;
  const { pairs, shared, matrix } = prepared.normal();
  const rows = columns.map((c) => new Float64Array(c.length));
  const weighted = weights ? columns.map((c) => new Float64Array(c.length)) : rows;
  const step = new Float64Array(unknowns.length);
  const before = new Float64Array(unknowns.length);
  let damping = 0;
  for (let it = 0; it < (options.iterations ?? 60); it++) {
    if (worst <= RESIDUAL * scale) return true;
    for (let k = 0; k < m; k++) {
      gather(equations[k]!, target[k]!, rows[k]!);
      if (weights) columns[k]!.forEach((l, i) => (weighted[k]![i] = rows[k]![i]! * weights[l]!));
    }
    matrix.values.fill(0);
    for (let k = 0; k < m; k++) {
      let d = 0;
      for (let i = 0; i < rows[k]!.length; i++) d += rows[k]![i]! * weighted[k]![i]!;
      addEntry(matrix, k, k, d * (1 + damping));
    }
    for (let q = 0; q < shared.length; q++) {
      const a = rows[pairs[2 * q]!]!,
        b = weighted[pairs[2 * q + 1]!]!,
        both = shared[q]!;
      let s = 0;
      for (let i = 0; i < both.length; i += 2) s += a[both[i]!]! * b[both[i + 1]!]!;
      addEntry(matrix, pairs[2 * q]!, pairs[2 * q + 1]!, s);
    }
    factor(matrix, PIVOT);
    const y = Float64Array.from(r);
    solveFactored(matrix, y);
    step.fill(0);
    for (let k = 0; k < m; k++)
      for (let i = 0; i < columns[k]!.length; i++) step[columns[k]![i]!]! -= weighted[k]![i]! * y[k]!;
    unknowns.forEach((s, i) => (before[i] = x[s]!));
    let length = 1,
      better = false;
    for (let half = 0; half < 8; half++, length /= 2) {
      unknowns.forEach((s, i) => (x[s] = before[i]! + length * step[i]!));
      const next = measure();
      if (next.sum < sum) {
        better = true;
        if (next.worst <= RESIDUAL_LOOSE * scale && next.sum > 0.25 * sum) return true;
        ({ sum, worst } = next);
        break;
      }
    }
    if (!better) {
      unknowns.forEach((s, i) => (x[s] = before[i]!));
      ({ sum, worst } = measure());
      if (worst <= RESIDUAL_LOOSE * scale) return true;
      damping = damping ? damping * 16 : DAMPING;
      if (damping > 1e6) return false;
    } else damping = length === 1 ? damping / 16 : damping;
    if (damping < NO_DAMPING) damping = 0;
  }
  return worst <= RESIDUAL_LOOSE * scale;
}
